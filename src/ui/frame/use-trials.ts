import { useEffect, useState } from 'react';
import type { Finding } from '../../core/findings/finding';
import type { TriedFix } from '../../core/report';
import type { Rig } from '../../core/rig';
import type { Proposals } from '../../worker';
import { useWorking } from '../look/use-working';
import { useDocument, useRigStore } from '../store/use-rig';

type Tried = Proposals['trials']['answer'];

/** What cures each finding of the rig as it stands; undefined while it is being tried. */
export type Trials = ReturnType<typeof useTrials>;

/** What cures one finding: tried ways, `trying` while that is not known, `none` where there is none to try. */
export type Ways = TriedFix[] | 'trying' | 'none';

/** Tries every fix on copies while `wanted`, anew with every change of the rig. */
export function useTrials(wanted: boolean) {
  const store = useRigStore();
  const rig = useDocument();
  const { work, start, cancel } = useWorking('trials');
  // What was tried on another rig than the one on the screen says nothing about this one.
  const [of, setOf] = useState<Rig | null>(null);
  useEffect(() => {
    if (!wanted) return;
    // Whoever edits quickly is not tried after at every letter.
    const soon = setTimeout(() => {
      setOf(rig);
      // Every finding can be tried by itself.
      const pieces = store.getState().report.findings.length;
      start({ rig }, { pieces, join: (answers) => Object.assign({}, ...answers) as Tried });
    }, 150);
    return () => {
      clearTimeout(soon);
      cancel();
    };
  }, [rig, wanted, start, cancel, store]);
  return of === rig ? work : ({ state: 'idle' } as const);
}

/** What of the trials is about one finding; it is known before all are done. */
export function waysOf(trials: Trials, finding: Finding): Ways {
  if (trials.state === 'done') return trials.answer[finding.key] ?? 'none';
  return (trials.state === 'working' && trials.soFar?.tried?.[finding.key]) || 'trying';
}
