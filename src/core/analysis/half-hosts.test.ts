import { applyEdits, type Lead, type Rig } from '../rig';
import { analyse, FixTrial, isSafe } from '../report';
import { allOn, device, lead } from '../testing/rigs';

const inside = (id: string, from: string, to: string): Lead => ({
  ...lead(id, from, to, 0),
  type: 'inside',
});

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
const without = (rig: Rig, ...ids: string[]): Rig => ({
  ...rig,
  leads: rig.leads.filter((l) => !ids.includes(l.id)),
});
const halves = (rig: Rig) =>
  analyse(rig).findings.filter((f) => f.rule === 'half-pair' && f.severity === 'caution');
const endsOf = (rig: Rig): string[] =>
  rig.leads.map((l) => `${l.from.device}.${l.from.jack} ${l.to.device}.${l.to.jack}`).sort();

test('both sides plugged: nothing of the kind is told', () => {
  expect(halves(loop)).toEqual([]);
});

test.each(['left', 'right'])('the %s return that fell out is told, and plugged again', (id) => {
  const rig = without(loop, id);
  const trial = new FixTrial(rig);
  const told = trial.report.findings.find((f) => f.severity !== 'advice')!;
  const [best] = trial.waysOut(told);
  expect(isSafe(best!.tried)).toBe(true);
  const made = applyEdits(rig, best!.fix.edits);
  expect(made.ok && endsOf(made.value.rig)).toEqual(endsOf(loop));
});

test('the right return is named with both boxes', () => {
  const [half] = halves(without(loop, 'right'));
  expect(half!.what).toBe('Hall and Modeler are both stereo, but one lead joins them.');
  expect(half!.why).toMatch(/^Inside, both sides are wired/);
});

test('mono on purpose is silent: one side wired inside, or nothing stereo outside', () => {
  expect(halves(without(loop, 'right', '6'))).toEqual([]);
  const mono = {
    ...without(loop, 'right'),
    devices: loop.devices.map((d) => (d.id === 'r' ? device('r', 'compressor', 'Squeeze') : d)),
  };
  expect(halves(mono)).toEqual([]);
});

test('a rig of many sounds says it once', () => {
  const rig = without(loop, 'right');
  const [sound] = rig.sounds;
  const twice = { ...rig, sounds: [sound!, { ...sound!, id: 's2', name: 'Two' }] };
  expect(halves(twice)).toHaveLength(1);
});
