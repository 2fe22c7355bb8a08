import { heardIn } from '../control';
import { brokenRig, touringRig } from '../demo';
import { sectionScene } from '../songs';
import { device, lead, rigOf, sound } from '../testing/rigs';
import {
  begin,
  call,
  landingLevels,
  recovery,
  runChange,
  setStage,
  soundNow,
  stepAll,
  stepOn,
  whatIsOff,
} from '.';

const stage = setStage(touringRig);
const scene = (id: string) => stage.scene(id)!;

test('everything stands as the first sound wants it, and sounds so', () => {
  const now = begin(touringRig, stage, scene('flat'));
  expect(whatIsOff(touringRig, stage, now, scene('flat'))).toEqual([]);
  const level = (s: ReturnType<typeof soundNow>) =>
    heardIn(touringRig, s).map((d) => d.levelDbu?.normal ?? null);
  expect(level(soundNow(now, scene('flat')))).toEqual(level(scene('flat').sound));
});

test('calling a sound sets what messages reach; what is on foot is left to do, and then nothing is', () => {
  const { now, change } = call(stage, begin(touringRig, stage, scene('flat')), scene('lead'));
  expect(change.pressed).toEqual(['skeg']);
  const off = whatIsOff(touringRig, stage, now, scene('lead'));
  expect([...new Set(off.map((o) => o.device))].sort()).toEqual([
    'brine',
    'drift',
    'flare',
    'heads',
    'kiln',
    'vesk',
  ]);
  expect(
    whatIsOff(touringRig, stage, stepAll(touringRig, stage, now, scene('lead')), scene('lead')),
  ).toEqual([]);
});

test(
  'the wrong sound called: calling the right one again is the way back; a pedal ' +
    'stepped on by mistake is stepped on again',
  () => {
    const wrong = call(stage, begin(touringRig, stage, scene('lead')), scene('tune')).now;
    const steps = recovery(touringRig, stage, wrong, scene('lead'));
    expect(steps[0]).toEqual({
      does: 'call',
      words: 'Call Lead again on Skeg: it sends everything anew.',
    });
    const stamped = stepOn(touringRig, begin(touringRig, stage, scene('flat')), 'kiln');
    expect(recovery(touringRig, stage, stamped, scene('flat')).map((s) => s.words)).toEqual([
      'Step on Kiln Drive: Kiln Drive should be bypassed and is engaged.',
    ]);
    expect(recovery(touringRig, stage, stepOn(touringRig, stamped, 'kiln'), scene('flat'))).toEqual(
      [],
    );
  },
);

test('a device that only flips is turned off by the second call of the same sound', () => {
  const s = setStage(brokenRig);
  const storm = s.scene('storm')!;
  const once = call(s, begin(brokenRig, s, s.scene('dry')!), storm).now;
  const twice = call(s, once, storm).now;
  expect(twice.machine.get('climb')!.values.get('climb engaged')).toBe(false);
  expect(once.machine.get('climb')!.values.get('climb engaged')).toBe(true);
  expect(whatIsOff(brokenRig, s, twice, storm).some((o) => o.key === 'climb engaged')).toBe(true);
});

test('a section of a song with states of its own recalls its own program', () => {
  const unlit = touringRig.songs!.find((x) => x.id === 'unlit')!;
  const dark = sectionScene(touringRig, unlit, 's1')!;
  const { now } = call(stage, begin(touringRig, stage, scene('flat')), dark);
  expect(now.machine.get('dome')!.program).toEqual({ bank: 0, number: 3 });
  expect(now.machine.get('dome')!.values.get('dome decay')).toBe(8);
});

test('a spike on the way is found by evaluating every landing: the boost is there before the level is down', () => {
  const at = (number: number) => ({ program: { number } });
  const rig = rigOf(
    [
      device('pads', 'foot-controller', 'Pads'),
      device('g', 'guitar-active', 'G'),
      device('e', 'delay', 'Loud', { midi: { channel: 1 } }),
      device('y', 'loop-switcher-fixed', 'Yard', {
        midi: { channel: 2 },
        figures: { programMs: { value: 60, from: 'measured' } },
      }),
      device('b', 'boost', 'Boost', { engaged: true, settings: { gain: 10 } }),
      device('c', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      lead('m1', 'pads.midiOut', 'e.midiIn', 1, 'midi'),
      lead('m2', 'e.midiThru', 'y.midiIn', 1, 'midi'),
      lead('1', 'g.out', 'e.in', 1),
      lead('2', 'e.out', 'y.in', 1),
      lead('3', 'y.send1', 'b.in', 1),
      lead('4', 'b.out', 'y.return1', 1),
      lead('5', 'y.out', 'c.in', 1),
    ],
    [
      sound('x', 'X', [], {
        y: { settings: { loop1: true }, ...at(0) },
        e: { engaged: true, settings: { mix: 10, level: 0 }, ...at(0) },
      }),
      sound('z', 'Z', [], { y: { settings: { loop1: false }, ...at(1) }, e: at(1) }),
    ],
  );
  const s = setStage(rig);
  const change = runChange(s, s.scene('x')!, s.scene('z')!);
  expect(change.order.map((o) => o.device)).toEqual(['e', 'y']);
  const levels = landingLevels(rig, s, change);
  expect(levels.steps).toHaveLength(2);
  expect(levels.after[0]).toBeCloseTo(heardIn(rig, rig.sounds[1]!)[0]!.levelDbu!.normal, 6);
  const between = levels.steps[0]!.levels[0]!;
  expect(levels.spikeDb).toBeCloseTo(
    Math.max(0, between - Math.max(levels.before[0]!, levels.after[0]!)),
    6,
  );
});
