import { attribute, Digraph, Edge, Node, toDot as write } from 'ts-graphviz';
import type { Graph } from './graph';

/**
 * A graph in the DOT language, drawn from left to right. Attributes other than the label are kept
 * as they are named.
 */
export function toDot(graph: Graph): string {
  const g = new Digraph('rig', { [attribute.rankdir]: 'LR', [attribute.label]: graph.name });
  const nodes = new Map(
    graph.nodes.map((n) => {
      const node = new Node(n.id, {
        [attribute.label]: String(n.attributes.name ?? n.id),
        [attribute.shape]: 'box',
      });
      g.addNode(node);
      return [n.id, node] as const;
    }),
  );
  for (const e of graph.edges) {
    const [from, to] = [nodes.get(e.from), nodes.get(e.to)];
    if (!from || !to) continue;
    const words = [
      e.attributes.fromJack && `${String(e.attributes.fromJack)} to ${String(e.attributes.toJack)}`,
      e.attributes.leads,
    ].find((x) => x);
    g.addEdge(
      new Edge([from, to], {
        ...(words ? { [attribute.label]: String(words) } : {}),
        ...(e.attributes.open === true ? { [attribute.style]: 'dashed' } : {}),
      }),
    );
  }
  return `${write(g)}\n`;
}
