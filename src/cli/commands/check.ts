import { type Finding, type Fix, SEVERITIES } from '../../core/findings/finding';
import { analyse, cureAll, FixTrial, type Tried } from '../../core/report';
import { type Rig, writeRig } from '../../core/rig';
import { type Answer, command, EXIT, refuse } from '../command';

const lineOf = (f: Finding): string => {
  const fix = f.fix ? ` [fix: ${f.fix.words}]` : '';
  const accepted = f.accepted ? ` [accepted: ${f.accepted}]` : '';
  return `${f.severity.toUpperCase().padEnd(8)} ${f.what} ${f.why}${fix}${accepted}`;
};

/** A fix as it is printed, with what came of it where it was tried. */
const fixJson = (fix: Fix | undefined, tried: ReadonlyMap<string, Tried> | undefined) => {
  const outcome = fix && tried?.get(fix.words);
  return outcome ? { ...fix, tried: outcome } : fix;
};

/** What came of each fix on a copy, by the key of its finding and its own words. */
function trialsOf(rig: Rig): ReadonlyMap<string, ReadonlyMap<string, Tried>> {
  const trial = new FixTrial(rig);
  return new Map(
    trial.report.findings.map((f) => [
      f.key,
      new Map(
        [...(f.fix ? [f.fix] : []), ...(f.others ?? [])].map((fix) => [
          fix.words,
          trial.try(f, fix),
        ]),
      ),
    ]),
  );
}

interface Options {
  tried?: boolean;
  fix?: boolean;
  out?: string;
}

/** Applies every safe fix; the rig that comes of it is written with `--out`. */
async function cure(rig: Rig, out: string | undefined): Promise<Answer> {
  const { rig: cured, done } = await cureAll(rig);
  const left = analyse(cured).findings.filter((f) => f.accepted === undefined);
  const isFaulty = left.some((f) => f.severity === 'fault' || f.severity === 'danger');
  return {
    json: { rig: rig.name, done, left: left.map((f) => ({ key: f.key, what: f.what })) },
    lines: [
      ...done.map((d) => `${d.words}: cures "${d.what}"`),
      `${done.length} fixed, ${left.length} left.`,
    ],
    ...(out !== undefined && { content: writeRig(cured) }),
    exit: isFaulty ? EXIT.faulty : EXIT.fine,
  };
}

export const check = command<Options>({
  name: 'check',
  about:
    'findings; exit 0 with nothing worse than caution, 1 with a fault or danger, 2 if a file ' +
    'cannot be read, 3 if Yantrel itself fails',
  options: [
    { flags: '--tried', about: 'with --json: what came of each fix on a copy (slower)' },
    { flags: '--fix', about: 'apply every fix that cures and breaks nothing' },
    { flags: '--out <file>', about: 'with --fix: where the cured rig is written' },
  ],
  run: (rig, { tried, fix: wanted, out }) => {
    if (wanted) return cure(rig, out);
    if (out !== undefined) refuse('--out goes with --fix: it is where the cured rig is written.');
    const { findings } = analyse(rig);
    const trials = tried ? trialsOf(rig) : undefined;
    const open = findings.filter((f) => f.accepted === undefined);
    const counts = SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`);
    const isFaulty = open.some((f) => f.severity === 'fault' || f.severity === 'danger');
    return {
      json: findings.map(
        ({ key, rule, severity, subjects, sounds, what, why, fix, others, accepted }) => ({
          key,
          rule,
          severity,
          subjects,
          sounds,
          what,
          why,
          fix: fixJson(fix, trials?.get(key)),
          others: others?.map((o) => fixJson(o, trials?.get(key))),
          accepted,
        }),
      ),
      lines: [`${rig.name}: ${counts.join(', ')}`, ...findings.map(lineOf)],
      exit: isFaulty ? EXIT.faulty : EXIT.fine,
    };
  },
});
