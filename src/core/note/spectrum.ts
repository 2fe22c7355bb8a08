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

/** Room for a transform: it takes any row of numbers, and its types ask for the slow one. */
const room = (size: number) => new Float64Array(2 * size) as unknown as number[];
/** A transform with room to work in: what it reads holds zeros where no harmonic is. */
const transform = (size: number) => ({ fft: new FFT(size), all: room(size), out: room(size) });
const small = transform(SAMPLES);
const fine = transform(FINE);

/** The wave of a spectrum, sample by sample. */
export const samplesOf = (s: Spectrum, count: typeof SAMPLES | typeof FINE = SAMPLES) => {
  const { fft, all, out } = count === SAMPLES ? small : fine;
  for (let n = 1; n <= HARMONICS; n++) {
    const [re, im] = [(s.re[n]! * count) / 2, (s.im[n]! * count) / 2];
    all[2 * n] = re;
    all[2 * n + 1] = im;
    all[2 * (count - n)] = re;
    all[2 * (count - n) + 1] = -im;
  }
  fft.inverseTransform(out, all);
  const samples = new Float64Array(count);
  for (let i = 0; i < count; i++) samples[i] = out[2 * i]!;
  return samples;
};

/** The spectrum of a period of samples. */
export function spectrumOf(samples: Float64Array): Spectrum {
  const { fft, out } = small;
  fft.realTransform(out, samples);
  const s = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    s.re[n] = (2 * out[2 * n]!) / SAMPLES;
    s.im[n] = (2 * out[2 * n + 1]!) / SAMPLES;
  }
  return s;
}

/** RMS in volts. */
export function rmsOf({ re, im }: Spectrum): number {
  let power = 0;
  for (let n = 1; n < re.length; n++) power += (re[n]! ** 2 + im[n]! ** 2) / 2;
  return Math.sqrt(power);
}

/** The highest instant, in volts. */
export function peakOf(s: Spectrum): number {
  let most = 0;
  for (const x of samplesOf(s, FINE)) most = Math.max(most, Math.abs(x));
  return most;
}

/** No instant is higher than this, in volts: quick to have. */
export function boundOf(s: Spectrum): number {
  let sum = 0;
  for (let n = 1; n <= HARMONICS; n++) sum += Math.sqrt(s.re[n]! ** 2 + s.im[n]! ** 2);
  return sum;
}

/** `a` and `b` together, as waves. */
export function sumOf(a: Spectrum, b: Spectrum): Spectrum {
  const out = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    out.re[n] = a.re[n]! + b.re[n]!;
    out.im[n] = a.im[n]! + b.im[n]!;
  }
  return out;
}

export function scaledBy(s: Spectrum, by: number): Spectrum {
  if (by === 1) return s;
  const out = spectrum();
  for (let n = 1; n <= HARMONICS; n++) {
    out.re[n] = s.re[n]! * by;
    out.im[n] = s.im[n]! * by;
  }
  return out;
}

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
