import { analyse, FixTrial, isSafe } from '../report';
import type { Control, Rig } from '../rig';
import { device as d, lead as l, rigOf, sound as s } from '../testing/rigs';

type Curve = 'linear' | 'equal-power';

/** One source or two, each way through a level of its own, into one input; a pedal fades from one to the other. */
const faded = (isOneSource: boolean, curve: Curve, rest: Partial<Control> = {}): Rig =>
  rigOf(
    [
      d('g', 'guitar-active', 'One'),
      d('h', 'guitar-active', 'Other'),
      d('fork', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      d('u', 'volume-active', 'Up'),
      d('w', 'volume-active', 'Down'),
      d('m', 'mixer-line', 'Sum'),
      d('c', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      ...(isOneSource
        ? [l('1', 'g.out', 'fork.in', 1), l('2', 'fork.a', 'u.in', 1), l('3', 'fork.b', 'w.in', 1)]
        : [l('2', 'g.out', 'u.in', 1), l('3', 'h.out', 'w.in', 1)]),
      l('4', 'u.out', 'm.a', 1),
      l('5', 'w.out', 'm.b', 1),
      l('6', 'm.out', 'c.in', 1),
    ],
    [s('x', 'X', ['g', 'h'])],
    {
      controls: [
        {
          id: 'f',
          name: 'Fade',
          type: 'pedal',
          assigns: [
            { id: '1', device: 'u', setting: 'pedal', min: 0, max: 10, curve },
            { id: '2', device: 'w', setting: 'pedal', min: 10, max: 0, curve },
          ],
          ...rest,
        },
      ],
    },
  );
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
