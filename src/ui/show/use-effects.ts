import { useEffect } from 'react';
import { createStore, useStore } from 'zustand';
import { type Effects, joinedEffects } from '../../core/show';
import type { Rig } from '../../core/rig';
import { CANCELLED, propose, type Working } from '../../worker';
import { useDocument } from '../store/use-rig';

/** What every fault of the rig would do, once it has been worked out. */
type State =
  | { state: 'working'; share: number; words: string }
  | { state: 'failed'; why: string }
  | { state: 'done'; effects: Effects };

interface Held {
  rig: Rig;
  is: State;
}

/** One for the page: faults are worked out once for a rig as it stands, whichever part asks. */
const held = createStore<{ now: Held | null }>(() => ({ now: null }));
// eslint-disable-next-line no-restricted-syntax -- nothing that is drawn reads it
let running: Working<Effects> | undefined;

/** Whether all that faults hang on is the same. */
const sameWiring = (a: Rig, b: Rig): boolean =>
  a.devices === b.devices &&
  a.leads === b.leads &&
  a.sounds === b.sounds &&
  a.controls === b.controls;

function start(rig: Rig): void {
  running?.cancel();
  const set = (is: State) => held.setState({ now: { rig, is } });
  set({ state: 'working', share: 0, words: 'Starting' });
  const mine: Working<Effects> = propose(
    'effects',
    { rig },
    (share, words) => {
      if (running === mine) set({ state: 'working', share, words });
    },
    { pieces: rig.leads.length + rig.devices.length, join: joinedEffects },
  );
  running = mine;
  mine.answer.then(
    (effects) => {
      if (running === mine) set({ state: 'done', effects });
    },
    (e: Error) => {
      if (running === mine && e.message !== CANCELLED) set({ state: 'failed', why: e.message });
    },
  );
}

/** What faults of the open rig would do; begun when it is first asked for, again when the rig changes. */
export function useEffects(): { is: State; again: () => void } {
  const rig = useDocument();
  const now = useStore(held, (s) => s.now);
  const known = now && sameWiring(now.rig, rig) && now.rig.id === rig.id ? now : null;
  useEffect(() => {
    const at = held.getState().now;
    if (!at || at.rig.id !== rig.id || !sameWiring(at.rig, rig)) start(rig);
  }, [rig]);
  return {
    is: known?.is ?? { state: 'working', share: 0, words: 'Starting' },
    again: () => start(rig),
  };
}
