import { fixed } from '../units';
import { jack, parameter } from './define';
import type {
  DeviceState,
  Figure,
  Filter,
  MainsNeed,
  Pass,
  Point,
  Shunt,
  Stage,
  Wire,
  Plugged,
  Choice,
  Knob,
  Parameter,
  SettingRole,
} from './kind';

/** A figure with its believable range and the reason for its typical value. */
export const figure = <const I extends string>(
  id: I,
  label: string,
  unit: Figure['unit'],
  typical: number,
  range: [number, number],
  reason: string,
): Figure<I> => ({ id, label, unit, typical, min: range[0], max: range[1], reason });

/** The gain with its knob full: by it, gain stages are told low from high. */
export const highestGain = (
  label: string,
  typical: number,
  range: [number, number],
  reason: string,
): Figure<'gainHighDb'> => ({
  ...figure('gainHighDb', label, 'dB', typical, range, reason),
  role: 'highest gain',
});

export const inputOhms = (typical: number, reason: string) =>
  figure('inputOhms', 'Input impedance', 'Ω', typical, [1, 1e8], reason);

export const outputOhms = (typical: number, reason: string) =>
  figure('outputOhms', 'Output impedance', 'Ω', typical, [0, 1e6], reason);

export const noise = (typical: number, reason: string) =>
  figure('noiseDbu', 'Equivalent input noise', 'dBu', typical, [-140, -40], reason);

export const latency = (typical: number, reason: string) =>
  figure('latencyMs', 'Latency', 'ms', typical, [0, 200], reason);

export const ceiling = (typical: number, reason: string) =>
  figure('ceilingDbu', 'Clips at', 'dBu', typical, [-40, 60], reason);

/** Input, output, noise and ceiling of an ordinary pedal that runs on 9 V. */
export const pedalFigures = (inOhms: number, noiseDbu: number, why: string) => [
  inputOhms(inOhms, why),
  outputOhms(1000, 'an op-amp or transistor output behind a series resistor'),
  noise(noiseDbu, why),
  ceiling(10, 'a 9 V supply leaves swings of about ±3.5 V'),
];

export const inJack = jack({
  id: 'in',
  label: 'in',
  direction: 'in',
  signal: 'audio',
  connector: 'TS',
});

export const outJack = jack({
  id: 'out',
  label: 'out',
  direction: 'out',
  signal: 'audio',
  connector: 'TS',
});

export const throughJacks = [inJack, outJack];

export const through = { in: 'in', out: 'out' } as const;

export const stereoOuts = [
  jack({ ...outJack, label: 'out left (mono)', pair: { with: 'outR', side: 'left' } }),
  jack({
    id: 'outR',
    label: 'out right',
    direction: 'out',
    signal: 'audio',
    connector: 'TS',
    pair: { with: 'out', side: 'right' },
  }),
];

export const stereoIns = [
  jack({ ...inJack, label: 'in left (mono)', pair: { with: 'inR', side: 'left' } }),
  jack({
    id: 'inR',
    label: 'in right',
    direction: 'in',
    signal: 'audio',
    connector: 'TS',
    pair: { with: 'in', side: 'right' },
  }),
];

export const stereoJacks = [...stereoIns, ...stereoOuts];

type Reads = (value: number, figure: (id: string) => number) => string;

/** A knob that runs 0 to 10, from 7 o'clock to 5 o'clock. */
export const knob = <const I extends string>(
  id: I,
  label: string,
  initial: number,
  reads?: Reads,
) =>
  parameter({
    type: 'knob',
    id,
    label,
    initial,
    min: 0,
    max: 10,
    reads,
  });

/** A knob that changes an effect itself and nothing that the circuit shows: depth, decay, repeats. */
export const effectKnob = <const I extends string>(id: I, label: string, initial: number) => ({
  ...knob(id, label, initial),
  heardAs: 'effect' as const,
});

