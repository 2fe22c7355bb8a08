import type { Arrive, Source, Stage } from '../kinds';

/** A point of a device that takes part in the circuit. */
export interface PointRef {
  device: string;
  point: string;
}

/** Points joined by metal, with everything that loads them to ground. */
export interface Net {
  index: number;
  points: PointRef[];
  leads: string[];
  /** Capacitance of the leads here, in farads. */
  leadFarads: number;
  shunts: { ohms: number; farads: number; henries?: number }[];
  /** Loads for a speaker output, in ohms, with the power they are rated for, in watts. */
  coils: { device: string; ohms: number; watts: number }[];
  section: number;
}

/** What feeds a net: a pickup, or the output of one or more stages of a device. */
export interface Driver {
  index: number;
  device: string;
  net: number;
  ohms: number;
  henries: number;
  source?: Source;
  stages: CircuitStage[];
}

/**
 * A stage in its place: which nets it reads and which driver carries it on. A hop through air is a
 * stage of its lead.
 */
export interface CircuitStage {
  device: string;
  stage: Stage;
  from: number;
  driver: number;
  keyNet?: number;
  lead?: string;
}

/** A passive network: nets joined by resistances, with what feeds them. */
export interface Section {
  index: number;
  nets: number[];
  resistors: { a: number; b: number; ohms: number }[];
  drivers: Driver[];
}

/** An input where signal must arrive. */
export interface Arrival {
  device: string;
  net: number;
  arrive: Arrive;
}

/** The rig as it is in one sound: nets, passive sections, and the stages between them. */
export interface Circuit {
  nets: Net[];
  sections: Section[];
  drivers: Driver[];
  stages: CircuitStage[];
  arrivals: Arrival[];
  netAt: (device: string, point: string) => Net | undefined;
}
