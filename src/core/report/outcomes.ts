import type { Fix } from '../findings/finding';

/** What came of a change on a copy of the rig, analysed anew. */
export interface Outcomes {
  /** What is worse than before: promises, who hears whom, new findings of caution or worse, in words. */
  breaks: string[];
  /**
   * What of that speaks against no proposal: what is about lengths, boards and racks alone, which are
   * put right when the rig is built; and findings that took the place of others about the same.
   */
  bearable: string[];
  /** What else is different: new advice, and the largest change of level where one is heard. */
  costs: string[];
}

/** What came of a fix. */
export interface Tried extends Outcomes {
  /** The finding is gone in every sound that it named. */
  cures: boolean;
  /** How many findings of caution or worse are left in the whole rig, broken promises among them. */
  leaves: number;
  /** How often a source is heard then: once for each sound and destination, twice more where it is stereo. */
  heard: number;
  /** How much stands there for nothing then: see `idleIn`. */
  idle: number;
}

/** A fix with what came of it. */
export interface TriedFix {
  fix: Fix;
  tried: Tried;
}

/** Whether a fix may be taken without a second thought. */
export const isSafe = ({ cures, breaks }: Tried): boolean => cures && breaks.length === 0;
