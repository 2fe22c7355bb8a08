import { applyEdits, type Edit, type Rig } from '../rig';
import { isSafe } from './outcomes';
import { FixTrial, fixesOf } from './tried';

/** More turns than any start needs. */
const MOST_TURNS = 12;

/** A fix that was taken, and what it cures. */
export interface Settlement {
  words: string;
  cures: string;
}

/** A rig that was settled, and how. */
export interface Settled {
  rig: Rig;
  steps: Settlement[];
}

/** Edits that take nothing away that was asked for. */
const ADDS: readonly Edit['edit'][] = [
  'setSetting',
  'addDevice',
  'insertInLead',
  'connect',
  'disconnect',
  'setMidi',
];

/**
 * A rig in which what is worse than advice is cured as far as it can be: one fix after the other, each
 * tried as any fix is, and only what breaks nothing is taken. `how` says whether knobs and switches
 * alone are touched, or boxes and leads can come, too; nothing that is there goes.
 */
export function settle(rig: Rig, how: 'settings' | 'boxes'): Settled {
  const steps: Settlement[] = [];
  const may: readonly Edit['edit'][] = how === 'settings' ? ['setSetting'] : ADDS;
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const trial = new FixTrial(rig);
    const found = trial.report.findings
      .filter((f) => f.severity !== 'advice')
      .flatMap((finding) => fixesOf(finding).map((fix) => ({ finding, fix })))
      .filter(({ fix }) => fix.edits.every((e) => may.includes(e.edit)))
      .find(({ finding, fix }) => isSafe(trial.try(finding, fix)));
    if (!found) break;
    const applied = applyEdits(rig, found.fix.edits);
    if (!applied.ok) break;
    rig = applied.value.rig;
    steps.push({ words: found.fix.words, cures: found.finding.what });
  }
  return { rig, steps };
}

/** A rig whose knobs and switches are set so that what a setting alone cures is cured. */
export const settled = (rig: Rig): Rig => settle(rig, 'settings').rig;
