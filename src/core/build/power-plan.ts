import { done, type Outcome, refused } from '../outcome';
import type { Edit } from '../rig/edits';
import { applyEdits } from '../rig/apply';
import type { Rig } from '../rig/schema';
import { powerCure } from './power-cures';
import type { MipSolver } from '../optimum/mip';
import { HEADROOM, placesOf, takersOf } from './power';
import type { Uncured } from './power-choice';
import { AIMS, type Best, PowerProgram } from './power-program';

/** One device on one outlet, at a voltage. */
export interface Fed {
  device: string;
  supply: string;
  outlet: string;
  volts: number;
}

/**
 * A device that no plan can feed beside the others, why, and what would: a change with which, solved
 * again, a plan feeds it and all that are fed now.
 */
export interface Starved {
  device: string;
  why: string;
  shortMilliamps: number | null;
  /** In words that follow "it takes". */
  cure: string;
  /** The cure as edits; nothing where no single change cures it. */
  edits: Edit[];
}

/**
 * The best assignment of devices to outlets: as few unfed as can be, then as few sharing an outlet,
 * then as few plugs moved.
 */
export interface PowerPlan {
  fed: Fed[];
  starved: Starved[];
  shared: number;
  moved: number;
  /** Whether the solver showed that no plan is better; else it is the best that was found in its time. */
  isProven: boolean;
  edits: Edit[];
}

/**
 * Assigns devices to outlets exactly, as a mixed-integer problem. Voltage (or range), AC or DC and
 * polarity must fit; an outlet's and a supply's current must suffice with the headroom; digital
 * stays apart from high gain and positive ground from all others, on an outlet, and on all outlets
 * of a supply that share their return; pinned devices stay where they are. It is asked for one thing
 * after the other, each as good as can be with what was found before: as few unfed, as few shared
 * outlets, as few moved plugs. What has to be plugged anyway goes to the narrowest isolated outlet of
 * its supply that suffices, so that wide ones stay free.
 */
export function planPower(rig: Rig, solver: MipSolver, headroom = HEADROOM): Outcome<PowerPlan> {
  if (!takersOf(rig).length) return refused('Nothing in this rig takes power from a supply.');
  if (!placesOf(rig).length)
    return refused('There is no supply in this rig. Add one, then the outlets can be given out.');
  const plan = uncured(rig, solver, headroom);
  const fed = plan.fed.map((f) => f.device);
  const starved = plan.starved.map((s): Starved => {
    const cures = (made: Edit[]): boolean => {
      const copy = applyEdits(rig, made);
      if (!copy.ok) return false;
      const program = new PowerProgram(
        takersOf(copy.value.rig),
        placesOf(copy.value.rig),
        headroom,
      );
      return program.canFeed([...fed, s.device], plan.fed, solver);
    };
    const cure = powerCure(rig, s.device, headroom, cures);
    return { ...s, cure: cure?.words ?? NO_CURE, edits: cure?.edits ?? [] };
  });
  return done({ ...plan, starved });
}

const NO_CURE = 'more than one change: no single pin or outlet was found that does it';

/** The best plan: searched for, and for each aim shown to be the best, or bettered, by the solver. */
function uncured(rig: Rig, solver: MipSolver, headroom: number): Uncured {
  const program = new PowerProgram(takersOf(rig), placesOf(rig), headroom);
  let best: Best = { found: program.givenOut(), isProven: true };
  let isProven = true;
  for (const aim of AIMS) {
    best = program.bestFor(aim, best.found, solver);
    isProven &&= best.isProven;
    program.keepTo(aim, best.found);
  }
  return program.plan(best.found.chosen, isProven);
}
