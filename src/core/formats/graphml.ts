import { create } from 'xmlbuilder';
import type { Attribute, Graph } from './graph';

const typeOf = (values: readonly Attribute[]): string => {
  const real = values.filter((v) => v !== null);
  return real.every((v) => typeof v === 'boolean')
    ? 'boolean'
    : real.every((v) => typeof v === 'number')
      ? 'double'
      : 'string';
};

/** Characters that XML cannot hold in any way. */
const clean = (text: string): string =>
  text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '');

/** A graph as GraphML, each attribute declared with its type. */
export function toGraphml(graph: Graph): string {
  const keysOf = (rows: readonly { attributes: Record<string, Attribute> }[], part: string) => {
    const names = [...new Set(rows.flatMap((r) => Object.keys(r.attributes)))];
    return names.map((name) => ({
      id: `${part}-${name}`,
      name,
      part,
      type: typeOf(rows.map((r) => r.attributes[name] ?? null)),
    }));
  };
  const keys = [...keysOf(graph.nodes, 'node'), ...keysOf(graph.edges, 'edge')];
  const root = create('graphml', { version: '1.0', encoding: 'UTF-8' }).att({
    xmlns: 'http://graphml.graphdrawing.org/xmlns',
  });
  for (const k of keys)
    root.ele('key', { id: k.id, for: k.part, 'attr.name': k.name, 'attr.type': k.type });
  const g = root.ele('graph', { id: 'rig', edgedefault: 'directed' });
  g.ele('desc').txt(clean(graph.name));
  const data = (at: typeof g, part: string, attributes: Record<string, Attribute>) => {
    for (const [name, value] of Object.entries(attributes))
      if (value !== null) at.ele('data', { key: `${part}-${name}` }).txt(clean(String(value)));
  };
  for (const n of graph.nodes) data(g.ele('node', { id: n.id }), 'node', n.attributes);
  for (const e of graph.edges)
    data(g.ele('edge', { id: e.id, source: e.from, target: e.to }), 'edge', e.attributes);
  return `${root.end({ pretty: true })}\n`;
}
