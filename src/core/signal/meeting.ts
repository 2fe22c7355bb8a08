import type { Hiss } from './hiss';
import { type Shape, waveSum } from './saturate';

/** Picking, relative to normal: soft −12 dB, normal 0, hard +6. */
export const TOUCHES = ['soft', 'normal', 'hard'] as const;
export type Touch = (typeof TOUCHES)[number];
export const TOUCH_DB = [-12, 0, 6] as const;
export type PerTouch<T> = [T, T, T];

/**
 * One way in which a source's signal reaches a point. Voltages are RMS; `peak` is that of a sine
 * with the same peak.
 */
export interface Flow {
  source: string;
  volts: PerTouch<number>;
  peak: number;
  latencyMs: number;
  polarity: 1 | -1;
  /** The device that last turned it into echoes, modulation or another pitch; dry where there is none. */
  wet?: string;
  side?: 'left' | 'right';
  /** The device that last made its sides differ. */
  widenedBy?: string;
  tiltDb: number;
  shapes: PerTouch<Shape>;
  /** Whether a loudspeaker's cabinet, real or modelled, has shaped it. */
  cabinet: boolean;
  /** The device that last bent it on purpose at normal picking: a drive, a fuzz, an amplifier. */
  bentBy?: string;
  /** The device that passed it on dry beside an effect of its own. */
  besideWet?: string;
}

/** All that is at a net. */
export interface Present {
  flows: Flow[];
  noise: Hiss;
  /** The same while nobody plays, with gates shut. */
  idle: Hiss;
  /** Sources that arrive here twice with opposite polarity at the same time. */
  cancelled: string[];
}

const MOST_FLOWS = 16;

/** A flow behind a gain, with what that does to its brightness. */
export const scaled = (f: Flow, gain: number, tiltDb: number): Flow => ({
  ...f,
  volts: f.volts.map((v) => v * gain) as PerTouch<number>,
  peak: f.peak * gain,
  tiltDb: f.tiltDb + tiltDb,
});

/** Whether two flows are of one source, at the same time to a hundredth of a ms, and treated alike. */
const agree = (a: Flow, b: Flow): boolean =>
  a.source === b.source &&
  !a.wet === !b.wet &&
  a.side === b.side &&
  (!a.side || a.widenedBy === b.widenedBy) &&
  Math.round(a.latencyMs * 100) === Math.round(b.latencyMs * 100);

/**
 * Joins flows that agree in all that matters. Dry flows of one source that arrive at the same time
 * add as voltages, with their polarity; wet or widened ones and different sources add as powers.
 */
export function merged(flows: Flow[]): { flows: Flow[]; cancelled: string[] } {
  if (flows.length < 2) return { flows, cancelled: [] };
  // They are few: each is held against one of each group, without naming it first.
  const groups: Flow[][] = [];
  for (const f of flows) {
    const group = groups.find((g) => agree(g[0]!, f));
    if (group) group.push(f);
    else groups.push([f]);
  }
  const cancelled: string[] = [];
  const joined = groups.map((group) => {
    if (group.length === 1) return group[0]!;
    const loudest = group.reduce((a, b) => (b.volts[1] > a.volts[1] ? b : a));
    const related = !loudest.wet && !loudest.side;
    if (!related) return powersJoined(group, loudest);
    if (group.some((f) => f.polarity !== loudest.polarity)) cancelled.push(loudest.source);
    return wavesJoined(group, loudest);
  });
  if (joined.length > MOST_FLOWS) {
    joined.sort((a, b) => b.volts[1] - a.volts[1]);
    const rest = joined.splice(MOST_FLOWS - 1);
    joined.push({
      ...rest[0]!,
      volts: [0, 1, 2].map((t) => Math.hypot(...rest.map((f) => f.volts[t]!))) as PerTouch<number>,
      peak: Math.hypot(...rest.map((f) => f.peak)),
    });
  }
  return { flows: joined, cancelled };
}

/** Copies that an effect has spread over time: their powers add. */
const powersJoined = (group: readonly Flow[], loudest: Flow): Flow => ({
  ...loudest,
  cabinet: group.every((f) => f.cabinet),
  volts: [0, 1, 2].map((t) => Math.hypot(...group.map((f) => f.volts[t]!))) as PerTouch<number>,
  peak: Math.hypot(...group.map((f) => f.peak)),
});

/**
 * Copies of one wave at the same time: they add instant by instant, so that what is left has the
 * level, the polarity and the saturation of the sum. A clean copy turned against a bent one leaves
 * the harmonics alone.
 */
function wavesJoined(group: readonly Flow[], loudest: Flow): Flow {
  const sum = (of: (f: Flow) => number) => group.reduce((s, f) => s + of(f) * f.polarity, 0);
  const straight = sum((f) => f.volts[1]);
  const isOneShape = group.every((f) => f.shapes.every((shape, t) => shape === loudest.shapes[t]));
  const polarity = straight < 0 ? -1 : 1;
  const joined: Flow = {
    ...loudest,
    polarity,
    cabinet: group.every((f) => f.cabinet),
    volts: [0, 1, 2].map((t) => Math.abs(sum((f) => f.volts[t]!))) as PerTouch<number>,
    peak: Math.abs(sum((f) => f.peak)),
  };
  if (isOneShape) return joined;
  const waves = [0, 1, 2].map((t) =>
    waveSum(group.map((f) => ({ shape: f.shapes[t]!, by: f.volts[t]! * f.polarity * polarity }))),
  );
  return {
    ...joined,
    volts: waves.map((w) => w.rms) as PerTouch<number>,
    shapes: waves.map((w) => w.shape) as PerTouch<Shape>,
  };
}

/** Total RMS volts of flows, which at this point add as powers. */
export const totalVolts = (flows: readonly Flow[], touch: number): number =>
  Math.sqrt(flows.reduce((s, f) => s + f.volts[touch]! ** 2, 0));
/**
 * Highest instant of flows, as RMS volts of a sine with that peak. Nothing keeps two sources from
 * meeting, nor a note from a late copy of itself: their peaks add. What has been through an echo or
 * a modulation adds to its source as a power, since it is spread over time; a simplification.
 */
export function totalPeak(flows: readonly Flow[]): number {
  const bySource = new Map<string, { dry: number; wet: number }>();
  for (const f of flows) {
    const of = bySource.get(f.source) ?? { dry: 0, wet: 0 };
    bySource.set(f.source, of);
    if (f.wet) of.wet = Math.hypot(of.wet, f.peak);
    else of.dry += f.peak;
  }
  return [...bySource.values()].reduce((sum, { dry, wet }) => sum + Math.hypot(dry, wet), 0);
}
