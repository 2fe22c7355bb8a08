import { circlesIn } from './circles';
import type { Order } from './order';
import { reachable } from './search';

/**
 * The circles of a graph whose edges that lead back are known: each has one of them, and lies behind its
 * end and ahead of its start. Apart from the order itself, which a page needs without what names circles.
 */
export function loopsThrough(
  back: Order['back'],
  successors: readonly (readonly number[])[],
): number[][] {
  if (!back.length) return [];
  const before: number[][] = successors.map(() => []);
  successors.forEach((next, at) => next.forEach((to) => before[to]?.push(at)));
  const behind = reachable(
    back.map(([, to]) => to),
    (at) => successors[at] ?? [],
  );
  const ahead = reachable(
    back.map(([from]) => from),
    (at) => before[at] ?? [],
  );
  const within = [...behind].filter((at) => ahead.has(at)).sort((a, b) => a - b);
  const isWithin = new Set(within);
  return circlesIn(within, (at) => (successors[at] ?? []).filter((to) => isWithin.has(to)));
}
