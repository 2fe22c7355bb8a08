import { type Finding, isWorse, type Remark, SEVERITIES } from '../findings/finding';
import { cutText } from '../rig';
import type { Rig } from '../rig/schema';

const keyOf = (r: Remark): string => cutText(`${r.rule}:${r.about ?? r.subjects.join('+')}`, 400);

/**
 * Joins the remarks of all sounds into findings: one for each matter and subject, with the wording
 * of the worst sound.
 */
export function gatherFindings(
  rig: Rig,
  bySound: { sound: string; remarks: readonly Remark[] }[],
): Finding[] {
  const found = new Map<string, Finding>();
  const accepted = new Map((rig.accepted ?? []).map((a) => [a.finding, a.reason]));
  for (const { sound, remarks } of bySound) {
    for (const remark of remarks) {
      const key = keyOf(remark);
      const known = found.get(key);
      if (!known) found.set(key, { ...remark, key, sounds: [sound], accepted: accepted.get(key) });
      else {
        if (!known.sounds.includes(sound)) known.sounds.push(sound);
        if (isWorse(remark.severity, known.severity))
          Object.assign(known, {
            severity: remark.severity,
            what: remark.what,
            why: remark.why,
            fix: remark.fix,
            others: remark.others,
          });
      }
    }
  }
  return [...found.values()].sort(
    (a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity),
  );
}
