import type { MainsNeed, Outlet, PowerNeed } from './power-need';
import type { Pass, Point } from './pass';

export * from './pass';
export * from './power-need';

/** What a setting can hold: a knob's number, a choice or written text, a switch. */
export type SettingValue = number | string | boolean;

/**
 * A socket. Its first conductor is the point of the same name. `pair` names the other side of a
 * stereo pair; `many` says that any number of leads may meet here (sound in air).
 */
export interface Jack<I extends Point = Point> {
  id: I;
  label: string;
  /** `either`: metal that works both ways round (a passive splitter, a panel). */
  direction: 'in' | 'out' | 'either';
  signal: 'audio' | 'speaker' | 'air' | 'digital' | ControlSignal;
  connector:
    | 'TS'
    | 'TRS'
    | 'XLR'
    | 'speaker'
    | 'combo'
    | 'air'
    | 'digital'
    | 'inside'
    | 'DIN'
    | 'TRS-A'
    | 'TRS-B'
    | 'USB';
  /** `loose`: each side may be used on its own. */
  pair?: { with: Point; side: 'left' | 'right'; loose?: boolean };
  many?: boolean;
  /** Its sleeve does not touch the chassis, and is switched with the tip: grounds stay apart there. */
  apart?: boolean;
  /** The right side on the ring of a stereo TRS jack. */
  stereo?: Point;
  /** The return on the ring of an insert jack, whose tip is the send. */
  insert?: Point;
  /** Channels of a digital jack, in order; the first is the jack's own point. */
  channels?: readonly Point[];
  /** A point inside a host: blocks are linked to it, leads cannot reach it. */
  inside?: boolean;
  /** Of a point inside a host: what it leads from or to outside, and the jack of that. */
  faces?: { is: 'input' | 'return' | 'send' | 'output'; jack: Point };
  /**
   * What a MIDI jack does: takes messages, sends the device's own (and what came in, as its thru is
   * set), or repeats what came in.
   */
  midi?: 'in' | 'out' | 'thru';
  /** Whether a USB jack can lead the bus (host) or only follow one (device). */
  usb?: 'host' | 'device';
  /** A digital jack whose link carries MIDI messages beside audio. */
  carriesControl?: boolean;
  /** What a pedal or switch gives here. How it is made is in its settings: `wiper`, `action`, `contact`. */
  gives?: 'expression' | 'switch';
  /** Switches that share the jack: the second on the ring. One where it is left out. */
  contacts?: 2;
  /** What this jack reads of a pedal or switch. */
  reads?: Reads;
}

/** Signals that carry messages or the state of a control, not sound. */
export const CONTROL_SIGNALS = ['midi', 'usb', 'control'] as const;
export type ControlSignal = (typeof CONTROL_SIGNALS)[number];
export const isControlJack = (jack: Jack): boolean =>
  (CONTROL_SIGNALS as readonly string[]).includes(jack.signal);

/**
 * What a control jack expects: of a pedal, which conductor the wiper is on and its resistance in
 * ohms; of a switch, its action and contact.
 */
export interface Reads {
  what: 'expression' | 'switch';
  wiper?: 'tip' | 'ring';
  ohms?: readonly [number, number];
  action?: 'momentary' | 'latching' | 'any';
  contact?: 'open' | 'closed' | 'any';
  /** Contacts that it reads: the second on the ring. One where it is left out. */
  contacts?: 1 | 2;
}

/**
 * How a device shows a number of the wire: counted from 0 or 1, or as a bank and a slot of banks of
 * `size`.
 */
export interface Numbering {
  from: 0 | 1;
  size?: number;
  slots?: 'letters' | 'numbers';
  banksFrom?: 0 | 1;
}

/**
 * How messages go on: not at all, copied by hardware, repeated by software after a while, or
 * repeated and joined with the device's own.
 */
export const THRUS = ['none', 'hardware', 'software', 'merged'] as const;
export type Thru = (typeof THRUS)[number];
/** Sockets that MIDI comes on: five-pin DIN, or a small TRS socket of one of its two wirings. */
export const SOCKETS = ['DIN', 'TRS-A', 'TRS-B'] as const;
export type Socket = (typeof SOCKETS)[number];
/** Which bank-select messages a device takes: control 0 (MSB), control 32 (LSB), both, or none. */
export const BANK_SELECTS = ['none', 'msb', 'lsb', 'both'] as const;
export type BankSelect = (typeof BANK_SELECTS)[number];

