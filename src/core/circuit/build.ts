import { sure, at as entryAt } from '../outcome';
import { resolveState, stateIn } from '../rig/device-state';
import { kindOf, type Pass, type Stage } from '../kinds';
import { joinsOf } from '../rig/conductors';
import { leadPf } from '../rig/find';
import {
  CONTROL_LEADS,
  type Device,
  type Lead,
  type Rig,
  type Sound,
  type State,
} from '../rig/schema';
import { asBlock } from './block';
import type { Arrival, Circuit, CircuitStage, Driver, Net, Section } from './circuit';
import { Joined } from '../graph';

/** Sound travels one metre in 2.9 ms. */
export const AIR_MS_PER_METRE = 2.9;

/** Leads that carry signal as voltage on metal. */
export const isMetal = (lead: Lead): boolean =>
  lead.type !== 'air' &&
  lead.type !== 'digital' &&
  lead.type !== 'inside' &&
  !CONTROL_LEADS.includes(lead.type);

const pluggedCache = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; plugged: Map<string, Set<string>> }
>();

/**
 * Jacks of each device that hold a lead, and the conductors of them that a lead reaches; remembered
 * while devices and leads stay the same.
 */
export function pluggedJacks(rig: Rig): Map<string, Set<string>> {
  let known = pluggedCache.get(rig.leads);
  if (known?.devices !== rig.devices)
    pluggedCache.set(rig.leads, (known = { devices: rig.devices, plugged: findPlugged(rig) }));
  return known.plugged;
}

function findPlugged(rig: Rig): Map<string, Set<string>> {
  const plugged = new Map<string, Set<string>>();
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const jacksOf = (device: string) => {
    let jacks = plugged.get(device);
    if (!jacks) plugged.set(device, (jacks = new Set()));
    return jacks;
  };
  for (const lead of rig.leads) {
    const [from, to] = [jacksOf(lead.from.device), jacksOf(lead.to.device)];
    from.add(lead.from.jack);
    to.add(lead.to.jack);
    for (const [a, b] of joinsOf(
      lead,
      devices.get(lead.from.device),
      devices.get(lead.to.device),
    )) {
      from.add(a);
      to.add(b);
    }
  }
  return plugged;
}

const NONE = new Set<string>();
const passCache = new WeakMap<
  Device,
  { state: State | undefined; plugged: string; passes: Pass[] }[]
>();

/** A device's passes in a sound; remembered while the device, its state and its plugs stay the same. */
export function passesOf(
  device: Device,
  sound: Sound | undefined,
  plugged: ReadonlyMap<string, Set<string>>,
): Pass[] {
  const state = stateIn(sound, device.id);
  const jacks = plugged.get(device.id) ?? NONE;
  const plugs = [...jacks].join(' ');
  let known = passCache.get(device);
  if (!known) passCache.set(device, (known = []));
  const hit = known.find((k) => k.state === state && k.plugged === plugs);
  if (hit) return hit.passes;
  const kind = kindOf(device.kind);
  const own = kind.passes(resolveState(kind, device, state), (jack) => jacks.has(jack));
  const passes = device.host === undefined ? own : own.map(asBlock);
  known.unshift({ state, plugged: plugs, passes });
  known.length = Math.min(known.length, 64);
  return passes;
}

/**
 * A hop that carries signal without metal: sound in air, a channel of a digital link, a link inside
 * a host.
 */
const hop = (id: string, latencyMs: number): Stage => ({
  is: 'stage',
  id,
  from: id,
  to: id,
  inOhms: Infinity,
  outOhms: 0,
  gainDb: 0,
  ceiling: { dbu: 200, shape: 'hard', meant: false },
  outputDb: 0,
  noiseDbu: -Infinity,
  latencyMs,
  inverts: false,
  tiltDb: 0,
  groundThrough: false,
});

