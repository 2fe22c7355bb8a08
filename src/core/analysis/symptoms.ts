import type { Remark } from '../findings/finding';
import type { RuleId } from '../findings/rules';
import type { Lead } from '../rig/schema';

/** What keeps signal from somebody, by what its cure brings back. */
const CAUSES: readonly RuleId[] = [
  'open-end',
  'half-loop',
  'priority',
  'swapped',
  'wrong-way',
  'no-load',
];

/** What follows from something else, by the rules that name its cause. */
const FOLLOWS: Partial<Record<RuleId, readonly RuleId[]>> = {
  'no-route': CAUSES,
  silent: [...CAUSES, 'polarity', 'half-pair'],
  'dead-end': CAUSES,
  // What runs round only while two plugs are in each other’s jack.
  howl: ['swapped'],
  // The box that hangs on half of a loop.
  'open-end': ['half-loop', 'wrong-way'],
  'half-wide': ['half-pair'],
  // What gets less for the side that is missing.
  'input-level': ['half-pair'],
  // What hangs on an output that is told as open.
  'unheard-effect': CAUSES,
  // The one side that is plugged, where the lead of the other is named.
  'half-pair': ['open-end'],
};

/** What is said of ways of leads, whatever a sound switches: what explains it in one explains it in all. */
const OF_WAYS: ReadonlySet<RuleId> = new Set(['no-route', 'dead-end']);
const wayOf = ({ rule, subjects }: Pick<Remark, 'rule' | 'subjects'>): string =>
  `${rule} ${subjects[0] ?? ''}`;

/** The remarks of one sound that say something of their own, and ways of which a cause told here says it. */
export interface Causes {
  remarks: Remark[];
  explained: string[];
}

/**
 * The remarks of one sound without those that only say what follows from another: a destination that
 * nothing reaches, where the cure of a cause, made on a copy, lets it hear again. Causes name, after
 * their own place, what their cure brings back.
 */
export function withoutSymptoms(all: readonly Remark[]): Causes {
  const missed = namesOf(all.filter(isMissingLead));
  const remarks = all.filter((r) => r.rule !== 'swapped' || !isOfMissingLead(r, missed));
  const named = namesOf(remarks);
  const follows = ({ rule, subjects }: Remark) =>
    FOLLOWS[rule]?.some((cause) => named.get(cause)?.has(subjects[0] ?? '')) === true;
  const missing = remarks.filter((r) => r.rule === 'no-route' || r.rule === 'open-end');
  const own = remarks.filter(
    (r) =>
      !follows(r) &&
      !(r.rule === 'open-end' && isBroughtBack(r.subjects, named)) &&
      !(r.rule === 'unheard-effect' && missing.some((o) => leavesBy(o, r))) &&
      !(isLoneSide(r) && remarks.some((o) => o !== r && namesOtherEnd(o, r))),
  );
  return {
    remarks: withoutOtherEnds(own),
    explained: remarks
      .filter((r) => r.rule === 'no-route' || CAUSES.includes(r.rule))
      .flatMap((r) => r.subjects.slice(1))
      .flatMap((subject) => [...OF_WAYS].map((rule) => wayOf({ rule, subjects: [subject] }))),
  };
}

/**
 * What is said of one sound without the ways that a cause explains in another: the lead that is missing
 * there is missing in a sound that is muted, too, where no cure lets anybody hear.
 */
export const unexplained = (remarks: readonly Remark[], explained: ReadonlySet<string>): Remark[] =>
  remarks.filter((r) => !OF_WAYS.has(r.rule) || !explained.has(wayOf(r)));

/** What is named as missing one lead; a way that nothing leads to names the open jack that it begins at. */
const isMissingLead = ({ rule, subjects }: Remark): boolean =>
  rule === 'half-loop' || rule === 'open-end' || (rule === 'no-route' && subjects.length > 1);

/** By rule, all that its remarks are about. */
function namesOf(remarks: readonly Remark[]): Map<RuleId, Set<string>> {
  const named = new Map<RuleId, Set<string>>();
  for (const { rule, subjects } of remarks) {
    const known = named.get(rule) ?? new Set();
    for (const subject of subjects) known.add(subject);
    named.set(rule, known);
  }
  return named;
}

/** Whether all that an exchange of plugs would bring back is back with leads that are missing: that is likelier. */
function isOfMissingLead(
  { subjects: [device, ...others], about = '' }: Remark,
  missed: Map<RuleId, Set<string>>,
): boolean {
  const leads = new Set(about.split('+'));
  const back = others.filter((id) => id !== device && !leads.has(id));
  return back.length > 0 && back.every((id) => [...missed.values()].some((about) => about.has(id)));
}

/** Whether a remark says of one box that only one side of it is plugged. */
const isLoneSide = ({ rule, subjects, about }: Remark): boolean =>
  rule === 'half-pair' && about !== undefined && about === subjects[0];

/** Whether the lead that another remark misses would leave by the box whose output is open. */
const leavesBy = (other: Remark, { subjects: [box = ''] }: Remark): boolean =>
  other.rule === 'no-route'
    ? other.subjects.includes(box)
    : other.rule === 'open-end' && joinsOf(other)[0]?.from.device === box;

/** Whether another remark is about the lead that would go into the side that is free. */
function namesOtherEnd(other: Remark, { subjects: [box = ''] }: Remark): boolean {
  if (other.rule === 'half-pair')
    return isLoneSide(other) ? other.subjects.indexOf(box) > 0 : other.subjects.includes(box);
  if (other.rule === 'no-route') return other.subjects.includes(box);
  if (other.rule !== 'open-end') return false;
  const [lead] = joinsOf(other);
  return lead !== undefined && [lead.from.device, lead.to.device].includes(box);
}

/** Both ends of a missing lead as one remark: of the end that signal leaves by, with what both bring back. */
function withoutOtherEnds(remarks: readonly Remark[]): Remark[] {
  const ends = remarks.filter((r) => r.rule === 'open-end');
  if (ends.length < 2) return [...remarks];
  const isOther = (one: Remark) => ends.some((r) => r !== one && isOtherEnd(one, r));
  return remarks
    .filter((r) => !isOther(r))
    .map((r) => {
      const brought = ends
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
