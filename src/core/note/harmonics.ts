import { bandOf, loudnessWeight } from './bands';
import { remembered } from './remembered';
import { HARMONICS } from './spectrum';

/** What each harmonic of a note counts for loudness, as a factor of power, and its band; -1 outside all of them. */
interface Harmonics {
  weights: Float64Array;
  bandAt: Int8Array;
}

const known = remembered<Harmonics>();

/** Weights and bands of the harmonics of a note of so many Hz, each worked out once. */
export const harmonicsOf = (hertz: number): Harmonics =>
  known(String(hertz), () => {
    const found = {
      weights: new Float64Array(HARMONICS + 1),
      bandAt: new Int8Array(HARMONICS + 1).fill(-1),
    };
    for (let n = 1; n <= HARMONICS; n++) {
      found.weights[n] = loudnessWeight(n * hertz);
      found.bandAt[n] = bandOf(n * hertz) ?? -1;
    }
    return found;
  });
