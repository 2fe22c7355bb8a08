import { useEffect, useMemo } from 'react';
import { analyse, type Report } from '../../core/report';
import type { Brief } from '../../core/rig';
import { type Proposal, proposeRig, type StartChoice } from '../../core/start';
import { useWorking } from '../look/use-working';

/** A proposal with what is heard of it; `whole` when levels, cures, power and board are worked out. */
export interface Proposed extends Proposal {
  report: Report;
  whole: boolean;
}

/** How long nothing more is answered before the rest is worked out, in ms. */
const PAUSE_MS = 250;

/** Sounds times gear up to which the wiring is judged where the page is drawn; more waits for the worker. */
const MOST_AT_ONCE = 300;

/**
 * The rig that a brief asks for: its wiring at once, and in a worker what takes longer, anew with
 * every answer.
 */
export function useProposal(
  brief: Brief | null,
  choice: StartChoice,
  built: boolean,
): { proposed: Proposed | null; busy: { share: number; words: string } | null; failed?: string } {
  const asked = JSON.stringify([brief, choice, built]);
  const { work, start, cancel, clear } = useWorking('start');
  const quick = useMemo((): Proposed | null => {
    const [b, c] = JSON.parse(asked) as [Brief | null, StartChoice, boolean];
    if (!b || b.sounds.length * b.gear.length > MOST_AT_ONCE) return null;
    const made = proposeRig(b, c);
    return { ...made, report: analyse(made.rig), whole: false };
  }, [asked]);
  useEffect(() => {
    const [b, c, withBuild] = JSON.parse(asked) as [Brief | null, StartChoice, boolean];
    clear();
    if (!b) return undefined;
    const later = setTimeout(() => start({ brief: b, choice: c, built: withBuild }), PAUSE_MS);
    return () => {
      clearTimeout(later);
      cancel();
    };
  }, [asked, start, cancel, clear]);
  const whole = work.state === 'done' && brief ? { ...work.answer, whole: true } : null;
  return {
    proposed: whole ?? quick,
    busy: brief && !whole && work.state !== 'failed' ? busyWith(work) : null,
    ...(work.state === 'failed' && { failed: work.why }),
  };
}

const busyWith = (work: ReturnType<typeof useWorking<'start'>>['work']) =>
  work.state === 'working'
    ? { share: work.share, words: work.words }
    : { share: 0, words: 'setting levels' };
