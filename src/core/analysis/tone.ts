import { type Circuit, type Section, solveSection } from '../circuit';
import { decibels } from '../units';

/**
 * What a passive section does to tone, relative to the unloaded source. Frequencies in Hz, levels
 * in dB; `null` where there is none.
 */
export interface Tone {
  peakHz: number | null;
  peakDb: number | null;
  at1kHzDb: number;
  at5kHzDb: number;
  minus3dBHz: number | null;
}

export interface TonePoint {
  hertz: number;
  db: number;
}

export const FREQUENCIES: readonly number[] = Array.from(
  { length: 121 },
  (_, i) => 20 * 1000 ** (i / 120),
);

/** Response in dB of a section from one of its drivers to one of its nets. */
export const response = (
  circuit: Circuit,
  section: Section,
  driver: number,
  net: number,
  hertz: number,
): number =>
  decibels(solveSection(circuit, section, hertz).transfer(driver, section.nets.indexOf(net)));

/** The curve from 20 Hz to 20 kHz. */
export const toneCurve = (
  circuit: Circuit,
  section: Section,
  driver: number,
  net: number,
): TonePoint[] =>
  FREQUENCIES.map((hertz) => ({ hertz, db: response(circuit, section, driver, net, hertz) }));

/** Where the response has fallen 3 dB under its 1 kHz value is looked for up to here. */
const HIGHEST = 1e8;

/** Peak, level at 5 kHz, and where the response is 3 dB under its 1 kHz value. */
export function toneOf(circuit: Circuit, section: Section, driver: number, net: number): Tone {
  const at = (hertz: number) => response(circuit, section, driver, net, hertz);
  const at1kHzDb = at(1000);
  const peak = section.drivers[driver]!.henries > 0 ? highestPoint(at) : undefined;
  return {
    peakHz: peak?.hertz ?? null,
    peakDb: peak?.db ?? null,
    at1kHzDb,
    at5kHzDb: at(5000),
    minus3dBHz: fallsTo(at, at1kHzDb - 3, Math.max(1000, peak?.hertz ?? 0)),
  };
}

/**
 * A resonance: a point that stands above both its neighbours, refined by golden section; none where
 * the response only falls.
 */
function highestPoint(at: (hertz: number) => number): TonePoint | undefined {
  const grid = Array.from({ length: 90 }, (_, i) => 100 * 300 ** (i / 89));
  const levels = grid.map(at);
  let best = 0;
  for (let i = 1; i < grid.length; i++) if (levels[i]! > levels[best]!) best = i;
  if (best === 0 || best === grid.length - 1 || levels[best]! - levels[0]! < 0.02) return undefined;
  let [low, high] = [Math.log(grid[best - 1]!), Math.log(grid[best + 1]!)];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 24; i++) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)];
    if (at(Math.exp(a)) > at(Math.exp(b))) high = b;
    else low = a;
  }
  const hertz = Math.exp((low + high) / 2);
  return { hertz, db: at(hertz) };
}

/** The first frequency from `from` upwards at which the response is under `level`. */
function fallsTo(at: (hertz: number) => number, level: number, from: number): number | null {
  let low = from;
  let high = from;
  while (at(high) > level) {
    low = high;
    high *= 1.5;
    if (high > HIGHEST) return null;
  }
  for (let i = 0; i < 40; i++) {
    const middle = Math.sqrt(low * high);
    if (at(middle) > level) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}
