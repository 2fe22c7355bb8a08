import { useCallback, useEffect, useRef, useState } from 'react';
import {
  CANCELLED,
  propose,
  type ProposalName,
  type Proposals,
  type Sharing,
  type SoFar,
  type Working,
} from '../../worker';

export type WorkState<T> =
  | { state: 'idle' }
  | { state: 'working'; share: number; words: string; soFar?: SoFar }
  | { state: 'failed'; why: string }
  | { state: 'done'; answer: T };

/** What it came to up to now: the latest of what replaces what was before, all of what was tried. */
const joined = (was: SoFar = {}, now: SoFar = {}): SoFar => ({
  ...was,
  ...now,
  tried: { ...was.tried, ...now.tried },
});

/**
 * Long work in a worker of its own, or in several that share it: how far it is, a way to stop it, and
 * its answer. It is stopped when the view goes.
 */
export function useWorking<N extends ProposalName>(
  name: N,
): {
  work: WorkState<Proposals[N]['answer']>;
  start: (ask: Proposals[N]['ask'], sharing?: Sharing<Proposals[N]['answer']>) => void;
  cancel: () => void;
  clear: () => void;
} {
  const [work, setWork] = useState<WorkState<Proposals[N]['answer']>>({ state: 'idle' });
  const running = useRef<Working<unknown> | null>(null);
  const cancel = useCallback(() => running.current?.cancel(), []);
  useEffect(() => cancel, [cancel]);
  const start = useCallback(
    (ask: Proposals[N]['ask'], sharing?: Sharing<Proposals[N]['answer']>) => {
      running.current?.cancel();
      setWork({ state: 'working', share: 0, words: 'Starting' });
      const tell = (share: number, words: string, soFar?: SoFar) =>
        setWork((w) =>
          w.state === 'working' ? { ...w, share, words, soFar: joined(w.soFar, soFar) } : w,
        );
      const mine = propose(name, ask, tell, sharing);
      running.current = mine;
      mine.answer.then(
        (answer) => running.current === mine && setWork({ state: 'done', answer }),
        (e: Error) =>
          running.current === mine &&
          setWork(
            e.message === CANCELLED ? { state: 'idle' } : { state: 'failed', why: e.message },
          ),
      );
    },
    [name],
  );
  return { work, start, cancel, clear: useCallback(() => setWork({ state: 'idle' }), []) };
}
