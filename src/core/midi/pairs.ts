import type { Scene } from '../control/scene';
import { type Mismatch, record, type Recording, replay, runChange, type Stage } from './change';

/** What goes wrong with one device in one way, over all changes in which it does. */
export interface PairFault {
  device: string;
  because: Mismatch['because'];
  keys: string[];
  pairs: { from: string; to: string }[];
  count: number;
}

/** Every ordered pair of scenes, simulated from the states of the first. */
export interface PairReport {
  pairs: number;
  good: number;
  faults: PairFault[];
  /** The change after which it takes longest until everything is in place. */
  slowest: { from: string; to: string; ms: number } | null;
  /** Times until all is in place, in ms, by the scene that is called. */
  doneMs: Record<string, number>;
}

/** Pairs that are named for each fault; all are counted. */
const NAMED = 12;

/**
 * Simulates changes from every scene to every other, one row at a time, so that the caller can say
 * how far it is between rows.
 */
export function* pairRows(stage: Stage): Generator<number, PairReport> {
  const { scenes } = stage.orders;
  const faults = new Map<string, PairFault>();
  const doneMs: Record<string, number> = {};
  let [pairs, good] = [0, 0];
  let slowest: PairReport['slowest'] = null;
  for (const [row, to] of scenes.entries()) {
    let recording: Recording | undefined;
    for (const from of scenes) {
      if (from === to) continue;
      pairs++;
      let mismatches = recording && replay(stage, from, to, recording);
      if (!mismatches) {
        const change = runChange(stage, from, to, { quiet: true });
        mismatches = change.mismatches;
        recording = record(stage, change);
        if (change.doneMs > (slowest?.ms ?? -1))
          slowest = { from: from.id, to: to.id, ms: change.doneMs };
        doneMs[to.id] = Math.max(doneMs[to.id] ?? 0, change.doneMs);
      }
      if (!mismatches.length) good++;
      gather(faults, mismatches, from, to);
    }
    yield (row + 1) / scenes.length;
  }
  return {
    pairs,
    good,
    slowest,
    doneMs,
    faults: [...faults.values()].sort((a, b) => b.count - a.count),
  };
}

function gather(
  faults: Map<string, PairFault>,
  mismatches: readonly Mismatch[],
  from: Scene,
  to: Scene,
): void {
  const seen = new Set<PairFault>();
  for (const m of mismatches) {
    const key = `${m.device} ${m.because}`;
    let fault = faults.get(key);
    if (!fault)
      faults.set(
        key,
        (fault = { device: m.device, because: m.because, keys: [], pairs: [], count: 0 }),
      );
    if (!fault.keys.includes(m.key)) fault.keys.push(m.key);
    if (seen.has(fault)) continue;
    seen.add(fault);
    fault.count++;
    if (fault.pairs.length < NAMED) fault.pairs.push({ from: from.id, to: to.id });
  }
}

/** All pairs in one go. */
export function allPairs(stage: Stage): PairReport {
  const rows = pairRows(stage);
  for (;;) {
    const { done, value } = rows.next();
    if (done) return value;
  }
}
