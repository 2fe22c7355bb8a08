import fc from 'fast-check';
import { SILENT } from './hiss';
import { type Flow, merged, scaled, totalPeak, totalVolts } from './meeting';
import {
  heardAfterMs,
  loudest,
  presentDistortion,
  presentFigures,
  presentPeak,
  widenersOf,
  widthOf,
} from './point-figures';
import { clippedShape, distortion, SINE } from './saturate';
import { dbuOfVolts, voltsOfDbu } from '../units';

const flow = (change: Partial<Flow> = {}): Flow => ({
  source: 'g',
  volts: [0.25, 1, 2],
  peak: 1.5,
  latencyMs: 0,
  polarity: 1,
  tiltDb: 0,
  shapes: [SINE, SINE, SINE],
  cabinet: false,
  ...change,
});
const volts = fc.double({ min: 0.01, max: 10, noNaN: true });
/** Flows that touch nothing but their level differs in. */
const levels = fc.array(volts, { minLength: 2, maxLength: 12 });
const at = (v: number, change: Partial<Flow> = {}): Flow =>
  flow({ volts: [v / 4, v, 2 * v], peak: 1.5 * v, ...change });
const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

describe('flows that meet', () => {
  test('copies of one source at one time add as voltages, at every touch and in their peaks', () => {
    fc.assert(
      fc.property(levels, (list) => {
        const { flows, cancelled } = merged(list.map((v) => at(v)));
        expect(flows).toHaveLength(1);
        expect(cancelled).toEqual([]);
        const [one] = flows;
        [1 / 4, 1, 2].forEach((by, t) => expect(one!.volts[t]).toBeCloseTo(by * sum(list), 9));
        expect(one!.peak).toBeCloseTo(1.5 * sum(list), 9);
      }),
    );
  });

  test('a copy that is turned is taken off, what is left keeps the sign of the louder, and it is told', () => {
    fc.assert(
      fc.property(volts, volts, (a, b) => {
        const { flows, cancelled } = merged([at(a), at(b, { polarity: -1 })]);
        expect(flows[0]!.volts[1]).toBeCloseTo(Math.abs(a - b), 9);
        expect(flows[0]!.peak).toBeCloseTo(1.5 * Math.abs(a - b), 9);
        if (a !== b) expect(flows[0]!.polarity).toBe(a > b ? 1 : -1);
        expect(cancelled).toEqual(['g']);
      }),
    );
  });

  test('of three copies, two of them turned, the sum is turned', () => {
    const [one] = merged([at(1), at(1, { polarity: -1 }), at(1, { polarity: -1 })]).flows;
    expect([one!.polarity, one!.volts[1]]).toEqual([-1, 1]);
  });

  test('copies that are late, of other sources or of other sides stay apart', () => {
    const list = [
      ...[at(1), at(1, { latencyMs: 0.02 }), at(1, { source: 'h' })],
      ...[at(1, { side: 'left', widenedBy: 'c' }), at(1, { side: 'right', widenedBy: 'c' })],
      at(1, { side: 'right', widenedBy: 'd' }),
    ];
    expect(merged(list).flows).toHaveLength(6);
    // Five microseconds are no time at all.
    expect(merged([at(1), at(1, { latencyMs: 0.004 })]).flows).toHaveLength(1);
  });

  test('what effects have spread adds as powers, and so do their peaks', () => {
    fc.assert(
      fc.property(levels, (list) => {
        const { flows, cancelled } = merged(
          list.map((v, i) => at(v, { wet: `d${i}`, polarity: i % 2 ? -1 : 1 })),
        );
        expect(flows).toHaveLength(1);
        expect(cancelled).toEqual([]);
        expect(flows[0]!.volts[1]).toBeCloseTo(Math.hypot(...list), 9);
        expect(flows[0]!.peak).toBeCloseTo(1.5 * Math.hypot(...list), 9);
      }),
    );
  });

  test('what is joined has a cabinet only if all of it has', () => {
    const all = (change: Partial<Flow>) =>
      merged([at(1, { ...change, cabinet: true }), at(1, { ...change, cabinet: false })]).flows[0]!
        .cabinet;
    expect([all({}), all({ wet: 'd' })]).toEqual([false, false]);
    expect(merged([at(1, { cabinet: true }), at(2, { cabinet: true })]).flows[0]!.cabinet).toBe(
      true,
    );
  });

  test('however many flows, no power is lost, and no more than sixteen are followed', () => {
    fc.assert(
      fc.property(fc.array(volts, { minLength: 2, maxLength: 60 }), (list) => {
        const { flows } = merged(list.map((v, i) => at(v, { latencyMs: i })));
        expect(flows.length).toBeLessThanOrEqual(16);
        expect(totalVolts(flows, 1)).toBeCloseTo(Math.hypot(...list), 6);
        expect(totalVolts(flows, 2)).toBeCloseTo(2 * Math.hypot(...list), 6);
        expect(loudest(flows)!.volts[1]).toBeCloseTo(
          Math.max(...list, list.length > 16 ? flows.at(-1)!.volts[1] : 0),
          6,
        );
      }),
    );
  });

  test('a clean copy taken off a bent one leaves harmonics: more distortion than either had', () => {
    const bent = clippedShape('soft', SINE, 2);
    const joined = merged([at(1, { shapes: [bent, bent, bent] }), at(0.9, { polarity: -1 })])
      .flows[0]!;
    expect(distortion(joined.shapes[1])).toBeGreaterThan(distortion(bent));
    expect(joined.volts[1]).toBeLessThan(1);
  });

  test('a gain changes level and peak alike, and adds to the tilt', () => {
    const f = scaled(at(1, { tiltDb: -2 }), 0.5, 3);
    expect([f.volts, f.peak, f.tiltDb]).toEqual([[0.125, 0.5, 1], 0.75, 1]);
  });
});