/**
 * A control change that a device takes: what it moves (`engaged` or a setting), and whether the
 * value counts or each message flips it.
 */
export interface ControlReception {
  setting: string;
  cc: number;
  ways: readonly ('absolute' | 'toggle')[];
}

/** What a device does with MIDI. Times are figures: `programMs`, `controlMs`, `thruMs`, `gapMs`. */
export interface MidiTable {
  programs?: { count: number; bank: BankSelect; shows: Numbering };
  controls?: ControlReception[];
  /** What it does with clock: its times can follow it, it is made to follow it, or it leads. */
  clock?: 'can' | 'wants' | 'leads';
  /** What it can send of its own. */
  sends?: ('program' | 'control' | 'clock' | 'transport')[];
  /** A person calls sounds on it, and it sends what that takes. */
  commands?: boolean;
  /** Sends a list of its own when one of its programs is called. */
  recalls?: boolean;
  /** Tells back what was changed on it. */
  reports?: boolean;
  /** Has lamps or labels that show what is on. */
  lamps?: boolean;
  /** What it can do with what comes in, the usual first. */
  thrus: Thru[];
}

/**
 * A time that fits a tempo: the knob's ends and its step are figures. `repeats` is the knob that
 * sets how much each repeat keeps.
 */
export interface TempoTable<K extends string = string, F extends string = string> {
  setting: K;
  is: 'delay' | 'rate';
  low: F;
  high: F;
  step: F;
  repeats?: K;
}

/** The conductors of a jack that carry signal: tip, then ring, or the channels of a digital link. */
export const conductorsOf = (jack: Jack): readonly Point[] =>
  jack.channels ?? [jack.id, ...(jack.stereo ? [jack.stereo] : jack.insert ? [jack.insert] : [])];

/**
 * A detour out of a device and back: which jacks send and return (two each where it is stereo), and
 * what a plug in one of them does.
 */
export interface Loop {
  id: string;
  label: string;
  send: Point[];
  return: Point[];
  /**
   * The way goes on inside until something is plugged into this side; `never`: the way inside does
   * not depend on plugs.
   */
  opensAt: 'send' | 'return' | 'never';
  /** It takes a speaker line out and back. */
  ofSpeakerLine?: boolean;
}

/** What a host has room for: blocks by count, processing in percent, and paths. */
export interface Budget {
  slots: number;
  percent: number;
  paths: number;
}

/** An electrical figure of the kind: its typical value, the range that is believable, and why. */
export interface Figure<I extends string = string> {
  id: I;
  role?: FigureRole;
  label: string;
  unit: 'Ω' | 'H' | 'pF' | 'nF' | 'dBu' | 'dB' | 'ms' | 'Hz' | 'W' | ':1' | '';
  typical: number;
  min: number;
  max: number;
  reason: string;
}

/** What a setting is to an analysis; analyses ask for this and never for an id. */
export type SettingRole =
  | 'loop order'
  | 'empty loop'
  | 'mix of dry and wet'
  | 'pan'
  | 'polarity'
  | 'pad'
  | 'input level'
  | 'input load'
  | 'microphone or line'
  | 'amplifiers not selected'
  | 'wiper'
  | 'action'
  | 'contact'
  | 'gate threshold';

/** What a figure is to an analysis. */
export type FigureRole = 'highest gain' | 'resistance of a pedal' | 'speaker tap';

export interface Knob<I extends string = string> {
  type: 'knob';
  id: I;
  role?: SettingRole;
  /**
   * What it changes that no figure of the circuit shows: the device's effect itself (how late its
   * echoes are, how fast it moves), or how loud the device is by itself (a loop that it plays, the
   * loudspeaker in it).
   */
  heardAs?: 'effect' | 'own level';
  label: string;
  initial: number;
  min: number;
  max: number;
  unit?: string;
  foot?: boolean;
  reads?: (value: number, figure: (id: string) => number) => string;
}
export interface Choice<I extends string = string> {
  type: 'choice';
  id: I;
  role?: SettingRole;
  label: string;
  initial: string;
  options: readonly { value: string; label: string }[];
}
export interface Toggle<I extends string = string> {
  type: 'switch';
  id: I;
  role?: SettingRole;
  label: string;
  initial: boolean;
}
export interface Written<I extends string = string> {
  type: 'text';
  id: I;
  role?: SettingRole;
  label: string;
  initial: string;
  problem: (value: string) => string | undefined;
}
/** What a person can set. Knobs run 0 to 10 unless stated; `reads` is the figure a value stands for. */
export type Parameter<I extends string = string> = Knob<I> | Choice<I> | Toggle<I> | Written<I>;

