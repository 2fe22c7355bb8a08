import { KINDS, kindOf } from '../kinds';
import { DEMO_RIGS, touringRig } from '../demo';
import { analyse } from '../report';
import { START_PEDALS } from '../start';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { applyEdits, type Edit, readRig, type Rig, writeRig } from '.';
import { loopAround, loopState } from './loop-holding';

const done = (rig: Rig, ...edits: Edit[]): Rig => valueOf(applyEdits(rig, edits)).rig;
const holders = KINDS.filter((k) => k.loops?.length && k.through && !k.hosts);
const alone = (kind: string): Rig =>
  rigOf(
    [
      device('g', 'guitar-active', 'Guitar'),
      device('h', kind, 'Holder'),
      device('x', 'boost', 'Other'),
      device('m', 'console-input', 'House'),
    ],
    [
      lead('l1', 'g.out', `h.${kindOf(kind).through!.in}`, 6),
      lead('l2', `h.${kindOf(kind).through!.out}`, 'x.in', 1),
      lead('l3', 'x.out', 'm.in', 6),
    ].filter((l) => kindOf(kind).jacks.every((j) => j.signal !== 'speaker' || l.id !== 'l2')),
    [sound('s1', 'One', ['h', 'x'])],
  );
const put = (id: string, kind: string, loop: string): Edit => ({
  edit: 'putInLoop',
  device: { id, kind, name: id },
  host: 'h',
  loop,
});

test.each(holders.map((k) => [k.id, k] as const))(
  '%s: every pedal goes into every loop with one step, behind what hangs there, and the file holds',
  (id, kind) => {
    for (const loop of kind.loops!)
      for (const pedal of START_PEDALS) {
        const one = done(alone(id), put('a', pedal.id, loop.id));
        const state = loopState(one, 'h', loop);
        expect([loop.id, pedal.id, state.is]).toEqual([loop.id, pedal.id, 'closed']);
        const two = done(one, put('b', 'boost', loop.id));
        expect(loopState(two, 'h', loop)).toMatchObject({ is: 'closed', devices: ['a', 'b'] });
        expect(readRig(writeRig(two)).ok).toBe(true);
        expect(loopAround(two, 'b')).toMatchObject({ host: 'h', loop: { id: loop.id } });
      }
  },
);

test('both sides are plugged where both have two, on one TRS jack too, each on its conductor', () => {
  const trs = holders.find((k) => k.loops!.some((l) => l.send.length === 2))!;
  const loop = trs.loops!.find((l) => l.send.length === 2)!;
  const leads = done(alone(trs.id), put('a', 'reverb', loop.id)).leads.filter(
    (l) => l.from.device === 'a' || l.to.device === 'a',
  );
  const stereo = kindOf('reverb');
  const pair = stereo.jacks.find((j) => j.id === stereo.through!.in)!.pair!.with;
  expect(
    leads.map((l) => [l.to.device === 'a' ? l.to.jack : l.from.jack, l.type, l.conductor]),
  ).toEqual([
    [stereo.through!.in, 'insert', 'tip'],
    [stereo.through!.out, 'insert', 'tip'],
    [pair, 'insert', 'ring'],
    [stereo.jacks.find((j) => j.id === stereo.through!.out)!.pair!.with, 'insert', 'ring'],
  ]);
});

test.each(
  KINDS.filter((k) => k.hosts && k.loops?.length && k.through).map((k) => [k.id, k] as const),
)(
  '%s: a pedal in any free loop is heard, and where it is bypassed all that was heard still is',
  (id, kind) => {
    const reached = (rig: Rig) =>
      analyse(rig).sounds.map((s) => s.destinations.map((d) => d.levelDbu !== null));
    const { devices, ...rest } = alone(id);
    const holder = devices.find((d) => d.id === 'h')!;
    const rig = done(
      { ...rest, devices: devices.filter((d) => d !== holder), leads: [] },
      { edit: 'addDevice', device: holder },
      ...rest.leads.map((l): Edit => ({ edit: 'connect', lead: l })),
    );
    for (const loop of kind.loops!)
      for (const pedal of ['boost', 'drive-mid', 'delay', 'reverb']) {
        const made = done(rig, put('a', pedal, loop.id));
        expect([loop.id, pedal, loopState(made, 'h', loop).is]).toEqual([loop.id, pedal, 'closed']);
        expect(reached(made)).toEqual(reached(rig));
        const walked = analyse(made).sounds[0]!.stations.map((s) => s.device);
        expect(walked).toContain('a');
        expect(readRig(writeRig(made)).ok).toBe(true);
      }
  },
);

