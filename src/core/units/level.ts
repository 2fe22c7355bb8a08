/** RMS volts of 0 dBu, the level that gives 1 mW in 600 Ω. */
export const DBU_VOLTS = 0.7746;

/** Level in dBu of an RMS voltage; −Infinity for 0 V. `dBu = 20·log10(Vrms / 0.7746)`. */
export const dbuOfVolts = (voltsRms: number): number => decibels(voltsRms / DBU_VOLTS);

/** RMS voltage of a level in dBu; 0 V for −Infinity. */
export const voltsOfDbu = (dbu: number): number => DBU_VOLTS * ratio(dbu);

/** dBV from dBu: 0 dBV is 1 V RMS, so `dBu = dBV + 2.218`. */
export const dbvOfDbu = (dbu: number): number => dbu + 20 * Math.log10(DBU_VOLTS);

/** dBu from dBV. */
export const dbuOfDbv = (dbv: number): number => dbv - 20 * Math.log10(DBU_VOLTS);

/** Decibels of a voltage ratio; −Infinity for 0. */
export const decibels = (voltageRatio: number): number =>
  voltageRatio > 0 ? 20 * Math.log10(voltageRatio) : -Infinity;

/** Voltage ratio of decibels; 0 for −Infinity. */
export const ratio = (db: number): number => (db === -Infinity ? 0 : 10 ** (db / 20));

/**
 * Sum in dBu of levels that are unrelated or differently delayed: their powers add. Two equal
 * levels give +3.01 dB.
 */
export const sumOfPowers = (...dbu: number[]): number =>
  dbuOfVolts(Math.sqrt(dbu.reduce((s, l) => s + voltsOfDbu(l) ** 2, 0)));

/**
 * Sum in dBu of levels of one source that arrive together and in phase: their voltages add. Two
 * equal levels give +6.02 dB.
 */
export const sumOfVoltages = (...dbu: number[]): number =>
  dbuOfVolts(dbu.reduce((s, l) => s + voltsOfDbu(l), 0));

/**
 * Level lost, in dB (0 or less), by a source of `zOut` ohms feeding `zIn` ohms: `20·log10(Zin /
 * (Zin + Zout))`.
 */
export const loadingLoss = (zOut: number, zIn: number): number =>
  zIn === Infinity ? 0 : decibels(zIn / (zIn + zOut));

const BOLTZMANN = 1.380649e-23;

/**
 * Thermal noise in RMS volts of a resistance in ohms over a bandwidth in hertz (20 kHz) at a
 * temperature in kelvin (295 K): `√(4·k·T·R·B)`.
 */
export const thermalNoiseVolts = (ohms: number, hertz = 20_000, kelvin = 295): number =>
  Math.sqrt(4 * BOLTZMANN * kelvin * ohms * hertz);