/**
 * Whether a jack holds a plug. Written as a method so that a question about a kind's own jacks can
 * be handed to what asks about any.
 */
export type Plugged<J extends Point = Point> = { ask(jack: J): boolean }['ask'];

/**
 * What a device is for, in order of a usual walk. Order rules and pictures read this; electrical
 * analyses do not.
 */
export const JOBS = [
  'instrument',
  'wireless',
  'tuner',
  'buffer',
  'fuzz',
  'pitch',
  'filter',
  'compressor',
  'drive',
  'boost',
  'gate',
  'eq',
  'volume',
  'modulation',
  'delay',
  'reverb',
  'looper',
  'splitter',
  'switcher',
  'modeler',
  'amp',
  'simulator',
  'cabinet',
  'microphone',
  'direct',
  'destination',
  'controller',
  'interface',
  'supply',
] as const;
export type Job = (typeof JOBS)[number];

/** A device's figures and settings, resolved for one sound. */
export interface DeviceState<
  F extends string = string,
  K extends string = string,
  C extends string = string,
  S extends string = string,
  T extends string = string,
> {
  engaged: boolean;
  /** A figure by id: the override where there is one, else the typical value. */
  figure(id: F): number;
  /** A knob's value. */
  knob(id: K): number;
  /** A choice's value. */
  choice(id: C): string;
  /** A switch's position. */
  on(id: S): boolean;
  /** A written setting. */
  text(id: T): string;
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
  /** Lives on phantom power (48 V), which the microphone input behind it gives. */
  phantom?: boolean;
  /** The input wants to see the pickup itself. */
  wantsBarePickup?: boolean;
  /** Jacks that together are one destination, and who hears it. */
  destination?: { jacks: Point[]; hears: Hears };
  /** Not played on strings: it goes past pedals and amplifiers; a band’s mix back to no desk. */
  feed?: 'voice' | 'band' | 'tracks';
  /** Tracks the string's pitch, so wants the clean signal. */
  tracksPitch?: boolean;
  /** Effects loops, switched loops, sends and returns. */
  loops?: Loop[];
  /**
   * Blocks can live inside: what it has room for, and how its inner points are linked while there
   * are none.
   */
  hosts?: Budget & { links: [Point, Point][] };
  /** It may live inside a host: what it costs there (typical). */
  block?: { slots: number; percent: number };
  /** Where it stands, where that does not follow from its job. */
  stands?: 'player' | 'floor' | 'rack' | 'amps' | 'house';
  /** Changes its whole state with one program. */
  programs?: boolean;
  /** What it does with MIDI. */
  midi?: MidiTable;
  /** What its programs are called as it comes; a device may call them otherwise. */
  programNames?: readonly { bank: number; number: number; name: string }[];
  /** Its time can be set to a tempo. */
  tempo?: TempoTable;
  /** Further times of the same box: another delay in it, as for the other side. */
  moreTempos?: readonly TempoTable[];
  /** Lines and letters of its display. */
  display?: { lines: number; width: number };
  /** Foot switches a person can reach on it. */
  switches?: number;
  /** The jack whose chassis is bonded to protective earth by the mains lead. */
  earth?: Point;
  /** Outlets that feed other devices. */
  outlets?: Outlet[];
  power?: PowerNeed;
  /** What all outlets of a supply give together at most, in milliamps. */
  totalMilliamps?: number;
  /** Footprint in millimetres: width, depth, height; and grams. */
  size?: { width: number; depth: number; height: number; grams: number };
  /** Units that it takes in a 19-inch rack; others stand on a shelf. */
  rackUnits?: number;
  /** Lets its heat out upwards, so that the unit above stays free. */
  ventsUp?: boolean;
  mains?: MainsNeed;
  /** Sockets that feed others from the mains, and what they give together, in A. */
  mainsOutlets?: { count: number; amps: number };
  /** Where its jacks are, where that does not follow from their directions: the edge, and mm along it. */
  jackSpots?: Record<Point, { edge: 'left' | 'right' | 'front' | 'rear'; mm: number }>;
  passes: (state: DeviceState, plugged: Plugged) => Pass[];
}

/** A setting's value where none is stored. */
export const initialOf = (p: Parameter): SettingValue => p.initial;
