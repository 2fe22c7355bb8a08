/** Plugs of low-voltage power leads; barrels by the bore, in mm. */
export const POWER_PLUGS = [
  'barrel 2.1',
  'barrel 2.5',
  'barrel 1.3',
  'mini-plug 3.5',
  'DIN',
  'USB',
  'screw',
] as const;
export type PowerPlug = (typeof POWER_PLUGS)[number];

/** Plugs of mains leads, by their letters. */
export const MAINS_PLUGS = [
  ...(['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'] as const),
  ...(['I', 'J', 'K', 'L', 'M', 'N', 'O'] as const),
] as const;
export type MainsPlug = (typeof MAINS_PLUGS)[number];

/**
 * One outlet of a supply. Outlets that are not isolated share their return with the others of the
 * supply. Its jack is a 2.1 mm barrel unless `plug` says otherwise.
 */
export interface Outlet {
  id: string;
  label: string;
  volts: number;
  /** Further voltages that it can be set to. */ also?: number[];
  milliamps: number;
  isolated: boolean;
  ac?: boolean;
  centre?: Centre;
  plug?: PowerPlug;
}

/** Which pole is in the middle of a power plug. */
export type Centre = 'negative' | 'positive';

/**
 * What a device takes. `maxVolts` is the most it bears, `noisy` a digital circuit that chops its
 * current, `sensitive` one whose gain lifts what comes in by its supply, `positiveGround` one whose
 * chassis is its plus. Its jack is a 2.1 mm barrel unless `plug` says otherwise.
 */
export interface PowerNeed {
  volts: number;
  maxVolts?: number;
  milliamps: number;
  ac?: boolean;
  centre?: Centre;
  plug?: PowerPlug;
  noisy?: boolean;
  sensitive?: boolean;
  positiveGround?: boolean;
}

/**
 * What a device takes from the mains (typical; the plate on it says): voltages that it accepts, in
 * V, frequencies in Hz, power, and the peak when it is switched on.
 */
export interface MainsNeed {
  volts: [number, number][];
  hz: (50 | 60)[];
  watts: number;
  inrushAmps?: number;
  /** Inlets, each with a lead of its own; one where it is left out. */
  inlets?: number;
}
