/** A complex number as its two parts. */
export interface Complex {
  re: number;
  im: number;
}

export const complex = (re: number, im = 0): Complex => ({ re, im });
export const add = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });
export const subtract = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im });
export const multiply = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
export const magnitude = (a: Complex): number => Math.hypot(a.re, a.im);

export function invert(a: Complex): Complex {
  const m = a.re * a.re + a.im * a.im;
  return { re: a.re / m, im: -a.im / m };
}

// Where many are worked with they lie in one list, the real part of each before the imaginary one.

/** Adds one over a complex number to the one that stands at a place of a list. */
export function addInverse(to: Float64Array, i: number, re: number, im: number): void {
  const m = re * re + im * im;
  to[i]! += re / m;
  to[i + 1]! -= im / m;
}

/**
 * The inverse of a square matrix of complex numbers, row by row in one list (Gauss-Jordan with
 * pivoting). Admittance matrices are small and never singular.
 */
export function inverted(matrix: Float64Array, size: number): Float64Array {
  const inverse = new Float64Array(matrix.length);
  const [rows, wide] = [new Float64Array(2 * matrix.length), 4 * size];
  for (let r = 0; r < size; r++) {
    rows.set(matrix.subarray(2 * size * r, 2 * size * (r + 1)), wide * r);
    rows[wide * r + 2 * (size + r)] = 1;
  }
  const squared = (at: number) => rows[at]! * rows[at]! + rows[at + 1]! * rows[at + 1]!;
  const scale = new Float64Array(2);
  for (let c = 0; c < size; c++) {
    let pivot = c;
    for (let r = c + 1; r < size; r++)
      if (squared(wide * r + 2 * c) > squared(wide * pivot + 2 * c)) pivot = r;
    if (pivot !== c)
      for (let k = 0; k < wide; k++) {
        const held = rows[wide * c + k]!;
        rows[wide * c + k] = rows[wide * pivot + k]!;
        rows[wide * pivot + k] = held;
      }
    scale.fill(0);
    addInverse(scale, 0, rows[wide * c + 2 * c]!, rows[wide * c + 2 * c + 1]!);
    for (let k = wide * c; k < wide * (c + 1); k += 2) {
      const [re, im] = [rows[k]!, rows[k + 1]!];
      rows[k] = re * scale[0]! - im * scale[1]!;
      rows[k + 1] = re * scale[1]! + im * scale[0]!;
    }
    for (let r = 0; r < size; r++) {
      const [re, im] = [rows[wide * r + 2 * c]!, rows[wide * r + 2 * c + 1]!];
      if (r === c || (re === 0 && im === 0)) continue;
      for (let k = 0; k < wide; k += 2) {
        const [pr, pi] = [rows[wide * c + k]!, rows[wide * c + k + 1]!];
        rows[wide * r + k]! -= re * pr - im * pi;
        rows[wide * r + k + 1]! -= re * pi + im * pr;
      }
    }
  }
  for (let r = 0; r < size; r++)
    inverse.set(rows.subarray(wide * r + 2 * size, wide * (r + 1)), 2 * size * r);
  return inverse;
}