/** A knob for how loud a device is by itself. */
export const ownLevelKnob = (label: string, initial: number) => ({
  ...knob('level', label, initial),
  heardAs: 'own level' as const,
});

/** A pedal under a foot, 0 (heel) to 10 (toe). */
export const footPedal = (initial: number) =>
  parameter({
    type: 'knob',
    id: 'pedal',
    label: 'Pedal, heel to toe',
    initial,
    min: 0,
    max: 10,
    foot: true,
  });

/** A knob marked in a unit of its own. */
export const scaled = <const I extends string>(
  id: I,
  label: string,
  initial: number,
  range: [number, number],
  unit: string,
): Knob<I> => ({ type: 'knob', id, label, initial, min: range[0], max: range[1], unit });

/** One of several options, as pairs of value and label; the first is the usual one. */
export const choice = <const I extends string>(
  id: I,
  label: string,
  first: [value: string, label: string],
  ...others: [value: string, label: string][]
): Choice<I> => ({
  type: 'choice',
  id,
  label,
  initial: first[0],
  options: [first, ...others].map(([value, text]) => ({ value, label: text })),
});

/** A setting, with what it is to an analysis. */
export const as = <P extends Parameter>(role: SettingRole, setting: P): P => ({ ...setting, role });

/** The knob that mixes dry and wet, 0 (dry) to 10 (wet only). */
export const mixKnob = (initial: number) => as('mix of dry and wet', knob('mix', 'Mix', initial));

/** Where a 0 to 10 knob lies between two ends, linearly. */
export const between = (low: number, high: number, value: number): number =>
  low + ((high - low) * value) / 10;

export const wire = (a: Point, b: Point): Wire => ({ is: 'wire', a, b });

export const load = (at: Point, ohms: number): Shunt => ({ is: 'shunt', at, ohms });

/** A stage with a pedal's figures; state what differs. */
export const stage = (
  s: DeviceState,
  part: Partial<Stage> & { from?: Point; to?: Point } = {},
): Stage => ({
  is: 'stage',
  id: 'main',
  from: 'in',
  to: 'out',
  inOhms: part.inOhms ?? s.figure('inputOhms'),
  outOhms: part.outOhms ?? s.figure('outputOhms'),
  gainDb: 0,
  ceiling: part.ceiling ?? { dbu: s.figure('ceilingDbu'), shape: 'hard', meant: false },
  outputDb: 0,
  noiseDbu: part.noiseDbu ?? s.figure('noiseDbu'),
  latencyMs: 0,
  inverts: false,
  tiltDb: 0,
  groundThrough: true,
  ...part,
});

/** Wires when bypassed: the pedal is only a piece of lead. */
export const trueBypass = (s: DeviceState, engaged: Pass[]): Pass[] =>
  s.engaged ? engaged : [wire('in', 'out')];

/** A buffer when bypassed: input and output stay active, nothing is changed. */
export const bufferedBypass = (
  s: DeviceState,
  engaged: Pass[],
  rest: Partial<Stage> = {},
): Pass[] =>
  s.engaged ? engaged : [stage(s, { noiseDbu: Math.min(s.figure('noiseDbu'), -105), ...rest })];

/**
 * Which sides of a stereo device are in use. A lone left input feeds both outputs; a lone left
 * output carries the mono sum.
 */
export function sides(
  plugged: Plugged,
  each: (from: Point, to: Point, side: 'left' | 'right' | undefined, gainDb: number) => Pass[],
): Pass[] {
  const rightIn = plugged('inR');
  if (plugged('outR'))
    return [...each('in', 'out', 'left', 0), ...each(rightIn ? 'inR' : 'in', 'outR', 'right', 0)];
  return rightIn
    ? [...each('in', 'out', undefined, -6.02), ...each('inR', 'out', undefined, -6.02)]
    : each('in', 'out', undefined, 0);
}

