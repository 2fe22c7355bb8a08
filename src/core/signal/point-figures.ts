import { at as entryAt, sure } from '../outcome';
import { type Flowing } from './flow';
import { noisiestOf } from './hiss';
import { type Flow, type Present, totalPeak, totalVolts } from './meeting';
import { distortion } from './saturate';
import { type Circuit, type Section } from '../circuit';
import { dbuOfVolts, decibels } from '../units';

export interface Touches {
  soft: number;
  normal: number;
  hard: number;
}
export type Width = 'silent' | 'mono' | 'dual mono' | 'stereo';

/**
 * What a meter would show at a jack. Levels are RMS in dBu, at soft, normal and hard picking;
 * `null` is silence.
 */
export interface PointFigures {
  levelDbu: Touches | null;
  /** Peak at normal picking, as the dBu of a sine with that peak. */
  peakDbu: number | null;
  noiseDbu: number | null;
  idleNoiseDbu: number | null;
  /** The device that most of the noise between notes comes from. */
  idleNoisiest: string | null;
  noisiest: string | null;
  thdPercent: Touches | null;
  /** Latency of the loudest arrival. */
  latencyMs: number | null;
  tiltDb: number | null;
  sources: string[];
  /**
   * Impedance of what drives this point and of what loads it, at 1 kHz, and the level lost between
   * the two.
   */
  sourceOhms: number | null;
  loadOhms: number | null;
  lossDb: number | null;
  leadPf: number;
}

/** Under this level, in dBu, there is silence: what is left of two copies that cancel. */
export const SILENCE_DBU = -130;

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

/** Distortion of what is present at one touch, the shares of several flows weighted by their power. */
export function presentDistortion(flows: readonly Flow[], touch: number): number {
  let harmonic = 0;
  let fundamental = 0;
  for (const f of flows) {
    const d = distortion(f.shapes[touch]!) ** 2;
    const power = f.volts[touch]! ** 2;
    fundamental += power / (1 + d);
    harmonic += (power * d) / (1 + d);
  }
  return fundamental > 0 ? Math.sqrt(harmonic / fundamental) : 0;
}

export const loudest = (flows: readonly Flow[]): Flow | undefined =>
  flows.reduce<Flow | undefined>((a, b) => (a && a.volts[1] >= b.volts[1] ? a : b), undefined);

/** A copy this far under the loudest is still heard as the playing, in dB. */
const CLEAR_DB = 10;

/**
 * When the playing of the loudest source is heard, in ms: with its first copy that is heard clearly.
 * A shifted voice that follows it is late, but the playing is not.
 */
export const heardAfterMs = (flows: readonly Flow[], loud: Flow): number =>
  Math.min(
    ...flows
      .filter((f) => f.source === loud.source)
      .filter((f) => dbuOfVolts(f.volts[1]) >= dbuOfVolts(loud.volts[1]) - CLEAR_DB)
      .map((f) => f.latencyMs),
  );

/** Whether what is present is more than silence. */
const sounds = (flows: readonly Flow[]): boolean =>
  flows.length > 0 && dbuOfVolts(totalVolts(flows, 1)) > SILENCE_DBU;

/** Peak at normal picking, as the dBu of a sine with that peak; nothing where there is silence. */
export const presentPeak = (flows: readonly Flow[]): number | null =>
  sounds(flows) ? dbuOfVolts(totalPeak(flows)) : null;

/** The figures of what is present, without the impedances around it. */
export function presentFigures(
  p: Present,
): Omit<PointFigures, 'sourceOhms' | 'loadOhms' | 'lossDb' | 'leadPf'> {
  const level = (t: number) => dbuOfVolts(totalVolts(p.flows, t));
  const loud = loudest(p.flows);
  const has = loud !== undefined && sounds(p.flows);
  return {
    levelDbu: has ? { soft: level(0), normal: level(1), hard: level(2) } : null,
    peakDbu: presentPeak(p.flows),
    noiseDbu: finite(dbuOfVolts(Math.sqrt(p.noise.power))),
    idleNoiseDbu: finite(dbuOfVolts(Math.sqrt(p.idle.power))),
    noisiest: noisiestOf(p.noise) ?? null,
    idleNoisiest: noisiestOf(p.idle) ?? null,
    thdPercent: has
      ? {
          soft: 100 * presentDistortion(p.flows, 0),
          normal: 100 * presentDistortion(p.flows, 1),
          hard: 100 * presentDistortion(p.flows, 2),
        }
      : null,
    latencyMs: has ? heardAfterMs(p.flows, loud) : null,
    tiltDb: has ? loud.tiltDb : null,
    sources: [...new Set(p.flows.map((f) => f.source))],
  };
}

