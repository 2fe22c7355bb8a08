/** Arrivals further apart than this, in ms, comb. */
export const APART_MS = 0.05;

/** An arrival this far under the other, in dB, no longer matters. */
export const FAR_UNDER_DB = 20;

/** Frequency in Hz of the first notch when a signal meets itself `ms` later: `1 / (2·Δt)`. */
export const firstNotchHertz = (ms: number): number => 1000 / (2 * ms);
