/** How a parameter follows a control between its ends. */
export const CURVES = ['linear', 'equal-power', 'audio', 'reverse-audio'] as const;
export type Curve = (typeof CURVES)[number];

/**
 * Share of the way from `min` to `max` at a share of the travel, both 0 to 1. Equal power rises as
 * a quarter sine, so that two opposite ones keep the sum of their powers; audio rises as the
 * square, as an audio track roughly does.
 */
export const CURVE_SHARE: Record<Curve, (share: number) => number> = {
  linear: (x) => x,
  'equal-power': (x) => Math.sin((x * Math.PI) / 2),
  audio: (x) => x * x,
  'reverse-audio': (x) => 1 - (1 - x) ** 2,
};

/**
 * The value at a share of a control's travel, 0 to 1. Whichever way the ends lie, the curve belongs
 * to the end that rises, so that opposite ranges mirror one another.
 */
export function alongCurve(curve: Curve, share: number, min: number, max: number): number {
  const along = CURVE_SHARE[curve];
  return max >= min ? min + (max - min) * along(share) : max + (min - max) * along(1 - share);
}
