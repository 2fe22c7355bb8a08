import { settle } from '../report';
import type { Choice } from './choices';
import type { Proposal } from './propose';

/**
 * A proposal whose levels are set and whose faults are cured, as far as a knob or one more box cures
 * them; each box that came is told with what it cures.
 */
export function finished({ rig, choices }: Proposal): Proposal {
  const levels = settle(rig, 'settings').rig;
  const { rig: whole, steps } = settle(levels, 'boxes');
  const came = steps.map((step, n): Choice => ({
    id: `cure-${n + 1}`,
    about: 'What was put in',
    taken: 'so',
    options: [{ value: 'so', label: step.words }],
    why: `Without it: ${step.cures}`,
  }));
  return { rig: whole, choices: [...choices, ...came] };
}
