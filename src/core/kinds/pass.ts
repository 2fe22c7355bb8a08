/** A jack's id within its device, or the name of an inner point (never a jack) that passes may join. */
export type Point = string;

/**
 * Two points joined by metal: the same electrical net. `insulated`: their sockets do not touch the
 * chassis, so no ground goes over to other sockets.
 */
export interface Wire {
  is: 'wire';
  a: Point;
  b: Point;
  insulated?: boolean;
}

/**
 * A way that is there but not made in this state (the unselected side of a switch): nothing passes,
 * and the walk still shows it.
 */
export interface Open {
  is: 'open';
  a: Point;
  b: Point;
}

/** A resistance in ohms between two points (part of a pot's track). */
export interface Resistor {
  is: 'resistor';
  a: Point;
  b: Point;
  ohms: number;
}

/** From a point to ground: a resistance, a capacitance, or both in series. */
export interface Shunt {
  is: 'shunt';
  at: Point;
  ohms?: number;
  farads?: number;
  /** A winding: behind the resistance, as the pickup of an instrument that rests. */
  henries?: number;
  coil?: Coil;
}

/** Marks a load that a speaker output drives, with the power it is rated for, in watts. */
export interface Coil {
  watts: number;
}

/** Loads one behind the other on one speaker line: their impedances add. */
export interface Series {
  is: 'series';
  at: Point;
  legs: Point[];
}

/**
 * A filter, by its usual form: `hertz` is the corner, the middle, or where a shelf has half its gain;
 * `q` is the quality of a second order section.
 */
export type Filter =
  | { is: 'low pass 1' | 'high pass 1'; hertz: number }
  | { is: 'low pass' | 'high pass' | 'band pass'; hertz: number; q: number }
  | { is: 'peak'; hertz: number; q: number; db: number }
  | { is: 'low shelf' | 'high shelf'; hertz: number; db: number };

/**
 * The lowest usual note of an instrument and where its string is plucked and heard, as parts of its
 * length from the bridge. Heard at 0 is the force on the bridge, as a piezo under the saddle feels it.
 */
export interface Played {
  hertz: number;
  pluckedAt: number;
  heardAt: number;
}

/**
 * Where signal begins. `emf` levels are of the unloaded source, in dBu; `touch` says whether
 * picking harder raises them.
 */
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
  /** The note that is played; a usual guitar's low E where it is left out. */
  played?: Played;
}

/**
 * An active transfer from one point to another: it reads `from`, loads it with its input impedance,
 * and drives `to` from its output impedance. Small-signal gain is `gainDb + outputDb`; the ceiling
 * sits between the two.
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
  /**
   * Highest level the stage can make before `outputDb`, in dBu of a sine with that peak. `meant`:
   * overdriving it is what it is for.
   */
  ceiling: { dbu: number; shape: 'soft' | 'hard'; meant: boolean };
  outputDb: number;
  noiseDbu: number;
  latencyMs: number;
  inverts: boolean;
  /** How much louder 5 kHz leaves than 1 kHz, in dB. */
  tiltDb: number;
  /** What it does to frequencies, before its ceiling and behind it; its gain stays that at 1 kHz. */
  filters?: { before?: Filter[]; after?: Filter[] };
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
  /**
   * Drives a speaker: rated power in watts, the tap in ohms, and the lowest load a solid-state
   * stage bears.
   */
  speaker?: { watts: number; ohms: number; tube: boolean };
  /** Passes on, less its output trim, the power that its own load takes, as an attenuator does. */
  passesPower?: boolean;
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
