import type { Fix, Remark } from '../findings/finding';

/** A remark with its ways out, the nearest first. */
export type Ready = Remark & { fixes?: Fix[] };

/** The same with the first way out as its fix, and the others beside it. */
export const withFixes = ({ fixes, ...remark }: Ready): Remark => ({
  ...remark,
  ...(fixes?.[0] && { fix: fixes[0] }),
  ...(fixes && fixes.length > 1 && { others: fixes.slice(1) }),
});