test('a stereo path keeps its width: two loops for a stereo device, the front of it for a mono one', () => {
  const inside = (id: string, from: string, to: string) => lead(id, from, to, 0, 'inside');
  const rig = rigOf(
    [
      device('g', 'guitar-active', 'Guitar'),
      device('h', 'modeler-floor', 'Holder'),
      device('v', 'reverb', 'Hall', { host: 'h' }),
      device('m', 'console-input-stereo', 'House'),
    ],
    [
      lead('l1', 'g.out', 'h.in', 6),
      inside('i1', 'h.fromIn', 'v.in'),
      inside('i2', 'v.out', 'h.toOut'),
      inside('i3', 'v.outR', 'h.toOutR'),
      lead('l2', 'h.out', 'm.in', 10),
      lead('l3', 'h.outR', 'm.inR', 10),
    ],
    [sound('s1', 'One', ['g', 'h', 'v', 'a'])],
  );
  const channels = (r: Rig) => analyse(r).sounds[0]!.destinations.map((d) => d.channels);
  expect(channels(rig)).toEqual(['stereo']);
  const used = (r: Rig) =>
    r.leads.filter((l) => l.from.device === 'h' && /^send/.test(l.from.jack)).length;
  for (const [pedal, sends] of [
    ['delay-analog', 1],
    ['delay', 2],
  ] as const) {
    const made = done(rig, put('a', pedal, 'loop1'));
    expect([pedal, used(made), channels(made)]).toEqual([pedal, sends, ['stereo']]);
  }
});

test('one that stands in the chain moves in, heals where it stood, and keeps its other leads', () => {
  const rig = alone('loop-switcher');
  const moved = done(rig, put('x', 'boost', 'loop2'));
  expect(loopState(moved, 'h', kindOf('loop-switcher').loops![1]!)).toMatchObject({
    is: 'closed',
    devices: ['x'],
  });
  expect(moved.leads.find((l) => l.from.device === 'h' && l.from.jack === 'out')?.to.device).toBe(
    'm',
  );
  expect(moved.devices).toHaveLength(rig.devices.length);
  const refused = applyEdits(moved, [put('x', 'boost', 'loop2')]);
  expect(refused.ok ? '' : refused.problems[0]!.what).toBe('Other stands there already.');
});

test('a loop that is plugged on one side is told, and nothing is changed', () => {
  const rig = alone('loop-switcher');
  const half = { ...rig, leads: [...rig.leads, lead('l9', 'h.send1', 'x.in', 1)].slice(1) };
  const refused = applyEdits(half, [put('a', 'boost', 'loop1')]);
  expect(refused.ok ? '' : refused.problems[0]!.what).toMatch(
    /^Holder has loop 1 plugged on one side/,
  );
});

test('exchanged twice, every two devices of every rig stand as they stood; once, the file holds', () => {
  for (const rig of DEMO_RIGS) {
    const movable = rig.devices.filter((d) => kindOf(d.kind).through && !kindOf(d.kind).hosts);
    for (const [i, a] of movable.entries())
      for (const b of movable.slice(i + 1)) {
        const there = applyEdits(rig, [{ edit: 'exchange', device: a.id, with: b.id }]);
        if (!there.ok) continue;
        expect([a.id, b.id, readRig(writeRig(there.value.rig)).ok]).toEqual([a.id, b.id, true]);
        const back = done(there.value.rig, { edit: 'exchange', device: a.id, with: b.id });
        expect(back.leads.map((l) => [l.id, l.from, l.to])).toEqual(
          rig.leads.map((l) => [l.id, l.from, l.to]),
        );
      }
  }
});

test('two neighbours change their order, and what is heard goes through both still', () => {
  const [a, b] = ['kiln', 'flare'];
  const after = done(touringRig, { edit: 'exchange', device: a, with: b });
  const told = (rig: Rig) =>
    analyse(rig).sounds.map((s) => s.destinations.map((d) => [d.device, d.levelDbu !== null]));
  expect(told(after)).toEqual(told(touringRig));
});
