import type { Remark } from '../findings/finding';
import type { PromiseResult } from './check';

/** Broken promises as remarks of the sounds that break them; one that names what is gone belongs to no sound. */
export function promiseRemarks(
  results: readonly PromiseResult[],
): { sound: string | undefined; remark: Remark }[] {
  return results.flatMap((r) =>
    r.breaches.map((b) => ({
      sound: b.sound,
      remark: {
        rule: 'promise',
        severity: 'fault' as const,
        subjects: b.subjects,
        about: r.id,
        what: `Broken promise: ${r.words}.`,
        why: b.why,
      },
    })),
  );
}