/** Turns a rig and a sound into a circuit. */
export function buildCircuit(rig: Rig, sound?: Sound, plugged = pluggedJacks(rig)): Circuit {
  const joined = new Joined<number>();
  const index = new Map<string, number>();
  const refs: { device: string; point: string }[] = [];
  const point = (device: string, name: string): number => {
    const key = `${device}\u0000${name}`;
    let at = index.get(key);
    if (at === undefined) {
      index.set(key, (at = refs.length));
      refs.push({ device, point: name });
    }
    return at;
  };

  const placed: { device: Device; pass: Pass }[] = [];
  for (const device of rig.devices) {
    for (const jack of kindOf(device.kind).jacks) point(device.id, jack.id);
    for (const pass of passesOf(device, sound, plugged)) {
      placed.push({ device, pass });
      if (pass.is === 'wire') joined.join(point(device.id, pass.a), point(device.id, pass.b));
    }
  }
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const joins = new Map(
    rig.leads.map((l) => [l, joinsOf(l, devices.get(l.from.device), devices.get(l.to.device))]),
  );
  for (const lead of rig.leads) {
    for (const [a, b] of sure(joins.get(lead))) {
      const [from, to] = [point(lead.from.device, a), point(lead.to.device, b)];
      if (isMetal(lead)) joined.join(from, to);
    }
  }
  for (const { device, pass } of placed) {
    if (pass.is === 'resistor') [pass.a, pass.b].forEach((p) => point(device.id, p));
    else if (pass.is === 'stage') [pass.from, pass.to].forEach((p) => point(device.id, p));
    else if (pass.is === 'series') [pass.at, ...pass.legs].forEach((p) => point(device.id, p));
    else if (pass.is === 'source' || pass.is === 'shunt' || pass.is === 'arrive')
      point(device.id, pass.at);
  }

  const nets: Net[] = [];
  const netOfRoot = new Map<number, Net>();
  const netOf = (device: string, name: string): Net => {
    const root = joined.root(point(device, name));
    let net = netOfRoot.get(root);
    if (!net) {
      net = {
        index: nets.length,
        points: [],
        leads: [],
        leadFarads: 0,
        shunts: [],
        coils: [],
        section: -1,
      };
      netOfRoot.set(root, net);
      nets.push(net);
    }
    return net;
  };
  for (const ref of [...refs]) netOf(ref.device, ref.point).points.push(ref);
  for (const lead of rig.leads) {
    if (!isMetal(lead)) continue;
    for (const [from] of sure(joins.get(lead))) {
      const net = netOf(lead.from.device, from);
      net.leads.push(lead.id);
      net.leadFarads += leadPf(lead) * 1e-12;
    }
  }

  const drivers: Driver[] = [];
  const stages: CircuitStage[] = [];
  const arrivals: Arrival[] = [];
  const resistors: { a: number; b: number; ohms: number }[] = [];
  const driverAt = new Map<string, Driver>();
  const driver = (device: string, name: string, ohms: number, henries = 0): Driver => {
    const key = `${device}\u0000${name}`;
    let d = driverAt.get(key);
    if (!d) {
      d = {
        index: drivers.length,
        device,
        net: netOf(device, name).index,
        ohms: Math.max(ohms, 0.01),
        henries,
        stages: [],
      };
      driverAt.set(key, d);
      drivers.push(d);
    }
    return d;
  };
  // Several stages of one device may read one jack; its input impedance counts once.
  const loaded = new Map<string, { ohms: number; farads: number }>();
  const loadAt = (device: string, name: string, ohms: number, farads = 0) => {
    const key = `${device}\u0000${name}`;
    const known = loaded.get(key);
    if (known) {
      known.ohms = Math.min(known.ohms, ohms);
      return;
    }
    const shunt = { ohms, farads: 0 };
    loaded.set(key, shunt);
    const net = netOf(device, name);
    net.shunts.push(shunt);
    if (farads > 0) net.shunts.push({ ohms: 0, farads });
  };
  const addStage = (
    device: string,
    stage: Stage,
    from: Net,
    to: Driver,
    key?: Net,
    lead?: string,
  ) => {
    const one = { device, stage, from: from.index, driver: to.index, keyNet: key?.index, lead };
    stages.push(one);
    to.stages.push(one);
  };

  for (const { device, pass } of placed) {
    const id = device.id;
    if (pass.is === 'shunt') {
      netOf(id, pass.at).shunts.push({ ohms: pass.ohms ?? 0, farads: pass.farads ?? 0 });
      if (pass.coil)
        netOf(id, pass.at).coils.push({
          device: id,
          ohms: pass.ohms ?? Infinity,
          watts: pass.coil.watts,
        });
    } else if (pass.is === 'resistor')
      resistors.push({
        a: netOf(id, pass.a).index,
        b: netOf(id, pass.b).index,
        ohms: Math.max(pass.ohms, 0.01),
      });
    else if (pass.is === 'source') driver(id, pass.at, pass.ohms, pass.henries).source = pass;
    else if (pass.is === 'arrive') {
      loadAt(id, pass.at, pass.ohms, pass.farads);
      if (pass.coil)
        netOf(id, pass.at).coils.push({ device: id, ohms: pass.ohms, watts: pass.coil.watts });
      arrivals.push({ device: id, net: netOf(id, pass.at).index, arrive: pass });
    } else if (pass.is === 'stage') {
      loadAt(id, pass.from, pass.inOhms, pass.inFarads);
      addStage(
        id,
        pass,
        netOf(id, pass.from),
        driver(id, pass.to, pass.outOhms, pass.outHenries),
        pass.gate && netOf(id, pass.gate.key),
      );
    }
  }
  for (const lead of rig.leads) {
    if (isMetal(lead) || lead.type === 'midi') continue;
    for (const [from, to] of sure(joins.get(lead))) {
      addStage(
        lead.to.device,
        hop(lead.type, lead.type === 'air' ? lead.metres * AIR_MS_PER_METRE : 0),
        netOf(lead.from.device, from),
        driver(lead.to.device, to, 0.01),
        undefined,
        lead.id,
      );
    }
  }
  // Loads in series need what hangs on their legs, so they come when everything else is in place.
  for (const { device, pass } of placed) {
    if (pass.is !== 'series') continue;
    const legs = pass.legs.map((leg) => netOf(device.id, leg));
    const ohms = legs.map((leg) => 1 / leg.coils.reduce((s, c) => s + 1 / c.ohms, 0));
    const sum = ohms.reduce((a, b) => a + b, 0);
    const line = netOf(device.id, pass.at);
    if (!Number.isFinite(sum)) continue;
    line.shunts.push({ ohms: sum, farads: 0 });
    // Each takes its share of the power, as an impedance of this size across the line would.
    line.coils.push(
      ...legs.flatMap((leg, k) =>
        leg.coils.map((c) => ({ ...c, ohms: c.ohms * (sum / entryAt(ohms, k)) ** 2 })),
      ),
    );
    pass.legs.forEach((leg, k) =>
      addStage(
        device.id,
        { ...hop('series', 0), gainDb: 20 * Math.log10(entryAt(ohms, k) / sum) },
        line,
        driver(device.id, leg, 0.01),
      ),
    );
  }

  const sections = gatherSections(nets, resistors, drivers);
  return {
    nets,
    sections,
    drivers,
    stages,
    arrivals,
    netAt: (device, name) => {
      const at = index.get(`${device}\u0000${name}`);
      return at === undefined ? undefined : netOfRoot.get(joined.root(at));
    },
  };
}

function gatherSections(
  nets: Net[],
  resistors: Section['resistors'],
  drivers: Driver[],
): Section[] {
  const groups = new Joined<number>();
  for (const r of resistors) groups.join(r.a, r.b);
  const byRoot = new Map<number, Section>();
  const sections: Section[] = [];
  for (const net of nets) {
    const root = groups.root(net.index);
    let section = byRoot.get(root);
    if (!section) {
      section = { index: sections.length, nets: [], resistors: [], drivers: [] };
      byRoot.set(root, section);
      sections.push(section);
    }
    section.nets.push(net.index);
    net.section = section.index;
  }
  for (const r of resistors)
    if (r.a !== r.b) entryAt(sections, entryAt(nets, r.a).section).resistors.push(r);
  for (const d of drivers) entryAt(sections, entryAt(nets, d.net).section).drivers.push(d);
  return sections;
}
