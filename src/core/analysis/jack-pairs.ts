import type { Jack, Kind } from '../kinds';

/** The pair that a jack belongs to: its own, or that of the points inside that it feeds. */
export function pairOf(
  { jacks }: Kind,
  id: string,
): Pick<NonNullable<Jack['pair']>, 'with' | 'side'> | undefined {
  const own = jacks.find((j) => j.id === id)?.pair;
  if (own) return own;
  const inside = jacks.find((j) => j.faces?.jack === id && j.pair)?.pair;
  const other = jacks.find((j) => j.id === inside?.with)?.faces?.jack;
  return inside && other !== undefined ? { with: other, side: inside.side } : undefined;
}
