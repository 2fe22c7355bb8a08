import type { Remark } from '../findings/finding';
import type { RuleId } from '../findings/rules';

/** What follows from something else, by the rules that name its cause. */
const FOLLOWS: Partial<Record<RuleId, readonly RuleId[]>> = (() => {
  const causes: readonly RuleId[] = ['open-end', 'half-loop', 'priority', 'swapped', 'wrong-way'];
  return {
    ...{ 'no-route': causes, silent: causes, 'dead-end': causes },
    // The box that hangs on half of a loop.
    'open-end': ['half-loop'],
    'half-wide': ['half-pair'],
  };
})();

/**
 * The remarks of one sound without those that only say what follows from another: a destination that
 * nothing reaches, where the cure of a cause, made on a copy, lets it hear again. Causes name, after
 * their own place, what their cure brings back.
 */
export function withoutSymptoms(remarks: readonly Remark[]): Remark[] {
  const named = new Map<RuleId, Set<string>>();
  for (const { rule, subjects } of remarks)
    named.set(rule, new Set([...(named.get(rule) ?? []), ...subjects]));
  return remarks.filter(
    ({ rule, subjects: [subject] }) =>
      subject === undefined || !FOLLOWS[rule]?.some((cause) => named.get(cause)?.has(subject)),
  );
}
