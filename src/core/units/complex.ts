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

/**
 * The inverse of a square matrix (Gauss-Jordan with pivoting). The admittance matrices here are
 * small and never singular.
 */
export function invertMatrix(matrix: Complex[][]): Complex[][] {
  const n = matrix.length;
  if (n === 1) return [[invert(matrix[0]![0]!)]];
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => complex(i === j ? 1 : 0))]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++)
      if (magnitude(rows[r]![c]!) > magnitude(rows[pivot]![c]!)) pivot = r;
    [rows[c], rows[pivot]] = [rows[pivot]!, rows[c]!];
    const scale = invert(rows[c]![c]!);
    rows[c] = rows[c]!.map((x) => multiply(x, scale));
    for (let r = 0; r < n; r++) {
      const factor = rows[r]![c]!;
      if (r !== c && (factor.re !== 0 || factor.im !== 0))
        rows[r] = rows[r]!.map((x, k) => subtract(x, multiply(factor, rows[c]![k]!)));
    }
  }
  return rows.map((row) => row.slice(n));
}
