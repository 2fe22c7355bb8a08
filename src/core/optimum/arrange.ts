import { at as entryAt } from '../outcome';
/**
 * What it costs to have things in an order: each thing alone in each segment, and each before another.
 * A price may be under nothing: what stands in front of a thing may take away what it cost alone.
 */
export interface Prices {
  alone: number[][];
  before: number[][];
  allowed: boolean[][];
}

/** Things up to this many are arranged exactly; more by improving one at a time. */
export const EXACT_UP_TO = 18;

/** The cost of an arrangement: the things of each segment, in order. */
export function arrangementCost(
  { alone, before }: Prices,
  segments: readonly (readonly number[])[],
): number {
  let cost = 0;
  const placed: number[] = [];
  segments.forEach((things, s) => {
    for (const t of things) {
      cost +=
        entryAt(entryAt(alone, t), s) +
        placed.reduce((sum, p) => sum + entryAt(entryAt(before, p), t), 0);
      placed.push(t);
    }
  });
  return cost;
}

/**
 * The cheapest arrangement of `count` things over ordered segments, by dynamic programming over
 * which things stand already and in which segment one is: exact, at a cost of 2^count · segments ·
 * count. Above `EXACT_UP_TO` things it is improved from the arrangement given, one thing at a time,
 * until nothing gets cheaper; `exact` says which.
 */
export function cheapestArrangement(
  prices: Prices,
  now: readonly (readonly number[])[],
): { segments: number[][]; cost: number; exact: boolean } {
  const count = now.flat().length;
  const many = count > EXACT_UP_TO;
  const segments = many ? improved(prices, now) : exact(prices, now.length, count);
  return { segments, cost: arrangementCost(prices, segments), exact: !many };
}

function exact(
  { alone, before, allowed }: Prices,
  segmentCount: number,
  count: number,
): number[][] {
  const full = 1 << count;
  const best = new Float64Array(full * segmentCount).fill(Infinity);
  const from = new Int16Array(full * segmentCount).fill(-2);
  best[0] = 0;
  // What each thing costs behind those that stand already, whichever segment it goes into.
  const behind = new Float64Array(count);
  for (let mask = 0; mask < full; mask++) {
    for (let t = 0; t < count; t++) {
      let cost = 0;
      for (let p = 0; p < count; p++) if (mask & (1 << p)) cost += entryAt(entryAt(before, p), t);
      behind[t] = cost;
    }
    for (let s = 0; s < segmentCount; s++) {
      const at = mask * segmentCount + s;
      const cost = entryAt(best, at);
      if (cost === Infinity) continue;
      if (s + 1 < segmentCount && cost < entryAt(best, at + 1)) {
        best[at + 1] = cost;
        from[at + 1] = -1;
      }
      for (let t = 0; t < count; t++) {
        if (mask & (1 << t) || !entryAt(allowed, t)[s]) continue;
        const next = cost + entryAt(entryAt(alone, t), s) + entryAt(behind, t);
        const to = (mask | (1 << t)) * segmentCount + s;
        if (next < entryAt(best, to) - 1e-12) {
          best[to] = next;
          from[to] = t;
        }
      }
    }
  }
  const segments: number[][] = Array.from({ length: segmentCount }, () => []);
  let mask = full - 1;
  let s = segmentCount - 1;
  while (mask || s) {
    const step = entryAt(from, mask * segmentCount + s);
    if (step === -1) s--;
    else if (step < 0) break;
    else {
      entryAt(segments, s).unshift(step);
      mask &= ~(1 << step);
    }
  }
  return segments;
}

function improved(prices: Prices, now: readonly (readonly number[])[]): number[][] {
  let best = now.map((x) => [...x]);
  let cost = arrangementCost(prices, best);
  for (let better = true; better;) {
    better = false;
    for (const t of now.flat()) {
      const without = best.map((seg) => seg.filter((x) => x !== t));
      for (let s = 0; s < without.length; s++) {
        if (!entryAt(prices.allowed, t)[s]) continue;
        for (let i = 0; i <= entryAt(without, s).length; i++) {
          const tried = without.map((seg, k) =>
            k === s ? [...seg.slice(0, i), t, ...seg.slice(i)] : seg,
          );
          const price = arrangementCost(prices, tried);
          if (price < cost - 1e-9) [best, cost, better] = [tried, price, true];
        }
      }
    }
  }
  return best;
}
