import { analyse } from '../report';
import { allOn, chainOf, device, lead } from '../testing/rigs';
import type { Rig } from '../rig';

/** A guitar with a 4 ms wireless into a shifter at a mix, and a desk. */
const shifted = (mix: number, more: [string, object][] = []): Rig => {
  const { devices, leads } = chainOf([
    'guitar-active',
    'wireless',
    ['pitch-shifter', { settings: { mix } }],
    ...more,
    'console-input',
  ]);
  return allOn(devices, leads);
};
const late = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'latency');
const heardMs = (rig: Rig) => analyse(rig).sounds[0]!.destinations[0]!.latencyMs;

test.each([0, 3, 5])(
  'a voice that follows the string at mix %d does not make the playing late',
  (mix) => {
    expect(heardMs(shifted(mix))).toBeCloseTo(4 + 1.5, 6);
    expect(late(shifted(mix))).toEqual([]);
  },
);

test('where only the voice is left, the playing is as late as it is', () => {
  expect(heardMs(shifted(10))).toBeCloseTo(4 + 12, 6);
  expect(late(shifted(10))[0]!.why).toBe('16.0 ms in all; over 10 ms a player feels it.');
  // Dry that lies far under the voice is not what is heard.
  expect(heardMs(shifted(9.5))).toBeCloseTo(4 + 12, 6);
});

test('each trip through converters adds to it', () => {
  const echo: [string, object] = ['delay', { settings: { mix: 2 } }];
  const ms = [[], [echo], [echo, echo]].map((more) => heardMs(shifted(0, more))!);
  expect(ms[1]! - ms[0]!).toBeCloseTo(1.5, 6);
  expect(ms[2]! - ms[0]!).toBeCloseTo(3, 6);
});

test('a voice beside its dry string does not comb with it; two dry ways 8 ms apart do', () => {
  const rules = (rig: Rig) => analyse(rig).findings.map((f) => f.rule);
  expect(rules(shifted(5))).not.toContain('comb');
  const two = allOn(
    [
      device('g', 'guitar-active', 'Guitar'),
      device('s', 'splitter-buffered', 'Splitter'),
      device('w', 'wireless', 'Long way', {
        figures: { latencyMs: { value: 8, from: 'measured' } },
      }),
      device('m', 'mixer-line', 'Mixer'),
      device('c', 'console-input', 'Desk'),
    ],
    [
      lead('1', 'g.out', 's.in', 3),
      lead('2', 's.a', 'm.a', 1),
      lead('3', 's.b', 'w.in', 1),
      lead('4', 'w.out', 'm.b', 1),
      lead('5', 'm.out', 'c.in', 5),
    ],
  );
  expect(rules(two)).toContain('comb');
});
