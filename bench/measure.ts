import { PerformanceObserver } from 'node:perf_hooks';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** The middle of some figures. */
export const middle = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

const timed = (work: () => unknown): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};

/**
 * Times of several pieces of work in ms, taken in turn, so that what disturbs the machine disturbs all; the
 * first rounds warm up.
 */
export function inTurn<K extends string>(
  works: Record<K, (round: number) => () => unknown>,
  rounds: number,
  warm = 3,
): Record<K, number> {
  const names = Object.keys(works) as K[];
  const taken = Object.fromEntries(names.map((n) => [n, [] as number[]])) as Record<K, number[]>;
  for (let round = 0; round < warm + rounds; round++)
    for (const name of names) {
      // What a piece of work begins with is made before the clock runs.
      const ms = timed(works[name](round));
      if (round >= warm) taken[name].push(ms);
    }
  return Object.fromEntries(names.map((n) => [n, middle(taken[n])])) as Record<K, number>;
}

/**
 * The share of some work that a part of it takes, from the work without that part, one beside the other:
 * the middle of the rounds' shares, since two middles move apart with the machine.
 */
export function shareOf(
  whole: (round: number) => () => unknown,
  without: (round: number) => () => unknown,
  rounds: number,
  warm = 3,
): number {
  const shares: number[] = [];
  for (let round = 0; round < warm + rounds; round++) {
    const [all, less] = [timed(whole(round)), timed(without(round))];
    if (round >= warm) shares.push(1 - less / all);
  }
  return middle(shares);
}

let missed = 0;

/** One line: what, the figure, and what it may be at most. */
export function say(what: string, figure: number, meaning: string, most?: number): void {
  const limit = most === undefined ? '' : `at most ${most}; `;
  console.log(`${what.padEnd(58)} ${figure.toFixed(2).padStart(8)}   ${limit}${meaning}`);
  if (most === undefined || figure <= most) return;
  missed++;
  console.log(`MISSED: ${what}`);
}

/** Whether a limit was missed, as an exit code. */
export const outcome = (): number => (missed ? 1 : 0);

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

/** What something keeps in memory, in MB, once all that it let go of is collected. */
export function keptMegabytes<T>(make: () => T): number {
  collect();
  const before = process.memoryUsage().heapUsed;
  const kept = make();
  collect();
  const after = process.memoryUsage().heapUsed;
  return kept === undefined ? 0 : (after - before) / 1e6;
}

/** The share of some work's time that goes into collecting garbage. */
export async function garbageShare(work: () => unknown): Promise<number> {
  let ms = 0;
  const observer = new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) ms += entry.duration;
  });
  observer.observe({ entryTypes: ['gc'] });
  const all = timed(work);
  await new Promise((r) => setTimeout(r, 50));
  observer.disconnect();
  return ms / all;
}
