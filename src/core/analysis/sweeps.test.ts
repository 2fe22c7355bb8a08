import { analyse, FixTrial, isSafe } from '../report';
import type { Control, Rig } from '../rig';
import { fadeControl, fadedRig } from '../testing/rigs';

type Curve = 'linear' | 'equal-power';

const faded = (isOneSource: boolean, curve: Curve, rest: Partial<Control> = {}): Rig =>
  fadedRig(isOneSource, { controls: [fadeControl(curve, rest)] });
const told = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'sweep');

test.each([
  ['two sources on linear curves dip', false, 'linear', /dips 3\.0\d dB at 50 %/, 'equal power'],
  ['one source on equal power swells', true, 'equal-power', /bump of 3\.0\d dB at 50 %/, 'linear'],
] as const)('%s, and the other curves cure it', (_, isOne, curve, verdict, cure) => {
  const trial = new FixTrial(faded(isOne, curve));
  const finding = trial.report.findings.find((f) => f.rule === 'sweep')!;
  expect(finding).toMatchObject({ severity: 'advice', about: 'f' });
  expect(finding.what).toMatch(verdict);
  const [way] = trial.waysOut(finding);
  expect(way!.fix.words).toContain(`curves that are ${cure}`);
  expect(isSafe(way!.tried)).toBe(true);
});

test.each([
  ['two sources on equal power', faded(false, 'equal-power')],
  ['one source on linear curves', faded(true, 'linear')],
  [
    'a pedal that moves both up',
    faded(false, 'linear', {
      assigns: ['u', 'w'].map((device, i) => ({ id: `${i}`, device, setting: 'pedal' })),
    }),
  ],
  ['a fade that holds in another sound', faded(false, 'linear', { assigns: [] })],
])('%s: not told', (_, rig) => expect(told(rig)).toEqual([]));

test('a change of the control is judged anew', () => {
  const rig = faded(false, 'linear');
  const trial = new FixTrial(rig);
  expect(trial.report.findings.some((f) => f.rule === 'sweep')).toBe(true);
  const even = faded(false, 'equal-power').controls;
  expect(told({ ...rig, controls: even })).toEqual([]);
});
