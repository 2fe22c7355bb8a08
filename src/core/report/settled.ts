import { applyEdits, type Rig } from '../rig';
import { FixTrial, fixesOf, isSafe } from './tried';

/** More turns than any start needs. */
const MOST_TURNS = 12;

/**
 * A rig whose knobs and switches are set so that what a setting alone cures is cured: a boost that
 * clips is turned down, an input at the wrong level is set. Each is tried as any fix is, and only
 * what breaks nothing is taken; no device comes, goes or moves.
 */
export function settled(rig: Rig): Rig {
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const trial = new FixTrial(rig);
    const found = trial.report.findings
      .filter((f) => f.severity !== 'advice')
      .flatMap((finding) => fixesOf(finding).map((fix) => ({ finding, fix })))
      .filter(({ fix }) => fix.edits.every((e) => e.edit === 'setSetting'))
      .find(({ finding, fix }) => isSafe(trial.try(finding, fix)));
    const applied = found && applyEdits(rig, found.fix.edits);
    if (!applied?.ok) return rig;
    rig = applied.value.rig;
  }
  return rig;
}
