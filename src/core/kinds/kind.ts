import type { SettingValue } from '../rig/schema';

/** A jack's id within its device, or the name of an inner point (never a jack) that passes may join. */
export type Point = string;

/**
 * A socket. Its first conductor is the point of the same name. `pair` names the other side of a stereo pair; `many` says that
 * any number of leads may meet here (sound in air).
 */
export interface Jack {
  id: Point;
  label: string;
  /** `either`: metal that works both ways round (a passive splitter, a panel). */
  direction: 'in' | 'out' | 'either';
  signal: 'audio' | 'speaker' | 'air' | 'digital';
  connector: 'TS' | 'TRS' | 'XLR' | 'speaker' | 'combo' | 'air' | 'digital' | 'inside';
  /** `loose`: each side may be used on its own. */
  pair?: { with: Point; side: 'left' | 'right'; loose?: boolean };
  many?: boolean;
  /** The right side on the ring of a stereo TRS jack. */
  stereo?: Point;
  /** The return on the ring of an insert jack, whose tip is the send. */
  insert?: Point;
  /** Channels of a digital jack, in order; the first is the jack's own point. */
  channels?: Point[];
  /** A point inside a host: blocks are linked to it, leads cannot reach it. */
  inside?: boolean;
}

/** The conductors of a jack that carry signal: tip, then ring, or the channels of a digital link. */
export const conductorsOf = (jack: Jack): Point[] => jack.channels ?? [jack.id, ...(jack.stereo ? [jack.stereo] : jack.insert ? [jack.insert] : [])];

/** A detour out of a device and back: which jacks send and return (two each where it is stereo), and what a plug in one of them does. */
export interface Loop {
  id: string;
  label: string;
  send: Point[];
  return: Point[];
  /** The way goes on inside until something is plugged into this side; `never`: the way inside does not depend on plugs. */
  opensAt: 'send' | 'return' | 'never';
}

/** What a host has room for: blocks by count, processing in percent, and paths. */
export interface Budget { slots: number; percent: number; paths: number }

/** One outlet of a supply. Outlets that are not isolated share their return with the others of the supply. */
export interface Outlet { id: string; label: string; volts: number; milliamps: number; isolated: boolean }

/** An electrical figure of the kind: its typical value, the range that is believable, and why. */
export interface Figure {
  id: string;
  label: string;
  unit: 'Ω' | 'H' | 'pF' | 'nF' | 'dBu' | 'dB' | 'ms' | 'W' | ':1' | '';
  typical: number;
  min: number;
  max: number;
  reason: string;
}

/** Something a person can set. Knobs run 0 to 10 unless stated; `reads` turns a knob's value into the figure it stands for. */
export type Parameter =
  | { type: 'knob'; id: string; label: string; initial: number; min: number; max: number; unit?: string; reads?: (value: number, figure: (id: string) => number) => string }
  | { type: 'choice'; id: string; label: string; initial: string; options: { value: string; label: string }[] }
  | { type: 'switch'; id: string; label: string; initial: boolean }
  | { type: 'text'; id: string; label: string; initial: string; problem: (value: string) => string | undefined };

/** What a device is for, in order of a usual walk. Order rules and pictures read this; electrical analyses do not. */
export const JOBS = [
  'instrument', 'wireless', 'tuner', 'buffer', 'fuzz', 'pitch', 'filter', 'compressor', 'drive', 'boost', 'gate',
  'eq', 'volume', 'modulation', 'delay', 'reverb', 'looper', 'splitter', 'switcher', 'modeler', 'amp', 'simulator', 'cabinet', 'microphone', 'direct', 'destination', 'supply',
] as const;
export type Job = (typeof JOBS)[number];

/** Two points joined by metal: the same electrical net. */
export interface Wire { is: 'wire'; a: Point; b: Point }

/** A way that is there but not made in this state (the unselected side of a switch): nothing passes, and the walk still shows it. */
export interface Open { is: 'open'; a: Point; b: Point }

/** A resistance in ohms between two points (part of a pot's track). */
export interface Resistor { is: 'resistor'; a: Point; b: Point; ohms: number }

/** From a point to ground: a resistance, a capacitance, or both in series. */
export interface Shunt { is: 'shunt'; at: Point; ohms?: number; farads?: number; coil?: Coil }

/** Marks a load that a speaker output drives, with the power it is rated for, in watts. */
export interface Coil { watts: number }

/** Loads one behind the other on one speaker line: their impedances add. */
export interface Series { is: 'series'; at: Point; legs: Point[] }

/** Where signal begins. `emf` levels are of the unloaded source, in dBu; `touch` says whether picking harder raises them. */
export interface Source {
  is: 'source';
  at: Point;
  /** What tells it from the other signals that the device sends at the same time. */
  name?: string;
  ohms: number;
  henries: number;
  nominalDbu: number;
  peakDbu: number;
  noiseDbu: number;
  touch: boolean;
  bare: boolean;
}

/**
 * An active transfer from one point to another: it reads `from`, loads it with its input impedance, and drives `to` from its
 * output impedance. Small-signal gain is `gainDb + outputDb`; the ceiling sits between the two.
 */
