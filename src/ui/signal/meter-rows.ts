import { at as entryAt } from '../../core/outcome';
import type { StationNote } from '../../core/note';
import { BANDS } from '../../core/note/bands';
import { type StationFigures, touchWord } from '../../core/signal';

import { fixed, showLevel, type UnitChoice } from '../../core/units';

/**
 * A row of the meter bridge: its name, what it says of a station, whether that deserves attention,
 * and how it came about.
 */
export interface MeterRow {
  id: string;
  name: string;
  explain: string;
  show: (s: StationFigures, units: UnitChoice, note?: StationNote) => string;
  /** Of the played note, which is worked out when the row is shown: as a figure or as its bands. */
  ofNote?: 'figure' | 'bands';
  warn?: (s: StationFigures) => boolean;
}

const short = (dbu: number | null | undefined, units: UnitChoice): string =>
  dbu === null || dbu === undefined ? '–' : entryAt(showLevel(dbu, units.level).split(' '), 0);

/** The bands in words: the highest of lows (to 250 Hz), middles (to 2.5 kHz) and highs. */
function bandWords({ bandsDbu }: StationNote, units: UnitChoice): string {
  const among = (from: number, to: number) =>
    Math.max(
      ...BANDS.map((hertz, i) =>
        hertz > from && hertz <= to ? (bandsDbu[i] ?? -Infinity) : -Infinity,
      ),
    );
  const [lows, mids, highs] = [among(0, 250), among(250, 2500), among(2500, Infinity)].map((v) =>
    short(Number.isFinite(v) ? v : null, units),
  );
  return `lows ${lows}, middles ${mids}, highs ${highs}`;
}

export const METER_ROWS: readonly MeterRow[] = [
  {
    id: 'level',
    name: 'Level',
    explain: 'RMS at the output, playing normally, at 1 kHz',
    show: (s, u) => short(s.output.levelDbu?.normal, u),
  },
  {
    id: 'peak',
    name: 'Peak',
    explain: 'highest peak at the output, as the level of a sine with that peak',
    show: (s, u) => short(s.output.peakDbu, u),
  },
  {
    id: 'loudness',
    name: 'Loudness',
    explain:
      'a played note at the output, weighted as the ear does: what an EQ or a cabinet changes',
    ofNote: 'figure',
    show: (_, u, note) => short(note?.loudnessDbu, u),
  },
  {
    id: 'bands',
    name: 'Bands',
    explain:
      'the played note in thirds of an octave, 50 Hz to 12.5 kHz; the highest full, 40 dB under it empty',
    ofNote: 'bands',
    show: (_, u, note) => (note ? bandWords(note, u) : '–'),
  },
  {
    id: 'headroom',
    name: 'Headroom',
    explain:
      'from the peak to the clip point; a dash where clipping is meant or nothing active stands',
    show: (s) => (s.headroomDb === null ? '–' : `${fixed(s.headroomDb)}`),
    warn: (s) => s.headroomDb !== null && s.headroomDb < 3,
  },
  {
    id: 'noise',
    name: 'Noise',
    explain: 'noise at the output over 20 kHz, riding on small-signal gain',
    show: (s, u) => short(s.output.noiseDbu, u),
  },
  {
    id: 'saturation',
    name: 'Saturation',
    explain: 'total harmonic distortion, playing normally',
    show: (s) => (s.output.thdPercent ? `${fixed(s.output.thdPercent.normal)} %` : '–'),
  },
  {
    id: 'touch',
    name: 'Touch',
    explain: 'the word for the saturation at normal picking',
    show: (s) => (s.output.thdPercent ? touchWord(s.output.thdPercent.normal / 100) : '–'),
  },
  {
    id: 'loading',
    name: 'Loading',
    explain: 'level lost into this input at 1 kHz',
    show: (s) =>
      s.input?.lossDb === null || s.input === null ? '–' : `${fixed(s.input.lossDb, 2)}`,
    warn: (s) => (s.input?.lossDb ?? 0) < -3,
  },
  {
    id: 'latency',
    name: 'Latency',
    explain: 'since the string, in milliseconds',
    show: (s) => (s.output.latencyMs === null ? '–' : `${fixed(s.output.latencyMs)}`),
    warn: (s) => (s.output.latencyMs ?? 0) > 10,
  },
  {
    id: 'width',
    name: 'Width',
    explain: 'mono, dual mono or stereo at the output',
    show: (s) => s.width,
  },
];

const LEVELS = new Set(['level', 'peak', 'loudness', 'noise']);
const UNITS: Record<string, string> = { headroom: 'dB', loading: 'dB', latency: 'ms' };

/** The unit of a row, said once at the side: ", dB". Percent and words stand with their figures. */
export function rowUnit(id: string, units: UnitChoice): string {
  const unit = LEVELS.has(id) ? units.level : UNITS[id];
  return unit ? `, ${unit}` : '';
}

/** Rows shown until somebody chooses others. */
export const USUAL_ROWS = [
  'level',
  'headroom',
  'noise',
  'saturation',
  'loading',
  'latency',
  'width',
];
