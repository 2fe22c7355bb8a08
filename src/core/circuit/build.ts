import { at as entryAt } from '../outcome';
import { kindOf, type Pass, type Stage } from '../kinds';
import { deviceOf, leadPf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Lead, Rig, Sound } from '../rig/schema';
import type { Arrival, Circuit, CircuitStage, Driver, Net, Section } from './circuit';
import { JoinedNumbers } from '../graph';
import { type Conductor, conductorsOf, passesOf, pluggedJacks } from './plugged';

/** Sound travels one metre in 2.9 ms. */
export const AIR_MS_PER_METRE = 2.9;
/** The size of a speaker cabinet whose kind says none, in m. */
const USUAL_CABINET_M = 0.5;

/**
 * What distance costs between a speaker and a microphone, in dB: nothing within the cabinet's size,
 * where the microphone is in front of one cone, and 6 dB a doubling from there on. A room's own sound
 * is left out, so that far off more is heard than this says.
 */
export const airLossDb = (metres: number, cabinetMetres: number): number =>
  metres <= cabinetMetres ? 0 : 20 * Math.log10(cabinetMetres / metres);

const cabinetOf = (kind: string): number => {
  const { size } = kindOf(kind);
  return size ? Math.max(size.width, size.depth, size.height) / 1000 : USUAL_CABINET_M;
};

/** Leads that carry signal as voltage on metal. */
export const isMetal = (lead: Lead): boolean =>
  lead.type !== 'air' &&
  lead.type !== 'digital' &&
  lead.type !== 'inside' &&
  !CONTROL_LEADS.includes(lead.type);

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

/** Leads that carry signal without metal. */
export const isHop = (lead: Lead): boolean => !isMetal(lead) && lead.type !== 'midi';

/** What a lead without metal does to the signal: in air distance costs level and time. */
export function hopOf(rig: Rig, lead: Lead): Stage {
  const speaker = lead.type === 'air' ? deviceOf(rig, lead.from.device) : undefined;
  if (!speaker) return hop(lead.type, 0);
  return Object.assign(hop(lead.type, lead.metres * AIR_MS_PER_METRE), {
    gainDb: airLossDb(lead.metres, cabinetOf(speaker.kind)),
  });
}

/** Turns a rig and a sound into a circuit. */
export const buildCircuit = (rig: Rig, sound?: Sound, plugged = pluggedJacks(rig)): Circuit =>
  new CircuitBuilder(rig, sound, plugged).build();

/** One pass of one device of the rig. */
interface Placed<P extends Pass = Pass> {
  device: string;
  pass: P;
}
type PassOf<T extends Pass['is']> = Extract<Pass, { is: T }>;

/** A source impedance of no account, in ohms: nothing divides by zero. */
const LEAST_OHMS = 0.01;

/**
 * First every point is named and what metal joins becomes one net; then the passes hang their
 * loads, sources and stages on the nets; then the hops without metal; last the loads in series,
 * which need what hangs on their legs. What shares a resistor is one section, to be solved together.
 */
class CircuitBuilder {
  private readonly joined = new JoinedNumbers();
  /** The number of each point of each device. */
  private readonly index = new Map<string, Map<string, number>>();
  private readonly refs: { device: string; point: string }[] = [];
  private readonly placed: Placed[] = [];
  private readonly conductors: readonly Conductor[];
  private readonly nets: Net[] = [];
  /** Nets by the number of the point that stands for what is joined. */
  private readonly netOfRoot: (Net | undefined)[] = [];
  private readonly drivers: Driver[] = [];
  private readonly driverAt = new Map<number, Driver>();
  private readonly stages: CircuitStage[] = [];
  private readonly arrivals: Arrival[] = [];
  private readonly resistors: Section['resistors'] = [];
  private readonly loaded = new Map<number, { ohms: number; farads: number }>();

  constructor(
    private readonly rig: Rig,
    private readonly sound: Sound | undefined,
    private readonly plugged: ReadonlyMap<string, Set<string>>,
  ) {
    this.conductors = conductorsOf(rig);
  }

  build(): Circuit {
    this.joinPoints();
    this.fillNets();
    for (const p of this.placed) this.hang(p);
    this.addHops();
    this.addAllSeries();
    return {
      nets: this.nets,
      sections: gatherSections(this.nets, this.resistors, this.drivers),
      drivers: this.drivers,
      stages: this.stages,
      arrivals: this.arrivals,
      netAt: (device, name) => {
        const at = this.index.get(device)?.get(name);
        return at === undefined ? undefined : this.netOfRoot[this.joined.root(at)];
      },
    };
  }

