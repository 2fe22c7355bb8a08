/**
 * The order in which to visit numbered nodes so that each comes after what leads to it, and the
 * edges that would lead back.
 */
export interface Order {
  order: number[];
  isBack: (from: number, to: number) => boolean;
  /** Every edge that would lead back. */
  back: (readonly [from: number, to: number])[];
}

/**
 * Sorts a directed graph, given as each node's successors; cycles are cut where a depth-first walk
 * finds them. The walk begins at `roots`, in their order, which must reach every node or hold it.
 * {@link loopsThrough} names the circles that were cut.
 */
export function orderNodes(
  successors: readonly (readonly number[])[],
  roots: Iterable<number> = successors.keys(),
): Order {
  const { order, back } = walked(successors, roots);
  const steps = new Set(back.map(([from, to]) => `${from}>${to}`));
  return { order, back, isBack: (a, b) => steps.size > 0 && steps.has(`${a}>${b}`) };
}

/** A depth-first walk: the order in which it leaves nodes behind, turned round, and the steps that lead back. */
function walked(
  successors: readonly (readonly number[])[],
  roots: Iterable<number>,
): { order: number[]; back: [number, number][] } {
  const after = (at: number): readonly number[] => successors[at] ?? [];
  // 0: not met; 1: on the way that is being walked; 2: done. A step to what is on the way leads back.
  const state = new Uint8Array(successors.length);
  const back: [number, number][] = [];
  const post: number[] = [];
  for (const root of roots) {
    if (state[root]) continue;
    const stack = [{ at: root, next: 0 }];
    state[root] = 1;
    for (let top = stack[0]; top; top = stack[stack.length - 1]) {
      const next = after(top.at)[top.next++];
      if (next === undefined) {
        state[top.at] = 2;
        post.push(top.at);
        stack.pop();
      } else if (state[next] === 0) {
        state[next] = 1;
        stack.push({ at: next, next: 0 });
      } else if (state[next] === 1) back.push([top.at, next]);
    }
  }
  return { order: post.reverse(), back };
}

/**
 * The same, with circles cut from the side of the nodes that come first and by names, so that the
 * numbering means nothing.
 */
export function orderByName(
  successors: readonly (readonly number[])[],
  isFirst: (at: number) => boolean,
  name: (at: number) => string,
): Order {
  const { order, back } = walked(successors, successors.keys());
  if (!back.length) return { order, back, isBack: () => false };
  const names = successors.map((_, at) => name(at));
  const byName = (a: number, b: number) => {
    const [one, other] = [names[a] ?? '', names[b] ?? ''];
    return one < other ? -1 : one > other ? 1 : 0;
  };
  return orderNodes(
    successors.map((next) => [...new Set(next)].sort(byName)),
    [...successors.keys()].sort((a, b) => Number(isFirst(b)) - Number(isFirst(a)) || byName(a, b)),
  );
}
