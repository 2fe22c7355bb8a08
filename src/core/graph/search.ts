/**
 * Visits what can be reached from some starts, nearest first, each once. `next` says where one can
 * go from a place; `keyOf` tells places apart that carry more than where they are (a path, a
 * distance): whichever comes first counts.
 *
 *     for (const device of nearestFirst(['wah'], (d) => neighbours(d))) …
 */
export function* nearestFirst<T>(
  starts: Iterable<T>,
  next: (at: T) => Iterable<T>,
  keyOf: (at: T) => unknown = (at) => at,
): Generator<T, void, undefined> {
  const seen = new Set<unknown>();
  const queue: T[] = [];
  const add = (at: T) => {
    const key = keyOf(at);
    if (seen.has(key)) return;
    seen.add(key);
    queue.push(at);
  };
  for (const start of starts) add(start);
  for (let i = 0; i < queue.length; i++) {
    const at = queue[i] as T;
    yield at;
    for (const to of next(at)) add(to);
  }
}

/** Everything that can be reached from some starts, those included, the nearest first. */
export function reachable<T>(starts: Iterable<T>, next: (at: T) => Iterable<T>): Set<T> {
  const seen = new Set(starts);
  // A set gives out what is added while it is gone through, too.
  for (const at of seen) for (const to of next(at)) seen.add(to);
  return seen;
}

/** Things gathered under a key of each, in the order they come. */
export function byKey<T, K>(things: Iterable<T>, keyOf: (thing: T) => K): Map<K, T[]> {
  const lists = new Map<K, T[]>();
  for (const thing of things) {
    const key = keyOf(thing);
    const list = lists.get(key);
    if (list) list.push(thing);
    else lists.set(key, [thing]);
  }
  return lists;
}