/** A resonance that a pedal or knob of 0 to 10 moves, by equal steps of pitch, from one frequency to another. */
export const sweptFilter = (low: number, high: number, at: number, q: number): Filter => ({
  is: 'band pass',
  hertz: low * (high / low) ** (at / 10),
  q,
});

/** A small signal transformer at the low end: half of its power is lost at 10 Hz (typical), nothing that is played. */
export const transformer: Stage['filters'] = { after: [{ is: 'high pass 1', hertz: 10 }] };

/** Lows that a drive keeps from its clipping, below a frequency: the higher, the more of a mid hump. */
export const lowCut = (hertz: number): Stage['filters'] => ({
  before: [{ is: 'high pass 1', hertz }],
});

/** True bypass of a stereo device. */
export const stereoWires = (plugged: Plugged): Pass[] =>
  sides(plugged, (from, to) => [wire(from, to)]);

/**
 * Dry and wet gains of a mix knob, 0 (dry) to 10 (wet only): each side of the middle one part stays
 * whole and the other fades in.
 */
export const mixed = (mix: number): { dryDb: number; wetDb: number } => ({
  dryDb: mix <= 5 ? 0 : 20 * Math.log10(Math.max((10 - mix) / 5, 1e-12)) || 0,
  wetDb: mix >= 5 ? 0 : mix <= 0 ? -Infinity : 20 * Math.log10(mix / 5),
});

/** A tone knob's tilt at 5 kHz against 1 kHz: ±`range` dB about the middle. */
export const tilt = (tone: number, range: number): number => between(-range, range, tone);

/**
 * A passive volume or tone track (0 to 10) whose electrical share grows with the square of the
 * rotation, as audio taper roughly does.
 */
export const audioTaper = (value: number): number => (value / 10) ** 2;

/** How a volume pedal's track runs: its share at half travel; 0.5 is linear, audio taper less. */
export const taperFigure = (typical: number, reason: string) =>
  figure('halfShare', 'Share of the track at half travel', '', typical, [0.05, 0.6], reason);

/**
 * Share of a track at a place of its travel (0 to 10), of which half travel gives `half`: a power of
 * the travel, which a true audio taper of two straight pieces is near to.
 */
export const taperedShare = (travel: number, half: number): number =>
  Math.min(1, Math.max(0, travel / 10)) ** (Math.log(half) / Math.log(0.5));

/** A knob that reads as decibels between two figures. */
export const readsDb =
  (low: string, high: string): Reads =>
  (v, f) =>
    `${fixed(between(f(low), f(high), v))} dB`;

export const small = { width: 70, depth: 120, height: 55, grams: 350 };

export const medium = { width: 120, depth: 120, height: 60, grams: 600 };

/**
 * An input switch for hot signals: the low position takes 12 dB away in front and gives it back
 * behind, so noise rises by as much.
 */
export const inputPad = as(
  'pad',
  choice(
    'pad',
    'Input',
    ['normal', 'normal'],
    ['low', 'low (12 dB more headroom, 12 dB more noise)'],
  ),
);

const PAD_DB = 12;

export const padded = (
  s: DeviceState,
  outputDb: number,
): Pick<Stage, 'gainDb' | 'outputDb' | 'noiseDbu'> =>
  s.choice('pad') === 'low'
    ? { gainDb: -PAD_DB, outputDb: outputDb + PAD_DB, noiseDbu: s.figure('noiseDbu') + PAD_DB }
    : { gainDb: 0, outputDb, noiseDbu: s.figure('noiseDbu') };

/** A switched-mode supply: any mains in the world. */
export const worldMains: Pick<MainsNeed, 'volts' | 'hz'> = { volts: [[100, 240]], hz: [50, 60] };

/** A mains transformer without a voltage switch: one region only. */
export const transformerMains: Pick<MainsNeed, 'volts' | 'hz'> = {
  volts: [[220, 240]],
  hz: [50, 60],
};
