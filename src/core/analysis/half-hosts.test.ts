import { applyEdits, type Rig } from '../rig';
import { analyse, FixTrial, isSafe } from '../report';
import { allOn, device, inside, lead, wiringOf, withoutLeads } from '../testing/rigs';

/** A stereo reverberation in a loop of a modeler, and both sides of it through a cabinet block to the desk. */
const loop: Rig = allOn(
  [
    device('g', 'guitar-active', 'Guitar'),
    device('m', 'modeler-rack', 'Modeler'),
    device('amp', 'amp-block', 'Amp', { host: 'm' }),
    device('cab', 'cab-block', 'Cabinet block', { host: 'm' }),
    device('r', 'reverb', 'Hall'),
    device('desk', 'console-input-stereo', 'House', { settings: { input: 'line' } }),
  ],
  [
    lead('1', 'g.out', 'm.in', 3),
    inside('2', 'm.fromIn', 'amp.in'),
    inside('3', 'amp.out', 'm.toSend1'),
    lead('4', 'm.send1', 'r.in', 1),
    lead('left', 'r.out', 'm.return1', 1),
    lead('right', 'r.outR', 'm.return2', 1),
    inside('5', 'm.fromReturn1', 'cab.in'),
    inside('6', 'm.fromReturn2', 'cab.inR'),
    inside('7', 'cab.out', 'm.toOut'),
    inside('8', 'cab.outR', 'm.toOutR'),
    lead('line left', 'm.out', 'desk.in', 9, 'balanced'),
    lead('line right', 'm.outR', 'desk.inR', 9, 'balanced'),
  ].map((l) => ({ ...l, id: l.id.replace(' ', '-') })),
);
const halves = (rig: Rig) =>
  analyse(rig).findings.filter((f) => f.rule === 'half-pair' && f.severity === 'caution');

test('both sides plugged: nothing of the kind is told', () => {
  expect(halves(loop)).toEqual([]);
});

test.each(['left', 'right'])('the %s return that fell out is told, and plugged again', (id) => {
  const rig = withoutLeads(loop, id);
  const trial = new FixTrial(rig);
  const told = trial.report.findings.find((f) => f.severity !== 'advice')!;
  const [best] = trial.waysOut(told);
  expect(isSafe(best!.tried)).toBe(true);
  const made = applyEdits(rig, best!.fix.edits);
  expect(made.ok && wiringOf(made.value.rig)).toEqual(wiringOf(loop));
});

test('the right return is named with both boxes', () => {
  const [half] = halves(withoutLeads(loop, 'right'));
  expect(half!.what).toBe('Hall and Modeler are both stereo, but one lead joins them.');
  expect(half!.why).toMatch(/^Inside, both sides are wired/);
});

test('mono on purpose is silent: one side wired inside, or nothing stereo outside', () => {
  expect(halves(withoutLeads(loop, 'right', '6'))).toEqual([]);
  const mono = {
    ...withoutLeads(loop, 'right'),
    devices: loop.devices.map((d) => (d.id === 'r' ? device('r', 'compressor', 'Squeeze') : d)),
  };
  expect(halves(mono)).toEqual([]);
});

test('a rig of many sounds says it once', () => {
  const rig = withoutLeads(loop, 'right');
  const [sound] = rig.sounds;
  const twice = { ...rig, sounds: [sound!, { ...sound!, id: 's2', name: 'Two' }] };
  expect(halves(twice)).toHaveLength(1);
});