  private all<T extends Pass['is']>(is: T): Placed<PassOf<T>>[] {
    return this.placed.filter((p): p is Placed<PassOf<T>> => p.pass.is === is);
  }

  /** The number of a point, given when it is first named. */
  private point(device: string, name: string): number {
    return this.pointIn(this.pointsIn(device), device, name);
  }

  private pointsIn(device: string): Map<string, number> {
    let points = this.index.get(device);
    if (!points) this.index.set(device, (points = new Map<string, number>()));
    return points;
  }

  private pointIn(points: Map<string, number>, device: string, name: string): number {
    let at = points.get(name);
    if (at === undefined) {
      points.set(name, (at = this.refs.length));
      this.refs.push({ device, point: name });
    }
    return at;
  }

  private joinPoints(): void {
    for (const device of this.rig.devices) {
      const { id } = device;
      const points = this.pointsIn(id);
      for (const jack of kindOf(device.kind).jacks) this.pointIn(points, id, jack.id);
      for (const pass of passesOf(device, this.sound, this.plugged)) {
        this.placed.push({ device: id, pass });
        if (pass.is === 'wire')
          this.joined.join(this.pointIn(points, id, pass.a), this.pointIn(points, id, pass.b));
      }
    }
    for (const { lead, from, to } of this.conductors) {
      const [a, b] = [this.point(lead.from.device, from), this.point(lead.to.device, to)];
      if (isMetal(lead)) this.joined.join(a, b);
    }
    for (const { device, pass } of this.placed) {
      const points = this.pointsIn(device);
      for (const name of pointsOf(pass)) this.pointIn(points, device, name);
    }
  }

  private netOf(device: string, name: string): Net {
    return this.netOfPoint(this.point(device, name));
  }

  private netOfPoint(at: number): Net {
    const root = this.joined.root(at);
    let net = this.netOfRoot[root];
    if (!net) {
      net = {
        index: this.nets.length,
        points: [],
        leads: [],
        leadFarads: 0,
        shunts: [],
        coils: [],
        section: -1,
      };
      this.netOfRoot[root] = net;
      this.nets.push(net);
    }
    return net;
  }

  private fillNets(): void {
    for (const [at, ref] of this.refs.entries()) this.netOfPoint(at).points.push(ref);
    for (const { lead, from } of this.conductors) {
      if (!isMetal(lead)) continue;
      const net = this.netOf(lead.from.device, from);
      net.leads.push(lead.id);
      net.leadFarads += leadPf(lead) * 1e-12;
    }
  }

  /** Hangs what one pass is on the nets that it touches; wires are joined already. */
  private hang({ device, pass }: Placed): void {
    if (pass.is === 'shunt') {
      const net = this.netOf(device, pass.at);
      net.shunts.push({
        ohms: pass.ohms ?? 0,
        farads: pass.farads ?? 0,
        ...(pass.henries && { henries: pass.henries }),
      });
      if (pass.coil)
        net.coils.push({ device, ohms: pass.ohms ?? Infinity, watts: pass.coil.watts });
    } else if (pass.is === 'resistor') {
      const [a, b] = [this.netOf(device, pass.a).index, this.netOf(device, pass.b).index];
      this.resistors.push({ a, b, ohms: Math.max(pass.ohms, LEAST_OHMS) });
    } else if (pass.is === 'source') {
      this.driver(device, pass.at, pass.ohms, pass.henries).source = pass;
    } else if (pass.is === 'arrive') {
      this.load(device, pass.at, pass.ohms, pass.farads);
      const net = this.netOf(device, pass.at);
      if (pass.coil) net.coils.push({ device, ohms: pass.ohms, watts: pass.coil.watts });
      this.arrivals.push({ device, net: net.index, arrive: pass });
    } else if (pass.is === 'stage') {
      this.load(device, pass.from, pass.inOhms, pass.inFarads);
      this.addStage(device, pass, this.netOf(device, pass.from), {
        to: this.driver(device, pass.to, pass.outOhms, pass.outHenries),
        key: pass.gate && this.netOf(device, pass.gate.key),
      });
    }
  }

