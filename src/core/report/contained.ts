import type { Remark } from '../findings/finding';

/** Tells whoever looks after the program that a check failed. */
export type TellFailure = (check: string, error: unknown) => void;

const messageOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** A check that failed, as a remark: what it would have said cannot be told, and the others stand. */
export const checkFailed = (check: string, error: unknown): Remark => ({
  rule: 'check-failed',
  severity: 'fault',
  subjects: [],
  about: check,
  what: `This check failed on ${check}; the others stand.`,
  why:
    `Yantrel made a mistake (${messageOf(error)}), so nothing is said about ${check}. ` +
    'Look at it yourself, and send the rig as a file to whoever looks after Yantrel.',
});

/**
 * Runs a check. One that throws answers with a remark about itself instead, and is told.
 *
 *     contained('noise', tell, () => noiseRemarks(evidence), (failed) => [failed]);
 */
export function contained<T>(
  check: string,
  tell: TellFailure,
  look: () => T,
  instead: (failed: Remark) => T,
): T {
  try {
    return look();
  } catch (error) {
    tell(check, error);
    return instead(checkFailed(check, error));
  }
}