/** The passive section and the loudest driver at a net, with impedances and loss at 1 kHz. */
export function netImpedances(
  flowing: Flowing,
  net: number,
): Pick<PointFigures, 'sourceOhms' | 'loadOhms' | 'lossDb' | 'leadPf'> {
  const { circuit } = flowing;
  const section = entryAt(circuit.sections, entryAt(circuit.nets, net).section);
  const leadPf = 1e12 * section.nets.reduce((s, n) => s + entryAt(circuit.nets, n).leadFarads, 0);
  const k = mainDriver(section);
  if (k === undefined)
    return { sourceOhms: null, loadOhms: loadOf(circuit, section), lossDb: null, leadPf };
  const d = entryAt(section.drivers, k);
  return {
    sourceOhms: Math.hypot(d.ohms, 2 * Math.PI * 1000 * d.henries),
    loadOhms: loadOf(circuit, section),
    lossDb: decibels(flowing.solution(section, 1000).transfer(k, section.nets.indexOf(net))),
    leadPf,
  };
}

/**
 * The driver that shapes a section: a bare pickup where there is one, else the first (in most, the
 * only one).
 */
export function mainDriver(section: Section): number | undefined {
  if (!section.drivers.length) return undefined;
  const bare = section.drivers.findIndex((d) => d.source?.bare);
  return bare >= 0 ? bare : 0;
}

/**
 * Resistive load of a section: all that its nets carry to ground, in parallel. Capacitors and tone
 * controls aside; a coil at rest counts with its impedance at 1 kHz.
 */
function loadOf(circuit: Circuit, section: Section): number | null {
  let siemens = 0;
  for (const n of section.nets)
    for (const s of entryAt(circuit.nets, n).shunts)
      if (s.farads === 0 && s.ohms > 0 && s.ohms < Infinity)
        siemens += 1 / Math.hypot(s.ohms, 2 * Math.PI * 1000 * (s.henries ?? 0));
  return siemens > 0 ? 1 / siemens : null;
}

/** A device whose two sides arrive apart, and whether each arrives at the other's jack. */
export interface Widener {
  device: string;
  exchanged: boolean;
}

/**
 * Devices that make the two jacks of a pair differ by their sides. A device both of whose sides come
 * together on each jack (it was made mono on the way) is none of them.
 */
export function widenersOf(jacks: readonly (readonly Flow[])[]): Widener[] {
  const [left = [], right = []] = jacks;
  const devices = new Set([...left, ...right].flatMap((f) => (f.side && f.widenedBy) || []));
  return [...devices].flatMap((device) => {
    const sidesAt = (flows: readonly Flow[]) =>
      [...new Set(flows.map((f) => (f.widenedBy === device && f.side) || ''))].filter(Boolean);
    const [l, r] = [sidesAt(left), sidesAt(right)];
    if (!left.length || !right.length || l.sort().join() === r.sort().join()) return [];
    return [{ device, exchanged: !l.includes('left') && !r.includes('right') }];
  });
}

/**
 * Whether what arrives on one or two jacks is mono, stereo, or two unrelated signals. One jack, or
 * the same on both, is mono; sides that a device made differ are stereo; different sources or
 * different treatment without that are dual mono.
 */
export function widthOf(jacks: readonly (readonly Flow[])[]): Width {
  const heard = jacks.filter((f) => f.length > 0);
  if (!heard.length) return 'silent';
  if (heard.length === 1) return 'mono';
  const [left, right] = heard as [Flow[], Flow[]];
  const sources = (flows: readonly Flow[]) =>
    [...new Set(flows.map((f) => f.source))].sort().join();
  if (sources(left) !== sources(right)) return 'dual mono';
  if (widenersOf(jacks).length) return 'stereo';
  const same = (a: number, b: number, within: number) => Math.abs(a - b) <= within;
  const l = sure(loudest(left));
  const r = sure(loudest(right));
  const alike =
    same(dbuOfVolts(totalVolts(left, 1)), dbuOfVolts(totalVolts(right, 1)), 0.5) &&
    same(l.latencyMs, r.latencyMs, 0.05) &&
    same(l.tiltDb, r.tiltDb, 0.5) &&
    l.polarity === r.polarity;
  return alike ? 'mono' : 'dual mono';
}
