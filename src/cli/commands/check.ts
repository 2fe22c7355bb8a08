import { type Finding, SEVERITIES } from '../../core/findings/finding';
import { analyse } from '../../core/report';
import { command, EXIT } from '../command';

const lineOf = (f: Finding): string => {
  const fix = f.fix ? ` [fix: ${f.fix.words}]` : '';
  const accepted = f.accepted ? ` [accepted: ${f.accepted}]` : '';
  return `${f.severity.toUpperCase().padEnd(8)} ${f.what} ${f.why}${fix}${accepted}`;
};

export const check = command({
  name: 'check',
  about:
    'findings; exit 0 with nothing worse than caution, 1 with a fault or danger, 2 if a file ' +
    'cannot be read, 3 if Yantrel itself fails',
  options: [],
  run: (rig) => {
    const { findings } = analyse(rig);
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
          fix,
          others,
          accepted,
        }),
      ),
      lines: [`${rig.name}: ${counts.join(', ')}`, ...findings.map(lineOf)],
      exit: isFaulty ? EXIT.faulty : EXIT.fine,
    };
  },
});