  private driver(device: string, name: string, ohms: number, henries = 0): Driver {
    const key = this.point(device, name);
    let d = this.driverAt.get(key);
    if (!d) {
      d = {
        index: this.drivers.length,
        device,
        net: this.netOf(device, name).index,
        ohms: Math.max(ohms, LEAST_OHMS),
        henries,
        stages: [],
      };
      this.driverAt.set(key, d);
      this.drivers.push(d);
    }
    return d;
  }

  /** Several stages of one device may read one jack; its input impedance counts once. */
  private load(device: string, name: string, ohms: number, farads = 0): void {
    const key = this.point(device, name);
    const known = this.loaded.get(key);
    if (known) {
      known.ohms = Math.min(known.ohms, ohms);
      return;
    }
    const shunt = { ohms, farads: 0 };
    this.loaded.set(key, shunt);
    const net = this.netOf(device, name);
    net.shunts.push(shunt);
    if (farads > 0) net.shunts.push({ ohms: 0, farads });
  }

  private addStage(
    device: string,
    stage: Stage,
    from: Net,
    { to, key, lead }: { to: Driver; key?: Net; lead?: string },
  ): void {
    const one = {
      device,
      stage,
      from: from.index,
      driver: to.index,
      keyNet: key?.index,
      lead,
    };
    this.stages.push(one);
    to.stages.push(one);
  }

  /** Sound in air, digital links and links inside a host. */
  private addHops(): void {
    for (const { lead, from, to } of this.conductors) {
      if (!isHop(lead)) continue;
      this.addStage(lead.to.device, hopOf(this.rig, lead), this.netOf(lead.from.device, from), {
        to: this.driver(lead.to.device, to, LEAST_OHMS),
        lead: lead.id,
      });
    }
  }

  /** Boxes in series from the loads back: one whose leg carries another comes after that one. */
  private addAllSeries(): void {
    const boxes = this.all('series');
    const lineOf = ({ device, pass }: (typeof boxes)[number]) => this.netOf(device, pass.at);
    const added = new Set<(typeof boxes)[number]>();
    const add = (box: (typeof boxes)[number]): void => {
      if (added.has(box)) return;
      added.add(box);
      const legs = box.pass.legs.map((leg) => this.netOf(box.device, leg));
      for (const other of boxes) if (legs.includes(lineOf(other))) add(other);
      this.addSeries(box);
    };
    boxes.forEach(add);
  }

  /** Loads in series, where every leg has one: the line sees their sum, each leg its share. */
  private addSeries({ device, pass }: Placed<PassOf<'series'>>): void {
    const legs = pass.legs.map((leg) => this.netOf(device, leg));
    const ohms = legs.map((leg) => 1 / leg.coils.reduce((s, c) => s + 1 / c.ohms, 0));
    const sum = ohms.reduce((a, b) => a + b, 0);
    const line = this.netOf(device, pass.at);
    if (!Number.isFinite(sum)) return;
    line.shunts.push({ ohms: sum, farads: 0 });
    // Each takes its share of the power, as an impedance of this size across the line would.
    line.coils.push(
      ...legs.flatMap((leg, k) =>
        leg.coils.map((c) => ({ ...c, ohms: c.ohms * (sum / entryAt(ohms, k)) ** 2 })),
      ),
    );
    pass.legs.forEach((leg, k) =>
      this.addStage(
        device,
        { ...hop('series', 0), gainDb: 20 * Math.log10(entryAt(ohms, k) / sum) },
        line,
        { to: this.driver(device, leg, LEAST_OHMS) },
      ),
    );
  }
}

/** The points of its device that a pass touches; those of wires are named when they are joined. */
function pointsOf(pass: Pass): string[] {
  if (pass.is === 'resistor') return [pass.a, pass.b];
  if (pass.is === 'stage') return [pass.from, pass.to];
  if (pass.is === 'series') return [pass.at, ...pass.legs];
  return 'at' in pass ? [pass.at] : [];
}

/** The instrument whose pickup drives a lead by itself: what is put into it loads that pickup. */
export function bareSourceOf(circuit: Circuit, lead: Lead): string | undefined {
  const net = circuit.netAt(lead.from.device, lead.from.jack);
  const section = net && circuit.sections[net.section];
  return section?.drivers.find((d) => d.source?.bare)?.device;
}

function gatherSections(
  nets: Net[],
  resistors: Section['resistors'],
  drivers: Driver[],
): Section[] {
  const groups = new JoinedNumbers();
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
