import FFT from 'fft.js';

/** Samples of one period where a ceiling bends the wave. */
export const SAMPLES = 1024;
/** Harmonics that are kept: up to 21 kHz of a low E. What folds from above is left out. */
export const HARMONICS = 255;
/** Samples on which the highest instant is looked for: eight to the highest harmonic's period. */
const FINE = 2048;

/**
 * One period of a wave as its harmonics: `x(t) = Σ re·cos(nωt) − im·sin(nωt)`, in volts. There is no
 * harmonic 0: capacitors pass no standing voltage.
 */
export interface Spectrum {
  re: Float64Array;
  im: Float64Array;
}

export const spectrum = (): Spectrum => ({
  re: new Float64Array(HARMONICS + 1),
  im: new Float64Array(HARMONICS + 1),
});

const small = new FFT(SAMPLES);
const fine = new FFT(FINE);

/** The wave of a spectrum, sample by sample. */
export const samplesOf = (s: Spectrum, count: typeof SAMPLES | typeof FINE = SAMPLES) => {
  const fft = count === SAMPLES ? small : fine;
  const all = fft.createComplexArray();
  for (let n = 1; n <= HARMONICS; n++) {
    const [re, im] = [(s.re[n]! * count) / 2, (s.im[n]! * count) / 2];
    all[2 * n] = re;
    all[2 * n + 1] = im;
    all[2 * (count - n)] = re;
    all[2 * (count - n) + 1] = -im;
  }
  const out = fft.createComplexArray();
  fft.inverseTransform(out, all);
  return Float64Array.from({ length: count }, (_, i) => out[2 * i]!);
};

/** The spectrum of a period of samples. */
export function spectrumOf(samples: Float64Array): Spectrum {
  const out = small.createComplexArray();
  small.realTransform(out, [...samples]);
  const s = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    s.re[n] = (2 * out[2 * n]!) / SAMPLES;
    s.im[n] = (2 * out[2 * n + 1]!) / SAMPLES;
  }
  return s;
}

/** Power of each harmonic, in V²; the first entry is none's. */
export const powersOf = (s: Spectrum): Float64Array =>
  s.re.map((re, n) => (re * re + s.im[n]! ** 2) / 2);

/** RMS in volts. */
export const rmsOf = (s: Spectrum): number => Math.sqrt(powersOf(s).reduce((a, b) => a + b, 0));

/** The highest instant, in volts. */
export const peakOf = (s: Spectrum): number =>
  samplesOf(s, FINE).reduce((most, x) => Math.max(most, Math.abs(x)), 0);

/** No instant is higher than this, in volts: quick to have. */
export function boundOf(s: Spectrum): number {
  let sum = 0;
  for (let n = 1; n <= HARMONICS; n++) sum += Math.hypot(s.re[n]!, s.im[n]!);
  return sum;
}

/** `a` and `b` together, as waves. */
export const sumOf = (a: Spectrum, b: Spectrum): Spectrum => ({
  re: a.re.map((x, n) => x + b.re[n]!),
  im: a.im.map((x, n) => x + b.im[n]!),
});

export const scaledBy = (s: Spectrum, by: number): Spectrum => ({
  re: s.re.map((x) => x * by),
  im: s.im.map((x) => x * by),
});

/** Each harmonic times its part of a response, given as its real and imaginary parts. */
export const filtered = (s: Spectrum, h: Spectrum): Spectrum => {
  const out = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    out.re[n] = s.re[n]! * h.re[n]! - s.im[n]! * h.im[n]!;
    out.im[n] = s.re[n]! * h.im[n]! + s.im[n]! * h.re[n]!;
  }
  return out;
};

/** A response at every harmonic of a note. */
export function responseOver(hertz: number, at: (hertz: number) => { re: number; im: number }) {
  const h = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    const { re, im } = at(n * hertz);
    h.re[n] = re;
    h.im[n] = im;
  }
  return h;
}

/** The same note later by so many ms. */
export const delayed = (s: Spectrum, hertz: number, ms: number): Spectrum =>
  filtered(
    s,
    responseOver(hertz, (f) => {
      const angle = (-2 * Math.PI * f * ms) / 1000;
      return { re: Math.cos(angle), im: Math.sin(angle) };
    }),
  );
