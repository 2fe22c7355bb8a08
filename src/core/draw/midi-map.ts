import { at, sure } from '../outcome';
import dagre from '@dagrejs/dagre';
import { endKey, midiGraph } from '../midi/graph';
import { deviceOf, jackOf } from '../rig/find';
import type { Device, End, Lead, Rig } from '../rig/schema';

/** A device of the map, and a lead between two of them with the labels of its jacks. */
export interface MapBox {
  device: Device;
  x: number;
  y: number;
  width: number;
  height: number;
}
export interface MapLine {
  lead: Lead;
  d: string;
  tag: { x: number; y: number };
  from: string;
  to: string;
  broken: boolean;
}
export interface MidiMap {
  boxes: MapBox[];
  lines: MapLine[];
  width: number;
  height: number;
}

const BOX = { width: 132, height: 44 };

interface At {
  x: number;
  y: number;
}

/**
 * A line out of the right side of one box into the left side of another (or back), by way of the
 * places that the layout keeps free for it.
 */
function lineOf(from: At, to: At, points: readonly At[]): Pick<MapLine, 'd' | 'tag'> {
  const way = to.x >= from.x ? 1 : -1;
  const stops = [
    { x: from.x + (way * BOX.width) / 2, y: from.y },
    ...points.slice(2, -2).filter((_, i, all) => all.length > 1 && i % 2 === 0),
    { x: to.x - (way * BOX.width) / 2, y: to.y },
  ];
  const d = stops.slice(1).reduce(
    (path, p, i) => {
      const was = at(stops, i);
      const bend = Math.max(18, Math.abs(p.x - was.x) / 2) * way;
      return `${path} C ${was.x + bend} ${was.y} ${p.x - bend} ${p.y} ${p.x} ${p.y}`;
    },
    `M ${at(stops, 0).x} ${at(stops, 0).y}`,
  );
  const [a, b] = [at(stops, 0), at(stops, 1)];
  return { d, tag: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } };
}

/** Devices joined by leads for messages and controls, laid out in the direction in which messages go. */
export function midiMap(rig: Rig): MidiMap {
  const graph = midiGraph(rig);
  const broken = new Set(graph.ways.filter((w) => w.broken).map((w) => w.lead.id));
  const carrying = new Set(graph.ways.map((w) => w.lead.id));
  const leads = rig.leads.filter((l) => carrying.has(l.id) || l.type === 'control');
  const g = new dagre.graphlib.Graph({ multigraph: true });
  g.setGraph({ rankdir: 'LR', nodesep: 22, ranksep: 74, marginx: 10, marginy: 10 });
  g.setDefaultEdgeLabel(() => ({}));
  const ids = [...new Set(leads.flatMap((l) => [l.from.device, l.to.device]))];
  for (const id of ids) g.setNode(id, { ...BOX });
  for (const l of leads) g.setEdge(l.from.device, l.to.device, {}, l.id);
  dagre.layout(g);
  const label = (e: End) => jackOf(sure(deviceOf(rig, e.device)), e.jack)?.label ?? endKey(e);
  const size = g.graph() as { width?: number; height?: number };
  return {
    boxes: ids.map((id) => {
      const n = g.node(id) as { x: number; y: number };
      return {
        device: sure(deviceOf(rig, id)),
        x: n.x - BOX.width / 2,
        y: n.y - BOX.height / 2,
        ...BOX,
      };
    }),
    lines: leads.map((lead) => ({
      lead,
      from: label(lead.from),
      to: label(lead.to),
      broken: broken.has(lead.id),
      ...lineOf(
        g.node(lead.from.device) as At,
        g.node(lead.to.device) as At,
        (g.edge({ v: lead.from.device, w: lead.to.device, name: lead.id }) as { points: At[] })
          .points,
      ),
    })),
    width: size.width ?? 0,
    height: size.height ?? 0,
  };
}
