/** How many answers are remembered of each sort; then it begins anew. */
const MOST = 2000;

export function remembered<T>(): (key: string, find: () => T) => T {
  const known = new Map<string, T>();
  return (key, find) => {
    const before = known.get(key);
    if (before !== undefined) return before;
    if (known.size >= MOST) known.clear();
    const found = find();
    known.set(key, found);
    return found;
  };
}
