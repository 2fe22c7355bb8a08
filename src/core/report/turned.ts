import type { Figure } from '../kinds';
import { byId } from '../rig/find';

/** One verdict that is another when a figure is at one end of what is believable. */
export interface TurnedVerdict {
  /** The finding's key or the promise's id. */
  id: string;
  what: string;
  /** At which value of the figure it was seen to be another. */
  at: number;
  /** It is told there and not now, or told now and not there. */
  appears: boolean;
}

/** A figure that was never measured, and the verdicts that hang on it. */
export interface ToMeasure {
  device: string;
  figure: string;
  label: string;
  unit: Figure['unit'];
  typical: number;
  low: number;
  high: number;
  turns: TurnedVerdict[];
  tool: string;
  steps: string;
}

/** How many verdicts hang on a figure. */
export const countTurned = ({ turns }: ToMeasure): number => new Set(turns.map((t) => t.id)).size;

/** The figure that turns most verdicts first; of those that turn as many, by what they are of. */
export const mostTurned = (found: readonly ToMeasure[]): ToMeasure[] =>
  [...found].sort(
    (a, b) =>
      countTurned(b) - countTurned(a) ||
      byId({ id: a.device }, { id: b.device }) ||
      byId({ id: a.figure }, { id: b.figure }),
  );
