/**
 * How many of some things can have a place of their own at once, each out of those that fit it: the size
 * of a largest matching, found by augmenting paths.
 */
export function pairs(fitting: readonly (readonly number[])[]): number {
  const holder = new Map<number, number>();
  /** Finds a place for a thing, if need be by moving others on; places seen are not tried twice. */
  const settle = (thing: number, seen: Set<number>): boolean =>
    (fitting[thing] ?? []).some((place) => {
      if (seen.has(place)) return false;
      seen.add(place);
      const other = holder.get(place);
      if (other !== undefined && !settle(other, seen)) return false;
      holder.set(place, thing);
      return true;
    });
  return fitting.filter((_, thing) => settle(thing, new Set())).length;
}
