import { DirectedGraph } from 'graphology';
import { stronglyConnectedComponents } from 'graphology-components';

/**
 * The order in which to visit numbered nodes so that each comes after what leads to it, and the
 * edges that would lead back.
 */
export interface Order {
  order: number[];
  isBack: (from: number, to: number) => boolean;
  loops: number[][];
}

/**
 * Sorts a directed graph, given as each node's successors; cycles are cut where a depth-first walk
 * finds them, and named.
 */
export function orderNodes(successors: readonly (readonly number[])[]): Order {
  const state = new Uint8Array(successors.length);
  const back = new Set<string>();
  const post: number[] = [];
  for (let root = 0; root < successors.length; root++) {
    if (state[root]) continue;
    const stack: [number, number][] = [[root, 0]];
    state[root] = 1;
    while (stack.length) {
      const top = stack.at(-1)!;
      const next = successors[top[0]]![top[1]++];
      if (next === undefined) {
        state[top[0]] = 2;
        post.push(top[0]);
        stack.pop();
      } else if (state[next] === 0) {
        state[next] = 1;
        stack.push([next, 0]);
      } else if (state[next] === 1) back.add(`${top[0]}>${next}`);
    }
  }
  return {
    order: post.reverse(),
    isBack: (a, b) => back.size > 0 && back.has(`${a}>${b}`),
    loops: back.size ? loopsOf(successors) : [],
  };
}

function loopsOf(successors: readonly (readonly number[])[]): number[][] {
  const graph = new DirectedGraph();
  successors.forEach((_, i) => graph.addNode(String(i)));
  successors.forEach((list, i) => list.forEach((j) => graph.mergeEdge(String(i), String(j))));
  return stronglyConnectedComponents(graph)
    .map((c) => c.map(Number))
    .filter((c) => c.length > 1 || successors[c[0]!]!.includes(c[0]!));
}
