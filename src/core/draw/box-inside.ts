import dagre from '@dagrejs/dagre';
import type { Assembly, InnerJack } from '../rig/sheets';
import { kindOfSheet } from '../rig/sheets';

/** A part or an outer jack of a box in its drawing; figures in pixels. */
export interface InsideBox {
  id: string;
  is: 'part' | 'jack';
  label: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The inside of a box, drawn as a small walk from the jacks that signal comes in by to those it leaves by. */
export interface BoxInside {
  boxes: InsideBox[];
  ways: { id: string; points: { x: number; y: number }[] }[];
  width: number;
  height: number;
}

type Laid = Pick<InsideBox, 'x' | 'y' | 'width' | 'height'>;

const PART = { width: 128, height: 42 };
const JACK = { width: 96, height: 26 };

const partNode = (id: string) => `part ${id}`;
const jackNode = (id: string) => `jack ${id}`;

/** Lays out parts, jacks and links of a box from left to right. Jacks for messages and power are left out. */
export function boxInside(sheet: Assembly): BoxInside {
  const kind = kindOfSheet(sheet);
  const g = new dagre.graphlib.Graph({ multigraph: true });
  g.setGraph({ rankdir: 'LR', nodesep: 12, ranksep: 34, marginx: 6, marginy: 6 });
  g.setDefaultEdgeLabel(() => ({}));
  const shown = sheet.jacks.filter((j) =>
    kind.jacks.some((x) => x.id === j.id && ['audio', 'speaker', 'air'].includes(x.signal)),
  );
  for (const p of sheet.parts) g.setNode(partNode(p.id), { ...PART });
  for (const j of shown) g.setNode(jackNode(j.id), { ...JACK });
  // Two links between the same two parts, as of a stereo pair, are one line.
  const join = (a: string, b: string) => g.setEdge(a, b, {}, `${a} ${b}`);
  for (const { from, to } of sheet.links) join(partNode(from.part), partNode(to.part));
  for (const jack of shown) {
    const leaves = kind.jacks.find((x) => x.id === jack.id)?.direction === 'out';
    const tie = ({ part }: InnerJack) =>
      leaves ? join(partNode(part), jackNode(jack.id)) : join(jackNode(jack.id), partNode(part));
    jack.at.forEach(tie);
  }
  dagre.layout(g);
  const placed = (id: string, is: InsideBox['is'], node: string, label: string): InsideBox => {
    const { x, y, width, height } = g.node(node) as Laid;
    return { id, is, label, x: x - width / 2, y: y - height / 2, width, height };
  };
  const size = g.graph() as { width?: number; height?: number };
  return {
    boxes: [
      ...sheet.parts.map((p) => placed(p.id, 'part', partNode(p.id), p.name)),
      ...shown.map((j) => placed(j.id, 'jack', jackNode(j.id), j.label)),
    ],
    ways: g.edges().map((e) => ({
      id: String(e.name),
      points: (g.edge(e) as Pick<BoxInside['ways'][number], 'points'>).points,
    })),
    width: size.width ?? 0,
    height: size.height ?? 0,
  };
}
