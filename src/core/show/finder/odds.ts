import type { FaultFacts } from '../faults';

/**
 * What the crew knows: how many shows are in the logbook, how often each device or lead failed in
 * them, and odds that somebody set by hand, by fault, in thousandths of shows.
 */
export interface Known {
  shows: number;
  failures: Readonly<Record<string, number>>;
  set?: Readonly<Record<string, number>>;
}

export const NOTHING_KNOWN: Known = { shows: 0, failures: {} };

/** The trade's odds count as much as this many shows of one's own. */
export const TRADE_SHOWS = 100;

/**
 * How often a fault is found in a thousand shows: the trade's rate, as a gamma prior of
 * `TRADE_SHOWS` shows, with what happened in one's own (the mean of a Poisson rate under such a
 * prior). What failed before fails again; what held in many shows is trusted more. A failure of a
 * device counts for each of its faults in proportion, so that what was seen is not counted twice.
 */
export function oddsOf(fault: FaultFacts, known: Known, siblings: number): number {
  const set = known.set?.[fault.id];
  if (set !== undefined) return set;
  const failed = fault.subjects.reduce((n, id) => n + (known.failures[id] ?? 0), 0);
  const prior = fault.perThousand / 1000;
  return (1000 * (prior * TRADE_SHOWS + failed / siblings)) / (TRADE_SHOWS + known.shows);
}

/** Odds of all faults, in thousandths of shows. */
export function allOdds(faults: readonly FaultFacts[], known: Known): number[] {
  const siblings = new Map<string, number>();
  for (const f of faults)
    for (const id of f.subjects) siblings.set(id, (siblings.get(id) ?? 0) + 1);
  return faults.map((f) =>
    oddsOf(f, known, Math.max(1, ...f.subjects.map((id) => siblings.get(id) ?? 1))),
  );
}
