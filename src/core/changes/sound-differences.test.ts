import { touringRig } from '../demo';
import { chainOf, sound } from '../testing/rigs';
import { soundDifferences } from './';

const rig = chainOf(
  ['guitar-active', 'drive-low', 'tuner-buffered', 'splitter-buffered', 'loop-switcher', 'gate'],
  0.3,
  [],
);
const plain = sound('a', 'A', []);
const between = (states: ReturnType<typeof sound>['states'], from = plain) =>
  Object.fromEntries(soundDifferences(rig, from, sound('b', 'B', [], states)));

test('engaged, knobs by the clock, choices by their label, switches, texts, and units', () => {
  expect(between({ d1: { engaged: true } })).toEqual({ d1: ['on, was off'] });
  expect(
    between(
      { d1: { settings: { drive: 5 } } },
      sound('a', 'A', [], { d1: { settings: { drive: 0 } } }),
    ),
  ).toEqual({ d1: ['Drive 12, was 7'] });
  expect(
    between(
      { d3: { settings: { select: 'a', invertB: true } } },
      sound('a', 'A', [], { d3: { settings: { select: 'both' } } }),
    ),
  ).toEqual({ d3: ['Selects A, was A and B', 'Turn polarity of B on, was off'] });
  expect(between({ d4: { settings: { order: '2 1' } } })).toEqual({
    d4: [expect.stringMatching(/2 1, was/)],
  });
  expect(between({ d2: { engaged: true } }).d2![0]).toMatch(/tuning, muted, was through/);
  expect(between({ d5: { settings: { threshold: -40 } } }).d5).toEqual([
    expect.stringMatching(/−40 dBu, was/),
  ]);
});

test('a sound differs in nothing from itself, and both ways on the same devices', () => {
  for (const a of touringRig.sounds) {
    expect(soundDifferences(touringRig, a, a).size).toBe(0);
    for (const b of touringRig.sounds)
      expect([...soundDifferences(touringRig, a, b).keys()]).toEqual([
        ...soundDifferences(touringRig, b, a).keys(),
      ]);
  }
});
