import { type Finding, type Fix, openCounts } from '../../core/findings/finding';
import { analyse, Analyser, cureAll, FixTrial, isSafe, type Tried } from '../../core/report';
import { type Rig, writeRig } from '../../core/rig';
import { type Answer, command, EXIT, refuse } from '../command';

/** What cures a finding: a safe fix where there is one, and the other ways. */
interface Cures {
  fix?: Fix & { tried?: Tried };
  others?: (Fix & { tried?: Tried })[];
}

/**
 * What cures each finding, by its key: every fix is tried on a copy, what does not cure is left out,
 * and only what breaks nothing is called the fix.
 */
function triedCures(trial: FixTrial): ReadonlyMap<string, Cures> {
  return new Map(
    trial.report.findings.map((f) => {
      const ways = trial.waysOut(f).map(({ fix, tried }) => ({ ...fix, tried }));
      const [best, ...rest] = ways;
      const isBestSafe = best && isSafe(best.tried);
      const others = isBestSafe ? rest : ways;
      return [f.key, { ...(isBestSafe && { fix: best }), ...(others.length && { others }) }];
    }),
  );
}

function lineOf(f: Finding, cures: Cures | undefined): string {
  const accepted = f.accepted ? ` [accepted: ${f.accepted}]` : '';
  const ways = [...(cures?.fix ? [cures.fix] : []), ...(cures?.others ?? [])].map(
    ({ words, tried }) => {
      const breaks = tried?.breaks.length ? `, but breaks: ${tried.breaks.join('; ')}` : '';
      const costs = tried?.costs.length ? `, and: ${tried.costs.join('; ')}` : '';
      return ` [cured by: ${words}${breaks}${costs}]`;
    },
  );
  return `${f.severity.toUpperCase().padEnd(8)} ${f.what} ${f.why}${ways.join('')}${accepted}`;
}

interface Options {
  json?: boolean;
  tried?: boolean;
  untried?: boolean;
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
    { flags: '--tried', about: 'as text, too: every fix tried on a copy, with what comes of it' },
    {
      flags: '--untried',
      about: 'with --json: fixes as they come to mind, not tried on a copy (much faster)',
    },
    { flags: '--fix', about: 'apply every fix that cures and breaks nothing' },
    { flags: '--out <file>', about: 'with --fix: where the cured rig is written' },
  ],
  run: (rig, { json, tried, untried, fix: wanted, out }) => {
    if (wanted) return cure(rig, out);
    if (out !== undefined) refuse('--out goes with --fix: it is where the cured rig is written.');
    const trial = (json || tried) && !untried ? new FixTrial(rig) : undefined;
    const cures = trial && triedCures(trial);
    const { findings } =
      trial?.report ?? (untried ? Analyser.withWaysOut().analyse(rig) : analyse(rig));
    const open = findings.filter((f) => f.accepted === undefined);
    const isFaulty = open.some((f) => f.severity === 'fault' || f.severity === 'danger');
    return {
      json: findings.map((f) => {
        const { key, rule, severity, subjects, sounds, what, why, accepted } = f;
        const { fix, others } = cures ? (cures.get(key) ?? {}) : f;
        return { key, rule, severity, subjects, sounds, what, why, fix, others, accepted };
      }),
      lines: [
        `${rig.name}: ${openCounts(findings)}`,
        ...findings.map((f) => lineOf(f, cures?.get(f.key))),
      ],
      exit: isFaulty ? EXIT.faulty : EXIT.fine,
    };
  },
});
