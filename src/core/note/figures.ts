import { dbuOfVolts } from '../units';
import { BANDS } from './bands';
import { harmonicsOf } from './harmonics';
import { type Part, togetherVolts } from './run';
import { peakOf, samplesOf, sumOf } from './spectrum';

/** What one note is at one place, while it is picked so hard. Levels in dBu. */
export interface NoteFigures {
  /** RMS of all that sounds. */
  levelDbu: number;
  /** The highest instant of the wave, as the level of a sine with that peak. */
  truePeakDbu: number;
  /** The level with each frequency weighted as it counts for loudness (ITU-R BS.1770). */
  loudnessDbu: number;
  /** Peak over RMS, in dB: 3 for a sine. */
  crestDb: number;
  /** Level in each third-octave band, in dBu; null where nothing of the note lies. */
  bandsDbu: (number | null)[];
  /** The middle of the power over frequency, in Hz: higher is brighter. */
  brightnessHertz: number;
}

/** Everything of a note at a place: figures for soft, normal and hard picking, and a wave to look at. */
export interface NoteAt {
  touches: [NoteFigures, NoteFigures, NoteFigures];
  /** One period at normal picking, in volts; unrelated waves laid over one another from their starts. */
  wave: number[];
  hertz: number;
}

const WAVE_POINTS = 256;

/** Whether nothing sounds, however hard it is picked. */
const isSilent = (parts: readonly Part[]): boolean => togetherVolts(parts, 2) < 1e-9;

/** The figures of a note at a net; undefined where nothing sounds. */
export function noteAt(parts: readonly Part[]): NoteAt | undefined {
  const loudest = parts.reduce<Part | undefined>(
    (most, p) => (!most || togetherVolts([p], 1) > togetherVolts([most], 1) ? p : most),
    undefined,
  );
  if (!loudest || isSilent(parts)) return undefined;
  const same = parts.filter((p) => p.hertz === loudest.hertz);
  const wave = samplesOf(same.map((p) => p.waves[1]).reduce(sumOf));
  const step = wave.length / WAVE_POINTS;
  return {
    touches: [figuresOf(parts, 0), figuresOf(parts, 1), figuresOf(parts, 2)],
    wave: Array.from({ length: WAVE_POINTS }, (_, i) => wave[i * step]!),
    hertz: loudest.hertz,
  };
}

/** What is read from the harmonics alone. */
type Spectral = Omit<NoteFigures, 'truePeakDbu' | 'crestDb'>;

function spectralOf(parts: readonly Part[], touch: 0 | 1 | 2): Spectral {
  const bands = new Float64Array(BANDS.length);
  let [power, weighted, moment] = [0, 0, 0];
  for (const p of parts) {
    const { re, im } = p.waves[touch];
    const { weights, bandAt } = harmonicsOf(p.hertz);
    for (let n = 1; n < re.length; n++) {
      const w = (re[n]! * re[n]! + im[n]! * im[n]!) / 2;
      if (!w) continue;
      const band = bandAt[n]!;
      if (band >= 0) bands[band]! += w;
      power += w;
      weighted += w * weights[n]!;
      moment += w * n * p.hertz;
    }
  }
  return {
    levelDbu: dbuOfVolts(Math.sqrt(power)),
    loudnessDbu: dbuOfVolts(Math.sqrt(weighted)),
    bandsDbu: Array.from(bands, (b) => (b > 1e-18 ? dbuOfVolts(Math.sqrt(b)) : null)),
    brightnessHertz: power > 0 ? moment / power : 0,
  };
}

function figuresOf(parts: readonly Part[], touch: 0 | 1 | 2): NoteFigures {
  const figures = spectralOf(parts, touch);
  // Unrelated waves may meet at their highest instants.
  const peak = parts.reduce((sum, p) => sum + peakOf(p.waves[touch]), 0);
  const truePeakDbu = dbuOfVolts(peak / Math.SQRT2);
  return {
    ...figures,
    truePeakDbu,
    crestDb: truePeakDbu - figures.levelDbu + 20 * Math.log10(Math.SQRT2),
  };
}

/** Level of parts at normal picking in third-octave bands, in dBu; null where nothing of them lies. */
export const bandsOf = (parts: readonly Part[]): (number | null)[] => spectralOf(parts, 1).bandsDbu;

/** What of a note stands under a strip: loudness and bands at normal picking, without its peaks. */
export type StationNote = Pick<NoteFigures, 'loudnessDbu' | 'bandsDbu'>;

/** Loudness and bands of a note; undefined where nothing sounds. */
export function stationNote(parts: readonly Part[]): StationNote | undefined {
  if (isSilent(parts)) return undefined;
  const { loudnessDbu, bandsDbu } = spectralOf(parts, 1);
  return { loudnessDbu, bandsDbu };
}
