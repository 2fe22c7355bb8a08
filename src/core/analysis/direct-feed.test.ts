import { applyEdits, type Rig } from '../rig';
import { analyse, FixTrial } from '../report';
import { allOn, device, lead } from '../testing/rigs';

const unfiltered = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'unfiltered');
const fuzz = device('f', 'drive-high', 'Fuzz', { settings: { drive: 8, level: 3 } });
const line = { settings: { input: 'line' } };

test('one distorted source among clean ones is told, unless it is far under them', () => {
  const both = (levelB: number) =>
    allOn(
      [
        device('p', 'playback', 'Tracks'),
        device('g', 'guitar-active', 'Guitar'),
        fuzz,
        device('m', 'mixer-line', 'Mix', { settings: { levelB } }),
        device('c', 'console-input', 'Desk', line),
      ],
      [
        lead('1', 'p.out', 'm.a', 1),
        lead('2', 'g.out', 'f.in', 3),
        lead('3', 'f.out', 'm.b', 1),
        lead('4', 'm.out', 'c.in', 3),
      ],
    );
  expect(unfiltered(both(10))[0]).toMatchObject({ subjects: ['c'] });
  expect(unfiltered(both(1))).toEqual([]);
});

test('a simulator goes into both leads of a pair, switched on, and cures it', () => {
  const rig = allOn(
    [
      device('g', 'guitar-active', 'Guitar'),
      fuzz,
      device('d', 'delay', 'Delay'),
      device('c', 'console-input-stereo', 'Desk', line),
    ],
    [
      lead('1', 'g.out', 'f.in', 3),
      lead('2', 'f.out', 'd.in', 0.3),
      lead('3', 'd.out', 'c.in', 3),
      lead('4', 'd.outR', 'c.inR', 3),
    ],
  );
  const trial = new FixTrial(rig);
  const [finding, ...more] = trial.report.findings.filter((f) => f.rule === 'unfiltered');
  expect(more).toEqual([]);
  expect(finding!.fix!.edits[0]).toMatchObject({ device: { engaged: true } });
  expect(trial.try(finding!, finding!.fix!)).toMatchObject({ cures: true, breaks: [] });
});

test.each([
  ['one line', 'console-input', [['d.out', 'b1.in']], ['b1']],
  [
    'two lines',
    'console-input-stereo',
    [
      ['d.out', 'b1.in'],
      ['d.outR', 'b2.in'],
    ],
    ['b1', 'b2'],
  ],
] as const)(
  'behind direct boxes, on %s, it goes ahead of them, into every line, and cures it',
  (_, desk, lines, boxes) => {
    const rig = allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        fuzz,
        device('d', 'delay', 'Delay'),
        ...boxes.map((id) => device(id, 'direct-box', id)),
        device('c', desk, 'Desk'),
      ],
      [
        lead('1', 'g.out', 'f.in', 3),
        lead('2', 'f.out', 'd.in', 0.3),
        ...lines.map(([from, to], i) => lead(`a${i}`, from, to, 1)),
        ...boxes.map((id, i) => lead(`b${i}`, `${id}.out`, i ? 'c.inR' : 'c.in', 9, 'balanced')),
      ],
    );
    const trial = new FixTrial(rig);
    const [finding] = trial.report.findings.filter((f) => f.rule === 'unfiltered');
    const fix = finding!.fix!;
    expect(trial.try(finding!, fix)).toMatchObject({ cures: true, breaks: [] });
    const made = applyEdits(rig, fix.edits);
    const fed = made.ok ? made.value.rig.leads.filter((l) => l.to.device.startsWith('b')) : [];
    expect(fed.map((l) => l.from.device)).toEqual(boxes.map(() => 'cab-simulator'));
  },
);