describe('peaks of what is together', () => {
  test('two sources may meet at their highest instants, and so may a note and a late copy of it', () => {
    expect(totalPeak([at(1), at(2, { source: 'h' })])).toBeCloseTo(4.5, 12);
    expect(totalPeak([at(1), at(2, { latencyMs: 5 })])).toBeCloseTo(4.5, 12);
  });
  test('an echo adds to its own source as a power, to another as a peak', () => {
    const echo = at(2, { wet: 'd' });
    expect(totalPeak([at(1), echo])).toBeCloseTo(1.5 * Math.hypot(1, 2), 12);
    expect(totalPeak([at(1, { source: 'h' }), echo])).toBeCloseTo(4.5, 12);
    expect(totalPeak([at(1), echo, echo])).toBeCloseTo(1.5 * Math.hypot(1, 2, 2), 12);
  });
  test('never less than the loudest alone, never more than all of them together', () => {
    const any = fc.record({ v: volts, source: fc.constantFrom('g', 'h'), isWet: fc.boolean() });
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 8 }), (list) => {
        const flows = list.map(({ v, source, isWet }) =>
          at(v, { source, ...(isWet && { wet: 'd' }) }),
        );
        const peak = totalPeak(flows);
        expect(peak).toBeGreaterThanOrEqual(Math.max(...flows.map((f) => f.peak)) - 1e-9);
        expect(peak).toBeLessThanOrEqual(sum(flows.map((f) => f.peak)) + 1e-9);
      }),
    );
  });
});

