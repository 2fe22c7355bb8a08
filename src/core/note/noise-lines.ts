import { type Circuit, type Section, sectionKey } from '../circuit';
import { responseOf, type Stage } from '../kinds';
import { thermalNoiseVolts } from '../units';
import { type Complex, multiply } from '../units/complex';
import { bandOf, loudnessWeight } from './bands';
import { remembered } from './remembered';
import { shapeOf, solvedAt } from './responses';

/** Frequency of the mains, in Hz. */
export type Mains = 50 | 60;

/** Where noise is figured: hiss in bands, hum on lines; and what share of its power lies at each. */
export interface Lines {
  name: string;
  hertz: readonly number[];
  /** 1 V RMS of all of it. */
  one: Row;
  /** How much each counts for loudness, as a factor of power, and in which band it lies, if in any. */
  weights: readonly number[];
  bands: readonly (number | undefined)[];
}

const linesOf = (name: string, hertz: readonly number[], shape: readonly number[]): Lines => ({
  name,
  hertz,
  one: { re: Float64Array.from(shape), im: new Float64Array(shape.length) },
  weights: hertz.map(loudnessWeight),
  bands: hertz.map(bandOf),
});

/** Complex amplitudes on lines, in volts RMS. */
export interface Row {
  re: Float64Array;
  im: Float64Array;
}

/** Hiss is stated over this, in Hz: equivalent input noise, as thermal noise, of 20 kHz. */
const WIDTH = 20_000;

/** Edges of a third-octave band by tenths of a decade about 1 kHz. */
const edge = (n: number) => 1000 * 10 ** ((n - 0.5) / 10);

/**
 * White noise in thirds of an octave from 20 Hz to 20 kHz, each with its part of the width. What
 * happens to a band is what happens at its middle (a simplification: a sharp peak inside it is not
 * seen).
 */
const PLACES = Array.from({ length: 31 }, (_, i) => i - 17);
export const HISS: Lines = linesOf(
  'hiss',
  PLACES.map((n) => 1000 * 10 ** (n / 10)),
  PLACES.map((n) => Math.sqrt((Math.min(WIDTH, edge(n + 1)) - edge(n)) / WIDTH)),
);

const HUM_LINES = 20;

/**
 * Hum of the mains and its harmonics, falling by their number, even ones 6 dB lower: a typical
 * mixture of what transformers (odd ones) and rectifiers (even ones) send out. A simplification; a
 * dimmer gives far more of the high ones.
 */
const humOf = (mains: Mains): Lines => {
  const sizes = Array.from({ length: HUM_LINES }, (_, i) => (i % 2 ? 0.5 : 1) / (i + 1));
  const all = Math.hypot(...sizes);
  return linesOf(
    `hum ${mains}`,
    sizes.map((_, i) => mains * (i + 1)),
    sizes.map((x) => x / all),
  );
};

export const HUM: Record<Mains, Lines> = { 50: humOf(50), 60: humOf(60) };

const rowOf = ({ hertz }: Lines, at: (hertz: number) => Complex): Row => {
  const row = { re: new Float64Array(hertz.length), im: new Float64Array(hertz.length) };
  hertz.forEach((f, i) => {
    const { re, im } = at(f);
    row.re[i] = re;
    row.im[i] = im;
  });
  return row;
};

/** Each line times its part of a response and a gain. */
export function through(row: Row, response: Row | undefined, gain: number): Row {
  const size = row.re.length;
  const out = { re: new Float64Array(size), im: new Float64Array(size) };
  const { re, im } = row;
  if (!response) {
    for (let i = 0; i < size; i++) {
      out.re[i] = re[i]! * gain;
      out.im[i] = im[i]! * gain;
    }
    return out;
  }
  const { re: c, im: d } = response;
  for (let i = 0; i < size; i++) {
    out.re[i] = (re[i]! * c[i]! - im[i]! * d[i]!) * gain;
    out.im[i] = (re[i]! * d[i]! + im[i]! * c[i]!) * gain;
  }
  return out;
}

/**
 * Copies of one wave, each taken so often: as waves; or, where they are apart, as powers, with the phases of
 * the first.
 */
export function together(
  a: { row: Row; by: number },
  b: { row: Row; by: number },
  areApart: boolean,
): Row {
  const size = a.row.re.length;
  const out = { re: new Float64Array(size), im: new Float64Array(size) };
  for (let i = 0; i < size; i++) {
    const [re, im] = [a.row.re[i]! * a.by, a.row.im[i]! * a.by];
    const [re2, im2] = [b.row.re[i]! * b.by, b.row.im[i]! * b.by];
    const mine = re * re + im * im;
    if (!areApart || mine === 0) {
      out.re[i] = re + re2;
      out.im[i] = im + im2;
      continue;
    }
    const grown = Math.sqrt(1 + (re2 * re2 + im2 * im2) / mine);
    out.re[i] = re * grown;
    out.im[i] = im * grown;
  }
  return out;
}

const ofStages = remembered<Row>();
const ofSections = remembered<Row>();
const ofHeat = remembered<Row>();

/** What a stage makes of noise on lines, its filters before and behind its ceiling; nothing where it leaves it. */
export function stageOver(stage: Stage, lines: Lines): Row | undefined {
  if (!stage.tiltDb && !stage.cabinet && !stage.filters) return undefined;
  return ofStages(`${lines.name} ${shapeOf(stage)}`, () => {
    const { before, after } = responseOf(stage);
    return rowOf(lines, (hertz) => multiply(before(hertz), after(hertz)));
  });
}

/** A section's answers on lines: what of a driver is at a net, and the heat noise at a net. */
export function sectionOver(circuit: Circuit, section: Section) {
  const key = sectionKey(circuit, section);
  const at = solvedAt(circuit, section);
  const mine = new Map<Lines, Row[]>();
  return {
    response: (lines: Lines, driver: number, net: number): Row => {
      let rows = mine.get(lines);
      if (!rows) mine.set(lines, (rows = []));
      return (rows[driver * section.nets.length + net] ??= ofSections(
        `${lines.name}#${key}#${driver}#${net}`,
        () => rowOf(lines, (hertz) => at(hertz).response(driver, net)),
      ));
    },
    /** Thermal noise of the network seen at a net: `√(4·k·T·Re Z·B)`, band by band. */
    heat: (net: number): Row =>
      ofHeat(`${key}#${net}`, () => {
        const bare = rowOf(HISS, (hertz) => ({
          re: thermalNoiseVolts(Math.max(0, at(hertz).impedance(net).re)),
          im: 0,
        }));
        return through(bare, HISS.one, 1);
      }),
  };
}
