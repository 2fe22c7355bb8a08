import { passesOf, pluggedJacks } from '../circuit';
import { isEngaged, type Jack, kindOf, type Pass, stateIn } from '../kinds';
import type { Device, Rig, Sound } from '../rig/schema';

/** One pass of the signal through a device: the jacks it comes in by and leaves by. A device with a loop has two or more. */
export interface Station {
  id: string;
  device: string;
  ins: string[];
  outs: string[];
  /** engaged: does its job · through: only passes the signal on · muted: lets nothing through · unused: not selected or not in use. */
  state: 'engaged' | 'through' | 'muted' | 'unused';
  /** Whether signal begins here. */
  source: boolean;
  column: number;
  lane: number;
}

/** Leads that carry signal from one station to the next; two where a stereo pair runs side by side. */
export interface Step { from: string; to: string; leads: string[]; back: boolean; open: boolean }

/** Jacks of a device joined by its passes, each group being one pass of the signal. */
export function passGroups(passes: readonly Pass[], jacks: readonly Jack[]): { ins: string[]; outs: string[]; passes: Pass[] }[] {
  const group = new Map<string, string>();
  const root = (p: string): string => {
    const up = group.get(p);
    if (up === undefined) group.set(p, p);
    return up === undefined || up === p ? p : root(up);
  };
  const ends = (p: Pass): string[] => (p.is === 'stage' ? [p.from, p.to] : p.is === 'wire' || p.is === 'resistor' || p.is === 'open' ? [p.a, p.b] : [p.at]);
  // The two sides of a stereo pair are one pass.
  for (const j of jacks) if (j.pair) group.set(root(j.id), root(j.pair.with));
  for (const j of jacks) root(j.id);
  for (const p of passes) {
    const [a, b] = ends(p);
    root(a!);
    if (b !== undefined) group.set(root(a!), root(b));
  }
  const found = new Map<string, { ins: string[]; outs: string[]; passes: Pass[] }>();
  const at = (p: string) => {
    const r = root(p);
    let g = found.get(r);
    if (!g) found.set(r, (g = { ins: [], outs: [], passes: [] }));
    return g;
  };
  for (const j of jacks) at(j.id)[j.direction === 'in' ? 'ins' : 'outs'].push(j.id);
  for (const p of passes) at(ends(p)[0]!).passes.push(p);
  return [...found.values()];
}

function stateOf(device: Device, engaged: boolean, passes: readonly Pass[]): Station['state'] {
  if (passes.some((p) => p.is === 'source')) return engaged ? 'engaged' : 'unused';
  const stages = passes.filter((p) => p.is === 'stage');
  if (stages.length && stages.every((s) => s.muted)) return 'muted';
  if (!engaged) return kindOf(device.kind).startsEngaged ? 'unused' : 'through';
  return passes.length ? 'engaged' : 'unused';
}

/** Stations of a sound and the steps between them, unplaced. Only passes that a lead reaches are stations. */
export function stationsOf(rig: Rig, sound?: Sound): { stations: Station[]; steps: Step[] } {
  const plugged = pluggedJacks(rig);
  const stations: Station[] = [];
  const at = new Map<string, { station: Station; open: boolean }>();
  for (const device of rig.devices) {
    const kind = kindOf(device.kind);
    const jacks = plugged.get(device.id);
    const engaged = isEngaged(kind, device, stateIn(sound, device.id));
    const groups = passGroups(passesOf(device, sound, plugged), kind.jacks).filter((g) => [...g.ins, ...g.outs].some((j) => jacks?.has(j)));
    for (const g of groups) {
      const used = (list: string[]) => list.filter((j) => jacks!.has(j));
      const station: Station = { id: device.id, device: device.id, ins: used(g.ins), outs: used(g.outs), state: stateOf(device, engaged, g.passes), source: g.passes.some((p) => p.is === 'source'), column: 0, lane: 0 };
      if (groups.length > 1) station.id = `${device.id}:${station.ins[0] ?? station.outs[0]}`;
      stations.push(station);
      for (const j of [...station.ins, ...station.outs]) {
        const open = g.passes.some((p) => p.is === 'open' && p.b === j) && !g.passes.some((p) => p.is !== 'open' && (p.is === 'stage' ? p.to === j : p.is === 'wire' && p.b === j));
        at.set(`${device.id}/${j}`, { station, open });
      }
    }
  }
  const steps = new Map<string, Step>();
  for (const lead of rig.leads) {
    const from = at.get(`${lead.from.device}/${lead.from.jack}`);
    const to = at.get(`${lead.to.device}/${lead.to.jack}`);
    if (!from || !to) continue;
    const key = `${from.station.id}>${to.station.id}`;
    const step = steps.get(key);
    if (step) step.leads.push(lead.id);
    else steps.set(key, { from: from.station.id, to: to.station.id, leads: [lead.id], back: false, open: from.open });
  }
  return { stations, steps: [...steps.values()] };
}
