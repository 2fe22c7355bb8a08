/** A figure for output: so many decimals; what is none, or endless, is null. */
export const round = (x: number | null, digits = 2): number | null =>
  x === null || !Number.isFinite(x) ? null : Number(x.toFixed(digits));
