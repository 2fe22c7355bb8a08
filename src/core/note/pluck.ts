import type { Played } from '../kinds';
import { HARMONICS, type Spectrum, spectrum } from './spectrum';

/** A usual guitar's low E, plucked near the pickup in the middle. */
export const LOW_E: Played = { hertz: 82.41, pluckedAt: 0.17, heardAt: 0.12 };

/** Harmonics of a string that a note is made of; above them a real string gives next to nothing. */
const STRING_HARMONICS = 128;

/** How fast the string's upper harmonics are weaker for its stiffness and the finger, per harmonic. */
const SOFTENING = 0.02;

/**
 * One period of a plucked string, scaled to an RMS of 1. A string pulled aside at one place has
 * harmonics of size `sin(nπp)/n²`; a pickup hears its speed, which is `n` times that, at its own
 * place: `sin(nπp)·sin(nπq)/n` (N. H. Fletcher and T. D. Rossing, The Physics of Musical
 * Instruments, 2.6 and 9.13). Upper harmonics fade by e^(−0.02 n). A simplification: the string is
 * not stiff, so that its harmonics are whole multiples, and it is heard in its first moment. The force on the bridge,
 * which a piezo hears, goes with the string's slope there: `sin(nπp)/n`.
 */
export function pluck({ pluckedAt, heardAt }: Played): Spectrum {
  const note = spectrum();
  for (let n = 1; n <= Math.min(STRING_HARMONICS, HARMONICS); n++) {
    const heard = heardAt === 0 ? 1 : Math.sin(n * Math.PI * heardAt);
    note.im[n] = (-Math.sin(n * Math.PI * pluckedAt) * heard * Math.exp(-SOFTENING * n)) / n;
  }
  return normal(note);
}

/** A single sine of RMS 1: the note that levels and saturation are stated for. */
export function sine(): Spectrum {
  const note = spectrum();
  note.im[1] = -Math.SQRT2;
  return note;
}

function normal(note: Spectrum): Spectrum {
  let power = 0;
  for (let n = 1; n <= HARMONICS; n++) power += (note.re[n]! ** 2 + note.im[n]! ** 2) / 2;
  const by = power > 0 ? 1 / Math.sqrt(power) : 0;
  for (let n = 1; n <= HARMONICS; n++) {
    note.re[n]! *= by;
    note.im[n]! *= by;
  }
  return note;
}
