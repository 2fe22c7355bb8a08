import { touringRig } from '../../demo';
import { device, lead, rigOf, sound } from '../../testing/rigs';
import type { Rig } from '../../rig/schema';
import { type Effects, effectsOf, Listener } from '../effects';
import { bitOf, roughly, ROUGHLY, SYMPTOM_IDS } from '../symptoms';
import { type Test, testsOf } from './tests';

const rig: Rig = rigOf(
  [
    device('g', 'guitar-humbucker', 'Guitar'),
    device('t', 'tuner-true-bypass', 'Tuner', { supply: { device: 's', outlet: '1' } }),
    device('b', 'buffer', 'Buffer', { supply: { device: 's', outlet: '2' } }),
    device('a', 'head-tube', 'Head'),
    device('c', 'cabinet', 'Cabinet'),
    device('m', 'microphone', 'Mic'),
    device('h', 'console-input', 'House'),
    device('s', 'supply-isolated', 'Supply'),
  ],
  [
    lead('l1', 'g.out', 't.in', 3, 'instrument'),
    lead('l2', 't.out', 'b.in', 1, 'instrument'),
    lead('l3', 'b.out', 'a.in', 3, 'instrument'),
    lead('l4', 'a.speaker', 'c.in', 1, 'speaker'),
    lead('l5', 'c.air', 'm.air', 0.05, 'air'),
    lead('l6', 'm.out', 'h.in', 10, 'balanced'),
  ],
  [sound('one', 'One', []), sound('two', 'Two', [])],
);

let effects: Effects;
let tests: Map<string, Test>;
beforeAll(async () => {
  effects = await effectsOf(new Listener(rig));
  tests = new Map(testsOf({ rig, effects, sound: 0 }).map((t) => [t.id, t]));
});
/** What a test shows in a rig with a fault. */
const shows = (test: string, fault: string): string => {
  const at = effects.faults.findIndex((f) => f.id === fault);
  expect(at).toBeGreaterThanOrEqual(0);
  return tests.get(test)!.answer(at);
};

test('listening tells one word; at every place at once it says where', () => {
  expect(shows('listen h', 'lead open l1')).toBe('silent');
  expect(shows('listen c', 'lead open l6')).toBe('all fine');
  expect(shows('everywhere one', 'lead open l6')).toBe('silent at House');
  expect(shows('everywhere one', 'lead open l1')).toBe('silent at Cabinet, House');
  expect(shows('everywhere one', 'dead t')).toBe('all fine');
});

test('a lamp is out where nothing feeds it; a look finds what a hand set wrong; neither finds a lead', () => {
  expect(shows('lamp t', 'outlet dead s 1')).toBe('dark');
  expect(shows('lamp t', 'outlet dead s 2')).toBe('lit');
  expect(shows('lamp b', 'supply dead s')).toBe('dark');
  expect(shows('look t', 'hand tuner t')).toBe('something stands wrong');
  expect(shows('look a', 'standby a')).toBe('something stands wrong');
  expect(shows('look a', 'tube dead a')).toBe('as it should');
  expect(shows('lamp a', 'tube dead a')).toBe('lit');
  for (const id of ['lamp t', 'look t'])
    expect(shows(id, 'lead open l2')).not.toMatch(/dark|wrong/);
});

test('a good lead in place of the broken one; its plugs moved while somebody listens', () => {
  expect(shows('swap l2', 'lead open l2')).toBe('it is good again');
  expect(shows('swap l2', 'lead short l2')).toBe('it is good again');
  expect(shows('swap l2', 'lead open l3')).toBe('no change');
  expect(shows('swap l2', 'dead b')).toBe('no change');
  expect(shows('move l2', 'lead loose l2')).toBe('it changes');
  expect(shows('move l2', 'lead open l2')).toBe('no change');
});

test('another outlet, named, is only offered where one is free and fits', () => {
  expect(tests.get('outlet b')!.words).toMatch(
    /^Plug Buffer into outlet .* of Supply for a moment/,
  );
  expect(shows('outlet b', 'outlet dead s 2')).toBe('it is good again');
  expect(shows('outlet b', 'dead b')).toBe('no change');
  expect(tests.has('outlet a')).toBe(false);
});

test('a probe halves the way: silent behind what is broken, fine ahead of it', () => {
  expect(shows('probe l3', 'lead open l2')).toBe('silent');
  expect(shows('probe l2', 'lead open l3')).toBe('all fine');
  expect(tests.get('probe l2')!.needs).toContain('a small amplifier or headphones');
});

test('no speaker line is opened with the amplifier on, and none is probed', () => {
  const speaker = tests.get('swap l4')!;
  expect(speaker.words).toMatch(/^Amplifier off/);
  expect(speaker.mind).toContain('never open a speaker line');
  expect(tests.has('probe l4')).toBe(false);
  expect(speaker.seconds).toBeGreaterThan(tests.get('swap l2')!.seconds);
});

test('every test of every demo sound has time, words and an answer for every fault; none lifts an earth', async () => {
  const all = await effectsOf(new Listener(touringRig));
  for (const at of [0, 3]) {
    const list = testsOf({ rig: touringRig, effects: all, sound: at });
    expect(new Set(list.map((t) => t.id)).size).toBe(list.length);
    for (const t of list) {
      expect(t.seconds).toBeGreaterThan(0);
      expect(t.words).toMatch(/[.?]$/);
      expect(t.words).not.toMatch(/earth|lift/i);
      const answers = new Set(all.faults.map((_, f) => t.answer(f)));
      expect([...answers].every((a) => a.length > 0)).toBe(true);
    }
    const ears = list.filter((t) => t.id.startsWith('listen'));
    expect(ears.some((t) => t.mind?.includes('out of the ears'))).toBe(true);
  }
});

test('one word for what is noticed: the worst of it', () => {
  const bits = (...ids: (typeof SYMPTOM_IDS)[number][]) => ids.reduce((b, i) => b | bitOf(i), 0);
  expect(roughly(0)).toBe('all fine');
  expect(roughly(bits('silent'))).toBe('silent');
  expect(roughly(bits('silent', 'hum'))).toBe('silent, but for noise');
  expect(roughly(bits('weaker', 'crackle', 'effect'))).toBe('crackle');
  expect(roughly(bits('weaker', 'effect'))).toBe('weaker');
  expect(roughly(bits('side', 'weaker'))).toBe('one side only');
  expect(roughly(bits('thin'))).toBe('sounds otherwise');
  for (let b = 0; b < 1 << SYMPTOM_IDS.length; b++) expect(ROUGHLY).toContain(roughly(b));
});
