import type { Fix, Severity } from '../findings/finding';
import type { RuleId } from '../findings/rules';
import { figureWith, type Job, kindOf } from '../kinds';
import type { Heard } from '../signal';
import type { StationFigures } from '../signal/station-figures';
import type { ByJob, Neighbours } from './neighbours';

/** One piece of order advice: what one school does, what the other does, why, and how to tell. */
export interface OrderRule {
  id: RuleId;
  thing: string;
  main: string;
  other: string;
  why: string;
  /** Said only when somebody has chosen a school for it. */
  quiet?: boolean;
  /** What can take a stance of its own, device by device. */
  jobs?: readonly Job[];
  /** Remarks on one engaged station. */
  look: (at: Look, school: 'main' | 'other') => Breach[];
}

/** What order is judged by. */
export type Ordered = Pick<Heard, 'ctx' | 'stations'> & {
  /** Whether places further on are offered, too, to be tried. */
  wantsFixes?: boolean;
};

/** One station with what lies around it. */
export interface Look {
  s: StationFigures;
  job: Job;
  before: ByJob;
  behind: ByJob;
  evidence: Ordered;
  near: Neighbours;
}

/** A rule not kept: against which other station, in words, and which way to move. */
export interface Breach {
  other?: StationFigures;
  /** Other devices of which the same is said. */
  more?: string[];
  what: string;
  why?: string;
  severity?: Severity;
  move?: 'before' | 'behind';
  fix?: Fix;
  /** Another way than a move beside the other one. */
  also?: Fix;
}

export const DIRT: Job[] = ['drive', 'fuzz'];
export const pick = (where: ByJob, jobs: Job[]): StationFigures | undefined =>
  jobs.map((j) => where[j]).find((s) => s !== undefined);
/** The name of the device that is looked at, or of another. */
export const name = (at: Look, s: StationFigures = at.s): string =>
  at.evidence.ctx.device(s.device).name;

/** `jobs` should stand before what `later` names; the breach is one of those standing upstream. */
export const shouldPrecede = (at: Look, jobs: Job[], later: Job[]): Breach[] => {
  const found = jobs.includes(at.job) ? pick(at.before, later) : undefined;
  return found
    ? [{ other: found, move: 'before', what: `${name(at)} stands behind ${name(at, found)}.` }]
    : [];
};

/** `jobs` should stand behind what `earlier` names; the breach is one of those standing downstream. */
export const shouldFollow = (at: Look, jobs: Job[], earlier: Job[]): Breach[] => {
  const found = jobs.includes(at.job) ? pick(at.behind, earlier) : undefined;
  return found
    ? [{ other: found, move: 'behind', what: `${name(at)} stands before ${name(at, found)}.` }]
    : [];
};

/** Highest gain of a drive, by its figures; kinds without one are not compared. */
export const mostGain = (at: Look, s: StationFigures): number => {
  const device = at.evidence.ctx.device(s.device);
  const figure = figureWith(kindOf(device.kind), 'highest gain');
  return figure ? (device.figures?.[figure.id]?.value ?? figure.typical) : 0;
};
