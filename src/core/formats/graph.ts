import type { SoundReport } from '../report/report';
import { kindOf } from '../kinds';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';

/** A value of a node or an edge; `null` is left out where it is written. */
export type Attribute = string | number | boolean | null;

/** A directed graph as the open graph formats hold it: named nodes and edges, each with attributes. */
export interface Graph {
  name: string;
  nodes: { id: string; attributes: Record<string, Attribute> }[];
  edges: { id: string; from: string; to: string; attributes: Record<string, Attribute> }[];
}

/** The wiring whatever the sound: a node a device, an edge a lead. */
export const wiringGraph = (rig: Rig): Graph => ({
  name: `${rig.name}, wiring`,
  nodes: rig.devices.map((d) => ({
    id: d.id,
    attributes: {
      name: d.name,
      kind: d.kind,
      family: kindOf(d.kind).family,
      host: d.host ?? null,
      place: d.place ?? null,
    },
  })),
  edges: rig.leads.map((l) => ({
    id: l.id,
    from: l.from.device,
    to: l.to.device,
    attributes: {
      type: l.type,
      fromJack: l.from.jack,
      toJack: l.to.jack,
      metres: l.metres,
      label: l.label ?? null,
    },
  })),
});

/**
 * The walk of one sound: a node a station (one pass through a device), an edge a step. Ways that
 * are not made in this sound are marked "open".
 */
export const walkGraph = (rig: Rig, report: SoundReport): Graph => ({
  name: `${rig.name}, ${rig.sounds.find((s) => s.id === report.sound)?.name ?? report.sound}`,
  nodes: report.stations.map((s) => ({
    id: s.id,
    attributes: {
      device: s.device,
      name: nameOf(rig, s.device),
      in: s.ins.join(' '),
      out: s.outs.join(' '),
      state: s.state,
      source: s.source,
      column: s.column,
      lane: s.lane,
      levelDbu: s.output.levelDbu?.normal ?? null,
      noiseDbu: s.output.noiseDbu,
      saturationPercent: s.output.thdPercent?.normal ?? null,
      channels: s.width,
    },
  })),
  edges: report.steps.map((s, i) => ({
    id: `step-${i + 1}`,
    from: s.from,
    to: s.to,
    attributes: { leads: s.leads.join(' '), open: s.open, back: s.back },
  })),
});
