import type { Remark } from '../findings/finding';
import type { RuleId } from '../findings/rules';
import type { Lead } from '../rig/schema';

/** What follows from something else, by the rules that name its cause. */
const FOLLOWS: Partial<Record<RuleId, readonly RuleId[]>> = (() => {
  const causes: readonly RuleId[] = ['open-end', 'half-loop', 'priority', 'swapped', 'wrong-way'];
  return {
    ...{ 'no-route': causes, silent: causes, 'dead-end': causes },
    // The box that hangs on half of a loop.
    'open-end': ['half-loop'],
    'half-wide': ['half-pair'],
    // What gets less for the side that is missing.
    'input-level': ['half-pair'],
    // The one side that is plugged, where the lead of the other is named.
    'half-pair': ['open-end'],
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
  return withoutOtherEnds(
    remarks.filter(
      ({ rule, subjects }) =>
        !FOLLOWS[rule]?.some((cause) => named.get(cause)?.has(subjects[0] ?? '')) &&
        !(rule === 'open-end' && isBroughtBack(subjects, named)),
    ),
  );
}

/** Both ends of a missing lead as one remark: of the end that signal leaves by, with what both bring back. */
function withoutOtherEnds(remarks: readonly Remark[]): Remark[] {
  const isOther = (one: Remark) => remarks.some((r) => r !== one && isOtherEnd(one, r));
  return remarks
    .filter((r) => !isOther(r))
    .map((r) => {
      const brought = remarks
        .filter((one) => isOtherEnd(one, r))
        .flatMap((one) => one.subjects.slice(1));
      return brought.length ? { ...r, subjects: [...new Set([...r.subjects, ...brought])] } : r;
    });
}

/** Whether of two open ends one is the input that the other's lead would go into: one lead is missing. */
const isOtherEnd = (one: Remark, other: Remark): boolean =>
  one.rule === 'open-end' &&
  other.rule === 'open-end' &&
  joinsOf(other).some(
    ({ from, to }) => from.device === other.subjects[0] && to.device === one.subjects[0],
  );

/** Leads that the fixes of a remark join. */
const joinsOf = ({ fix, others = [] }: Remark): Lead[] =>
  [...(fix ? [fix] : []), ...others]
    .flatMap(({ edits }) => edits)
    .flatMap((e) => (e.edit === 'connect' ? [e.lead] : []));

/** What brings back destinations that an open end would bring back. */
const BRINGS_BACK: readonly RuleId[] = ['half-loop', 'swapped', 'priority', 'wrong-way'];

/** Whether what would be heard again with a lead from an open end is heard again without it, by the cure of a cause. */
function isBroughtBack(
  [end, ...back]: readonly string[],
  named: Map<RuleId, Set<string>>,
): boolean {
  const others = back.filter((id) => id !== end);
  return (
    others.length > 0 &&
    BRINGS_BACK.some((cause) => others.every((id) => named.get(cause)?.has(id)))
  );
}
