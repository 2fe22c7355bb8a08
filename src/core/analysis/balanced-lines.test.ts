import { FixTrial } from '../report';
import { allOn, device, lead } from '../testing/rigs';

const rig = (kind: string, type: 'balanced' | 'instrument') =>
  allOn(
    [
      device('m', kind, 'Voice'),
      device('c', 'console-input', 'Desk', { settings: { input: 'mic' } }),
    ],
    [lead('1', 'm.out', 'c.in', 8, type)],
  );

test('a lead of one conductor between two balanced jacks is told with its length, and a balanced one cures it', () => {
  const trial = new FixTrial(rig('microphone-voice', 'instrument'));
  const told = trial.report.findings.find((f) => f.rule === 'unbalanced-line')!;
  expect(told).toMatchObject({ severity: 'caution', subjects: ['m', 'c'] });
  expect(told.why).toContain('8.0 m');
  expect(trial.waysOut(told)[0]).toMatchObject({
    fix: { words: 'Take a balanced lead' },
    tried: { cures: true, breaks: [] },
  });
  const right = new FixTrial(rig('microphone-voice', 'balanced'));
  expect(right.report.findings.map((f) => f.rule)).not.toContain('unbalanced-line');
});
