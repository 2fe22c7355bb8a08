declare module 'fft.js' {
  /** A fast Fourier transform of a fixed size (a power of two); complex arrays are interleaved. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(out: number[], data: ArrayLike<number>): void;
    inverseTransform(out: number[], data: ArrayLike<number>): void;
  }
}
