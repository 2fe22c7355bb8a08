import fc from 'fast-check';
import { analyse } from '../report';
import type { SettingValue } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { runSignal } from '.';
import { buildCircuit } from '../circuit';

/** One guitar split in three, each way with its own device, summed in a mixer with its own levels. */
function sum(mixer: Record<string, SettingValue>, ways: Record<string, string | undefined> = {}) {
  const chain = (id: string, from: string, to: string) => {
    const kind = ways[id];
    return kind
      ? {
          devices: [device(`w${id}`, kind, id, { engaged: true })],
          leads: [lead(`${id}1`, from, `w${id}.in`, 0.3), lead(`${id}2`, `w${id}.out`, to, 0.3)],
        }
      : { devices: [], leads: [lead(id, from, to, 0.3)] };
  };
  const parts = [
    chain('a', 's.a', 'm.a'),
    chain('b', 't.a', 'm.b'),
    chain('c', 't.b', 'm.c'),
    ...(ways.before ? [chain('before', 'g.out', 's.in')] : []),
  ];
  const rig = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('s', 'splitter-buffered', 'S', { settings: { select: 'both' } }),
      device('t', 'splitter-buffered', 'T', { settings: { select: 'both' } }),
      device('m', 'mixer-stereo', 'M', { settings: mixer }),
      device('c', 'console-input', 'C', { settings: { input: 'line' } }),
      ...parts.flatMap((p) => p.devices),
    ],
    [
      ...(ways.before ? [] : [lead('1', 'g.out', 's.in', 0.3)]),
      lead('2', 's.b', 't.in', 0.3),
      lead('3', 'm.out', 'c.in', 1),
      ...parts.flatMap((p) => p.leads),
    ],
    [sound('x', 'X', [])],
  );
  const circuit = buildCircuit(rig, rig.sounds[0]);
  const flowing = runSignal(circuit);
  return {
    house: analyse(rig).sounds[0]!.destinations[0]!,
    at: (id: string, jack: string) => flowing.present(circuit.netAt(id, jack)!.index),
  };
}
const only = (jack: string) => ({
  ...Object.fromEntries(['A', 'B', 'C', 'D'].map((x) => [`level${x}`, -60])),
  [`level${jack}`]: 0,
});
const SILENT_A = { levelA: -60 };

test('copies keep the sign of their sum, whatever the loudest says', () => {
  const one = sum({ levelB: -60, levelC: -60 }).house;
  const three = sum({ levelB: -4, levelC: -4, invertB: true, invertC: true }).house;
  const rest = 2 * 10 ** (-4 / 20) - 1;
  expect(one.polarity).toBe('as played');
  expect(three.polarity).toBe('turned');
  expect(three.levelDbu!.normal - one.levelDbu!.normal).toBeCloseTo(20 * Math.log10(rest), 1);
});

/** What the mixer's output loses into the desk. */
const loss = (() => {
  const { at } = sum(only('A'));
  return at('m', 'out').flows[0]!.volts[1] / at('m', 'a').flows[0]!.volts[1];
})();

test('a clean copy and a bent one are summed as waves: level and saturation of the sum', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('drive-low', 'drive-mid', 'drive-high'),
      fc.integer({ min: -12, max: 6 }),
      fc.boolean(),
      (kind, levelA, invertA) => {
        const made = sum({ levelA, levelB: -60, levelC: 0, invertA }, { c: kind });
        const [clean] = made.at('m', 'a').flows;
        const [bent] = made.at('m', 'c').flows;
        // The two waves, instant by instant, with the gains of the mixer's inputs.
        const n = clean!.shapes[1].points.length;
        const wave = Array.from(
          { length: n },
          (_, i) =>
            clean!.volts[1] *
              clean!.shapes[1].points[i]! *
              10 ** (levelA / 20) *
              clean!.polarity *
              (invertA ? -1 : 1) +
            bent!.volts[1] * bent!.shapes[1].points[i]! * bent!.polarity,
        );
        const power = wave.reduce((s, v) => s + v * v, 0) / n;
        const part = (of: (x: number) => number) =>
          wave.reduce((s, v, i) => s + v * of(((i + 0.5) * Math.PI) / n), 0) / n;
        const first = 2 * (part(Math.sin) ** 2 + part(Math.cos) ** 2);
        const house = made.house;
        expect(house.thdPercent!.normal).toBeCloseTo(
          100 * Math.sqrt(Math.max(0, power - first) / first),
          4,
        );
        const out = made.at('m', 'out');
        expect(out.flows).toHaveLength(1);
        expect(out.flows[0]!.volts[1] / Math.sqrt(power)).toBeCloseTo(loss, 6);
      },
    ),
    { numRuns: 30 },
  );
});

describe('hiss that is split and joined', () => {
  /** A fuzz before the split hisses far over everything behind it. */
  const hiss = (mixer: Record<string, SettingValue>, ways = {}) =>
    sum(mixer, { before: 'fuzz', ...ways }).house;
  const alone = hiss(only('B')).noiseDbu!;
  test('adds as its signal does: two copies are 6 dB louder', () =>
    expect(hiss({ ...SILENT_A, levelB: 0, levelC: 0 }).noiseDbu! - alone).toBeCloseTo(6.02, 1));
  test('a copy that is turned over takes it away, and leaves what the ways added', () =>
    expect(
      hiss({ ...SILENT_A, levelB: 0, levelC: 0, invertC: true }).noiseDbu! - alone,
    ).toBeLessThan(-20));
  test('late copies add as powers', () => {
    const late = hiss({ ...SILENT_A, levelB: 0, levelC: 0 }, { c: 'eq' });
    const digital = hiss({ ...SILENT_A, levelB: 0, levelC: 0 }, { c: 'amp-cab-simulator' });
    expect(late.noiseDbu! - alone).toBeGreaterThan(5.5);
    expect(digital.latencyMs).not.toBeNull();
    const voice = hiss(only('C'), { c: 'amp-cab-simulator' }).noiseDbu!;
    const powers = 10 * Math.log10(10 ** (alone / 10) + 10 ** (voice / 10));
    expect(digital.noiseDbu!).toBeCloseTo(powers, 1);
  });
  test('what each way adds by itself adds as powers (and the guitar’s own, far under it, as waves)', () => {
    const ways = { b: 'delay-analog', c: 'delay-analog' };
    const way = sum(only('B'), ways).house.noiseDbu!;
    const both = sum({ ...SILENT_A, levelB: 0, levelC: 0 }, ways).house.noiseDbu!;
    expect(both - way).toBeGreaterThan(2.9);
    expect(both - way).toBeLessThan(3.6);
  });
  test('its power is that of its parts', () => {
    const { at } = sum({ levelB: -3, levelC: -6 }, { before: 'fuzz', a: 'delay', b: 'chorus' });
    for (const jack of ['a', 'b', 'c', 'out']) {
      const { power, volts, by } = at('m', jack).noise;
      expect(volts.reduce((s, v) => s + (v * by) ** 2, 0) / power).toBeCloseTo(1, 9);
    }
  });
});
