import { dbuOfVolts } from '../units';
import { bandOf, BANDS, loudnessWeight } from './bands';
import { type Part, togetherVolts } from './run';
import { peakOf, powersOf, samplesOf, sumOf } from './spectrum';

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

/** The figures of a note at a net; undefined where nothing sounds. */
export function noteAt(parts: readonly Part[]): NoteAt | undefined {
  const loudest = parts.reduce<Part | undefined>(
    (most, p) => (!most || togetherVolts([p], 1) > togetherVolts([most], 1) ? p : most),
    undefined,
  );
  if (!loudest || togetherVolts(parts, 2) < 1e-9) return undefined;
  const same = parts.filter((p) => p.hertz === loudest.hertz);
  const wave = samplesOf(same.map((p) => p.waves[1]).reduce(sumOf));
  const step = wave.length / WAVE_POINTS;
  return {
    touches: [figuresOf(parts, 0), figuresOf(parts, 1), figuresOf(parts, 2)],
    wave: Array.from({ length: WAVE_POINTS }, (_, i) => wave[i * step]!),
    hertz: loudest.hertz,
  };
}

function figuresOf(parts: readonly Part[], touch: 0 | 1 | 2): NoteFigures {
  const bands = BANDS.map(() => 0);
  let [power, weighted, moment, peak] = [0, 0, 0, 0];
  for (const p of parts) {
    powersOf(p.waves[touch]).forEach((w, n) => {
      if (!n || !w) return;
      const hertz = n * p.hertz;
      const band = bandOf(hertz);
      if (band !== undefined) bands[band]! += w;
      power += w;
      weighted += w * loudnessWeight(hertz);
      moment += w * hertz;
    });
    // Unrelated waves may meet at their highest instants.
    peak += peakOf(p.waves[touch]);
  }
  const levelDbu = dbuOfVolts(Math.sqrt(power));
  const peakDbu = dbuOfVolts(peak / Math.SQRT2);
  return {
    levelDbu,
    truePeakDbu: peakDbu,
    loudnessDbu: dbuOfVolts(Math.sqrt(weighted)),
    crestDb: peakDbu - levelDbu + 20 * Math.log10(Math.SQRT2),
    bandsDbu: bands.map((b) => (b > 1e-18 ? dbuOfVolts(Math.sqrt(b)) : null)),
    brightnessHertz: power > 0 ? moment / power : 0,
  };
}

/** Level of parts at normal picking in third-octave bands, in dBu; null where nothing of them lies. */
export const bandsOf = (parts: readonly Part[]): (number | null)[] => figuresOf(parts, 1).bandsDbu;
