import { at as entryAt } from '../outcome';

/** Positions of a longest rising run in a list of different numbers. */
export function longestRising(values: readonly number[]): number[] {
  const tails: number[] = [];
  const parent: number[] = [];
  values.forEach((v, i) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (entryAt(values, entryAt(tails, middle)) < v) low = middle + 1;
      else high = middle;
    }
    parent[i] = low > 0 ? entryAt(tails, low - 1) : -1;
    tails[low] = i;
  });
  const run: number[] = [];
  for (let at = tails.at(-1) ?? -1; at >= 0; at = entryAt(parent, at)) run.unshift(at);
  return run;
}