describe('figures of what is at a point', () => {
  const present = (flows: Flow[]) =>
    presentFigures({ flows, noise: SILENT, idle: SILENT, cancelled: [] });

  test('levels at three touches, in dBu; silence under −130 dBu has none', () => {
    const { levelDbu, peakDbu, sources } = present([at(voltsOfDbu(-20))]);
    expect(levelDbu!.normal).toBeCloseTo(-20, 9);
    expect(levelDbu!.soft).toBeCloseTo(-20 - 20 * Math.log10(4), 9);
    expect(levelDbu!.hard).toBeCloseTo(-20 + 20 * Math.log10(2), 9);
    expect(peakDbu).toBeCloseTo(-20 + 20 * Math.log10(1.5), 9);
    expect(sources).toEqual(['g']);
    expect(present([at(voltsOfDbu(-129))]).levelDbu).not.toBeNull();
    const silent = present([at(voltsOfDbu(-131))]);
    expect([silent.levelDbu, silent.peakDbu, silent.latencyMs, silent.thdPercent]).toEqual(
      Array(4).fill(null),
    );
    expect(presentPeak([])).toBeNull();
  });

  test('late is the first copy that is heard clearly, of the loudest source', () => {
    const late = (first: number, second: Partial<Flow>) =>
      present([at(first, { latencyMs: 2 }), at(1, { latencyMs: 9, ...second })]).latencyMs;
    // 9 dB under the loudest is clear, 11 is not.
    expect(late(10 ** (-9 / 20), {})).toBe(2);
    expect(late(10 ** (-11 / 20), {})).toBe(9);
    expect(late(0.9, { source: 'h' })).toBe(9);
    const flows = [at(1, { latencyMs: 4 }), at(1, { latencyMs: 3 })];
    expect(heardAfterMs(flows, flows[0]!)).toBe(3);
  });

  test('distortion of several flows is weighed by their power', () => {
    const bent = clippedShape('hard', SINE, 4);
    const alone = presentDistortion([at(1, { shapes: [bent, bent, bent] })], 1);
    expect(alone).toBeCloseTo(distortion(bent), 9);
    const beside = presentDistortion(
      [at(1, { shapes: [bent, bent, bent] }), at(10, { source: 'h' })],
      1,
    );
    expect(beside).toBeLessThan(alone / 5);
    expect(presentDistortion([], 1)).toBe(0);
  });
});

describe('two jacks', () => {
  const left = (change: Partial<Flow> = {}) => at(1, { side: 'left', widenedBy: 'c', ...change });
  const right = (change: Partial<Flow> = {}) => at(1, { side: 'right', widenedBy: 'c', ...change });

  test('one jack is mono, the same on both is mono, sides that a device made are stereo', () => {
    expect(widthOf([[], []])).toBe('silent');
    expect(widthOf([[at(1)], []])).toBe('mono');
    expect(widthOf([[at(1)], [at(1)]])).toBe('mono');
    expect(widthOf([[left()], [right()]])).toBe('stereo');
  });

  test('sides that come together on each jack are mono again', () => {
    expect(
      widthOf([
        [left(), right()],
        [left(), right()],
      ]),
    ).toBe('mono');
    expect(
      widenersOf([
        [left(), right()],
        [left(), right()],
      ]),
    ).toEqual([]);
  });

  test('left on the right jack is stereo with its sides exchanged', () => {
    expect(widenersOf([[right()], [left()]])).toEqual([{ device: 'c', exchanged: true }]);
    expect(widenersOf([[left()], [right()]])).toEqual([{ device: 'c', exchanged: false }]);
  });

  test.each<[string, Partial<Flow>]>([
    ['another source', { source: 'h' }],
    ['a level half a decibel and more apart', { volts: [0.27, 1.08, 2.16] }],
    ['later by more than a twentieth of a millisecond', { latencyMs: 0.06 }],
    ['brighter by more than half a decibel', { tiltDb: 0.6 }],
    ['turned over', { polarity: -1 }],
  ])('%s on one of them is dual mono', (_, change) => {
    expect(widthOf([[at(1)], [at(1, change)]])).toBe('dual mono');
  });

  test('differences that nobody hears are mono still', () => {
    const near = { volts: [0.26, 1.04, 2.08], latencyMs: 0.04, tiltDb: 0.4 } as Partial<Flow>;
    expect(widthOf([[at(1)], [at(1, near)]])).toBe('mono');
    expect(dbuOfVolts(1.04) - dbuOfVolts(1)).toBeLessThan(0.5);
  });
});
