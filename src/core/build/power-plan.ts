import { done, type Outcome, refused } from '../outcome';
import type { Edit } from '../rig/edits';
import { applyEdits } from '../rig/apply';
import type { Rig } from '../rig/schema';
import { powerCure } from './power-cures';
import type { MipSolver } from '../optimum/mip';
import { HEADROOM, placesOf, takersOf } from './power';
import type { Uncured } from './power-choice';
import { AIMS, PATIENCE, PowerProgram } from './power-program';
import { howMany } from '../units';

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
  /**
   * What no plan can be better than: as many fed; of those that feed as many as this one, as few sharing;
   * of those, as few plugs moved.
   */
  atBest: { fed: number; shared: number; moved: number };
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
 *
 * @param seconds the solver may look for each aim
 */
export function planPower(
  rig: Rig,
  solver: MipSolver,
  headroom = HEADROOM,
  seconds = PATIENCE,
): Outcome<PowerPlan> {
  if (!takersOf(rig).length) return refused('Nothing in this rig takes power from a supply.');
  if (!placesOf(rig).length)
    return refused('There is no supply in this rig. Add one, then the outlets can be given out.');
  const plan = uncured(rig, solver, headroom, seconds);
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

/**
 * What a plan that was not shown to be the best could be bettered by at most, as a sentence; nothing where
 * it is the best.
 */
export function betterWords({ isProven, atBest, fed, shared, moved }: PowerPlan): string {
  if (isProven) return '';
  const most = [
    ...(atBest.fed > fed.length ? [`at most ${atBest.fed} could be fed`] : []),
    ...(atBest.shared < shared
      ? [`where as many are fed as here, at least ${atBest.shared} share an outlet`]
      : []),
    ...(atBest.moved < moved
      ? [
          `where as many are fed and share as here, at least ${howMany(atBest.moved, 'plug')} must move`,
        ]
      : []),
  ];
  return `This is the best that was found in its time; a better one may exist: ${most.join('; ')}.`;
}

const NO_CURE = 'more than one change: no single pin or outlet was found that does it';

/** The best plan: searched for, and for each aim shown to be the best, or bettered, by the solver. */
function uncured(rig: Rig, solver: MipSolver, headroom: number, seconds: number): Uncured {
  const program = new PowerProgram(takersOf(rig), placesOf(rig), headroom, seconds);
  let found = program.givenOut();
  const limits = { fed: 0, used: 0, moved: 0 };
  for (const aim of AIMS) {
    const best = program.bestFor(aim, found, solver);
    ({ found } = best);
    limits[aim] = best.limit;
    program.keepTo(aim, found);
  }
  return {
    ...program.plan(found.chosen),
    isProven: AIMS.every((aim) => limits[aim] === found[aim]),
    atBest: { fed: limits.fed, shared: found.fed - limits.used, moved: limits.moved },
  };
}
