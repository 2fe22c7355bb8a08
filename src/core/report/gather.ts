import { type Finding, type Fix, isWorse, type Remark, SEVERITIES } from '../findings/finding';
import { byKey } from '../graph';
import type { RuleId } from '../findings/rules';
import { type Edit, cutText } from '../rig';
import type { Rig } from '../rig/schema';

const keyOf = (r: Remark): string => cutText(`${r.rule}:${r.about ?? r.subjects.join('+')}`, 400);

/**
 * Joins the remarks of all sounds into findings: one for each matter and subject, with the wording
 * of the worst sound, and fixes that cure it in every sound that shows it.
 */
export function gatherFindings(
  rig: Rig,
  bySound: { sound: string; remarks: readonly Remark[] }[],
): Finding[] {
  const found = new Map<string, { finding: Finding; all: Remark[] }>();
  const accepted = new Map((rig.accepted ?? []).map((a) => [a.finding, a.reason]));
  for (const { sound, remarks } of bySound) {
    for (const remark of remarks) {
      const key = keyOf(remark);
      const known = found.get(key);
      if (!known) {
        const finding = { ...remark, key, sounds: [sound], accepted: accepted.get(key) };
        found.set(key, { finding, all: [remark] });
        continue;
      }
      known.all.push(remark);
      const { finding } = known;
      if (!finding.sounds.includes(sound)) finding.sounds.push(sound);
      if (isWorse(remark.severity, finding.severity))
        Object.assign(finding, {
          severity: remark.severity,
          what: remark.what,
          why: remark.why,
          fix: remark.fix,
          others: remark.others,
        });
    }
  }
  for (const { finding, all } of found.values())
    if (finding.sounds.length > 1) spread(finding, all);
  return withOneCause(
    rig,
    [...found.values()].map(({ finding }) => finding),
  ).sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
}

/** Rules of which two findings that the same edits cure are one matter, told at two places. */
const ONE_CAUSE: ReadonlySet<RuleId> = new Set([
  'buffer-place',
  'half-loop',
  'half-pair',
  'impedance',
  'no-load',
  'polarity',
]);

/** Findings without those that the first fix of another, of the same rule, cures: told with that one. */
function withOneCause({ sounds }: Rig, findings: readonly Finding[]): Finding[] {
  const place = (id: string) => sounds.findIndex((s) => s.id === id);
  const hasCause = (f: Finding) =>
    f.fix !== undefined && f.accepted === undefined && ONE_CAUSE.has(f.rule);
  const causes = byKey(findings.filter(hasCause), (f) =>
    JSON.stringify([f.rule, f.severity, f.fix?.edits]),
  );
  const joined = new Map(
    [...causes.values()].map((all) => {
      const [most, ...others] = all.toSorted((a, b) => (b.stake ?? 0) - (a.stake ?? 0));
      return [all[0], most && others.length ? asOne(most, others, place) : all[0]];
    }),
  );
  return findings.flatMap((f) => (hasCause(f) ? (joined.get(f) ?? []) : [f]));
}

const asOne = (
  most: Finding,
  others: readonly Finding[],
  place: (sound: string) => number,
): Finding => ({
  ...most,
  subjects: [...new Set([most, ...others].flatMap((f) => f.subjects))],
  sounds: [...new Set([most, ...others].flatMap((f) => f.sounds))].sort(
    (a, b) => place(a) - place(b),
  ),
  ...(most.severity === 'danger'
    ? { what: [most, ...others].map((f) => f.what).join(' ') }
    : { why: `${most.why} From the same cause: ${others.map((f) => f.what).join(' ')}` }),
});

const fixesOf = ({ fix, others }: Remark): Fix[] => [...(fix ? [fix] : []), ...(others ?? [])];

/** What an edit does, whichever sound it does it in and to whatever value. */
const shapeOf = (edits: readonly Edit[]): string =>
  JSON.stringify(edits.map((e) => ({ ...e, sound: undefined, value: undefined })));
const isOfSound = (e: Edit): boolean => 'sound' in e && e.sound !== undefined;

/**
 * Lets each fix that acts in one sound act in all that show the finding: the like fix of each of them
 * is joined to it, under the words of all where they differ.
 */
function spread(finding: Finding, all: readonly Remark[]): void {
  const [fix, ...others] = fixesOf(finding).map((own): Fix => {
    if (!own.edits.some(isOfSound)) return own;
    const shape = shapeOf(own.edits);
    const like = all.flatMap((r) => fixesOf(r).filter((f) => shapeOf(f.edits) === shape));
    const edits = new Map(like.flatMap((f) => f.edits).map((e) => [JSON.stringify(e), e]));
    return {
      words: [...new Set(like.map((f) => f.words))].join('; '),
      edits: [...edits.values()],
    };
  });
  if (fix) Object.assign(finding, { fix, ...(finding.others && { others }) });
}
