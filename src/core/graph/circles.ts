import { DirectedGraph } from 'graphology';
import { stronglyConnectedComponents } from 'graphology-components';

/**
 * The parts of a directed graph in which one can go round: each a list of nodes that all lead to
 * one another. A node alone counts where it leads to itself.
 */
export function circlesIn<T extends string | number>(
  nodes: Iterable<T>,
  next: (at: T) => Iterable<T>,
): T[][] {
  const graph = new DirectedGraph();
  const own = new Map<string, T>();
  for (const node of nodes) {
    own.set(String(node), node);
    graph.mergeNode(String(node));
  }
  for (const node of own.values())
    for (const to of next(node)) graph.mergeDirectedEdge(String(node), String(to));
  return stronglyConnectedComponents(graph)
    .filter(([first, ...rest]) => first && (rest.length || graph.hasDirectedEdge(first, first)))
    .map((part) => part.flatMap((key) => own.get(key) ?? []));
}