export interface Stage {
  is: 'stage';
  id: string;
  from: Point;
  to: Point;
  inOhms: number;
  inFarads?: number;
  outOhms: number;
  /** Inductance behind the output impedance, in henries: a stage that stands in for a pickup. */
  outHenries?: number;
  gainDb: number;
  /** Highest level the stage can make before `outputDb`, in dBu of a sine with that peak. `meant`: overdriving it is what it is for. */
  ceiling: { dbu: number; shape: 'soft' | 'hard'; meant: boolean };
  outputDb: number;
  noiseDbu: number;
  latencyMs: number;
  inverts: boolean;
  /** How much louder 5 kHz leaves than 1 kHz, in dB. */
  tiltDb: number;
  /** Level reduction above a threshold (dBu at the input), by a ratio. */
  compress?: { thresholdDbu: number; ratio: number };
  /** Shuts what comes from ahead by `rangeDb` while the level at `key` is under the threshold. */
  gate?: { key: Point; thresholdDbu: number; rangeDb: number };
  /** Gains of the unchanged and the changed part, in dB, where the two leave together; −Infinity for none. */
  wet?: { dryDb: number; wetDb: number };
  /** Goes on sounding after its input has stopped: echoes, reverberation, a loop. */
  rings?: boolean;
  /** Which side of a widened signal leaves here. */
  side?: 'left' | 'right';
  /** Whether the ground runs through (a transformer, an optical or a radio hop break it). */
  groundThrough: boolean;
  /** Nothing passes, though the way is there (a mute). */
  muted?: boolean;
  /** Drives a speaker: rated power in watts, the tap in ohms, and the lowest load a solid-state stage bears. */
  speaker?: { watts: number; ohms: number; tube: boolean };
  /** Filters as a loudspeaker in its cabinet does. */
  cabinet?: boolean;
}

/** Where signal must arrive. `wantsDbu` is the range of nominal level that the input is made for. */
export interface Arrive {
  is: 'arrive';
  at: Point;
  ohms: number;
  farads?: number;
  maxDbu: number;
  noiseDbu: number;
  wantsDbu?: [number, number];
  coil?: Coil;
  /** Plays all frequencies alike, so a distorted signal needs a cabinet, real or modelled, on the way. */
  fullRange?: boolean;
}

/** One trip through a device, or a part that shapes it. */
export type Pass = Wire | Open | Resistor | Shunt | Series | Source | Stage | Arrive;

/** A device's figures and settings, resolved for one sound. */
export interface DeviceState {
  engaged: boolean;
  /** A figure by id: the override where there is one, else the typical value. */
  figure: (id: string) => number;
  /** A knob's value. */
  knob: (id: string) => number;
  /** A choice's value. */
  choice: (id: string) => string;
  /** A switch's position. */
  on: (id: string) => boolean;
  /** A written setting. */
  text: (id: string) => string;
}

/** Who hears a destination. */
export type Hears = 'stage' | 'house' | 'in-ears' | 'recorder' | 'tuner';

/** A type of device: data, and one function that says what it does in one state. */
export interface Kind {
  id: string;
  name: string;
  /** Group in the list a person picks from. */
  family: string;
  job: Job;
  about: string;
  jacks: Jack[];
  figures: Figure[];
  parameters: Parameter[];
  /** The jacks of the main way through, used when it is put into a lead or taken out of one. */
  through?: { in: Point; out: Point };
  /** "engaged" means something other than on and bypassed: what to call the two. */
  stateWords?: { on: string; off: string };
  /** Engaged unless a sound or the device says otherwise. */
  startsEngaged?: boolean;
  /** Always does its job; there is nothing to switch. */
  alwaysOn?: boolean;
  /** The input wants to see the pickup itself. */
  wantsBarePickup?: boolean;
  /** Jacks that together are one destination, and who hears it. */
  destination?: { jacks: Point[]; hears: Hears };
  /** Tracks the string's pitch, so wants the clean signal. */
  tracksPitch?: boolean;
  /** Effects loops, switched loops, sends and returns. */
  loops?: Loop[];
  /** Blocks can live inside: what it has room for, and how its inner points are linked while there are none. */
  hosts?: Budget & { links: [Point, Point][] };
  /** It may live inside a host: what it costs there (typical). */
  block?: { slots: number; percent: number };
  /** Where it stands, where that does not follow from its job. */
  stands?: 'player' | 'floor' | 'rack' | 'amps' | 'house';
  /** Changes its whole state with one program. */
  programs?: boolean;
  /** The jack whose chassis is bonded to protective earth by the mains lead. */
  earth?: Point;
  /** Outlets that feed other devices. */
  outlets?: Outlet[];
  power?: { volts: number; milliamps: number };
  /** Footprint in millimetres: width, depth, height; and grams. */
  size?: { width: number; depth: number; height: number; grams: number };
  passes: (state: DeviceState, plugged: (jack: Point) => boolean) => Pass[];
}

/** A setting's value where none is stored. */
export const initialOf = (p: Parameter): SettingValue => p.initial;
