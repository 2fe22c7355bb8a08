import { analyse, FixTrial, isSafe } from '../report';
import type { Assignment, Control } from '../rig';
import { fadeControl, fadedRig } from '../testing/rigs';

const moves = (u: Partial<Assignment>, w: Partial<Assignment>): Assignment[] => [
  { id: '1', device: 'u', setting: 'pedal', ...u },
  { id: '2', device: 'w', setting: 'pedal', ...w },
];
const up = { min: 0, max: 10 };
const down = { min: 10, max: 0 };
const pedal = (name: string, assigns: Assignment[]): Control => ({
  id: 'p',
  name,
  type: 'pedal',
  assigns,
});
const swap: Control = {
  id: 's',
  name: 'Other path',
  type: 'switch',
  action: 'latching',
  assigns: moves({ off: 10, on: 0 }, { off: 0, on: 10 }),
};
const told = (...controls: Control[]) =>
  analyse(fadedRig(false, { controls })).findings.filter((f) => f.rule === 'control-same-way');

test('a second range beside a switch that sends the same two apart is turned about by its fix', () => {
  const rig = fadedRig(false, { controls: [swap, pedal('Foot', moves(up, up))] });
  const trial = new FixTrial(rig);
  const finding = trial.report.findings.find((f) => f.rule === 'control-same-way')!;
  expect(finding.what).toBe('Foot moves Up and Down the same way.');
  expect(finding.why).toBe(
    'Other path sends the same two opposite ways, so that one comes as the other goes.',
  );
  const [way] = trial.waysOut(finding);
  expect(way!.fix.words).toBe('Turn the range of Down about');
  expect(isSafe(way!.tried)).toBe(true);
  const edit = way!.fix.edits[0];
  expect(edit?.edit === 'setControl' && edit.control.assigns[1]).toMatchObject(down);
});

test.each([
  ['a switch', { ...swap, name: 'Swap', assigns: moves({ off: 0, on: 10 }, { off: 0, on: 10 }) }],
  ['a pedal', pedal('Crossfade', moves({}, {}))],
])('%s whose name says that one goes as the other comes', (_, control) =>
  expect(told(control)).toHaveLength(1),
);

test.each<[string, Control[]]>([
  ['one pedal for both, where nothing says otherwise', [pedal('Both', moves(up, up))]],
  ['opposite ranges', [swap, pedal('Foot', moves(up, down))]],
  ['ranges that move nothing', [swap, pedal('Foot', moves({ min: 5, max: 5 }, up))]],
  ['a crossfade of its own', [fadeControl('equal-power')]],
  ['one setting twice', [pedal('Swap', [...moves(up, up).slice(0, 1)])]],
  [
    'a device that is gone',
    [pedal('Swap', [...moves(up, up).slice(0, 1), { id: '3', device: 'gone', setting: 'pedal' }])],
  ],
])('%s: not told', (_, controls) => expect(told(...controls)).toEqual([]));
