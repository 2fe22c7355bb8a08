import fc from 'fast-check';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { analyse, FixTrial, isSafe } from '../report';
import { pickupTone } from './pickup-tone';
import type { Device, Rig } from '../rig';

const own = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
const bareTone = (rig: Rig) => analyse(rig).sounds[0]!.tones.find((t) => t.bare)!;
/** A pickup through leads of `pF` into an input of `ohms`. */
const into = (kind: string, pF: number, ohms: number) =>
  bareTone(chainOf([kind, ['buffer', own({ inputOhms: ohms })]], pF / 100));

describe('passive tone, relative to the unloaded source', () => {
  test.each([
    ['guitar-single-coil', 300, 1e6, 2.61, 4300, 2.1, 7020],
    ['guitar-single-coil', 900, 1e6, 5.03, 2990, -4.59, 4640],
    ['guitar-humbucker', 600, 1e6, 6.21, 2660, -7.52, 4050],
  ])('%s, %d pF into %d Ω', (kind, pF, ohms, peakDb, peakHz, at5k, minus3) => {
    const tone = into(kind, pF, ohms);
    expect(Math.abs(tone.peakDb! - peakDb)).toBeLessThan(0.05);
    expect(Math.abs(tone.peakHz! / peakHz - 1)).toBeLessThan(0.005);
    expect(Math.abs(tone.at5kHzDb - at5k)).toBeLessThan(0.05);
    expect(Math.abs(tone.minus3dBHz! / minus3 - 1)).toBeLessThan(0.005);
  });
  test('a fuzz of 10 kΩ leaves no peak', () => {
    const tone = into('guitar-single-coil', 300, 10_000);
    expect(tone.peakHz).toBeNull();
    expect(Math.abs(tone.at5kHzDb + 18.67)).toBeLessThan(0.05);
    expect(Math.abs(tone.minus3dBHz! / 1720 - 1)).toBeLessThan(0.005);
  });
  test('moving the buffer to the front of 900 pF gives back 6.7 dB at 5 kHz', () => {
    expect(
      into('guitar-single-coil', 300, 1e6).at5kHzDb - into('guitar-single-coil', 900, 1e6).at5kHzDb,
    ).toBeCloseTo(6.7, 1);
  });
  test('100 Ω and 2 nF roll off at 796 kHz; 62.5 kΩ and 600 pF at 4.2 kHz', () => {
    const rig = chainOf(
      ['guitar-active', ['buffer', own({ outputOhms: 100 })], ['buffer', own({ inputOhms: 1e8 })]],
      20,
    );
    expect(
      analyse(rig).sounds[0]!.tones.find((t) => t.driver === 'd1')!.minus3dBHz! / 1000,
    ).toBeCloseTo(796, -1);
    const pedal = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('b', 'buffer', 'B', own({ outputOhms: 0.1 })),
        device('v', 'volume-passive', 'V', { settings: { pedal: 5 } }),
        device('e', 'buffer', 'E', own({ inputOhms: 1e8 })),
      ],
      [
        lead('a', 'g.out', 'b.in', 1),
        lead('b1', 'b.out', 'v.in', 0),
        lead('c', 'v.out', 'e.in', 6),
      ],
    );
    const tone = analyse(pedal).sounds[0]!.tones.find((t) => t.listener === 'e')!;
    // 1/(2π·Zout·C) is 4.2 kHz, 3 dB under the value at 0 Hz; under the value at 1 kHz it is a little higher.
    const corner = 1 / (2 * Math.PI * 62_500 * 600e-12);
    expect(corner).toBeCloseTo(4244, 0);
    expect(
      Math.abs(tone.minus3dBHz! / (corner * Math.sqrt(1 + 2 * (1000 / corner) ** 2)) - 1),
    ).toBeLessThan(0.005);
  });
  test('true-bypassed pedals between add only their leads', () => {
    const through = bareTone(
      chainOf(
        [
          'guitar-single-coil',
          'drive-low',
          'fuzz-low-impedance',
          ['buffer', own({ inputOhms: 1e6 })],
        ],
        1,
      ),
    );
    const one = into('guitar-single-coil', 300, 1e6);
    expect(through.at5kHzDb).toBeCloseTo(one.at5kHzDb, 9);
    expect(through.peakHz).toBeCloseTo(one.peakHz!, 6);
  });
  test('the general solver agrees with H = 1 / (1 + (R + jωL)·Y)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 50, max: 3000, noNaN: true }),
        fc.double({ min: 5000, max: 2e6, noNaN: true }),
        (pF, ohms) => {
          const tone = into('guitar-single-coil', pF, ohms);
          const w = 2 * Math.PI * 5000;
          const [r, x] = [6000, w * 2.5];
          const xc = -1 / (w * 47e-9);
          const g = 1 / 250_000 + 1 / ohms + 250_000 / (250_000 ** 2 + xc ** 2);
          const b = w * (110 + pF) * 1e-12 - xc / (250_000 ** 2 + xc ** 2);
          const h = 1 / Math.hypot(1 + r * g - x * b, r * b + x * g);
          return Math.abs(tone.at5kHzDb - 20 * Math.log10(h)) < 1e-6;
        },
      ),
      { numRuns: 40 },
    );
  });
  test('more lead never brightens 8 kHz and above', () => {
    const at8k = (pF: number) =>
      pickupTone(chainOf(['guitar-single-coil', 'buffer'], pF / 100), 's1', 'd0')!.curve.find(
        (p) => p.hertz > 8000,
      )!.now;
    expect(at8k(900)).toBeLessThan(at8k(600));
    expect(at8k(600)).toBeLessThan(at8k(300));
  });
  test('turning the tone control down takes treble', () => {
    const bright = bareTone(chainOf(['guitar-single-coil', 'buffer'], 3)).at5kHzDb;
    const dark = bareTone(
      chainOf([['guitar-single-coil', { settings: { tone: 2 } }], 'buffer'], 3),
    ).at5kHzDb;
    expect(dark).toBeLessThan(bright - 10);
  });
});

describe('a lead that dulls behind an active box', () => {
  const chain = (kind: string, rest: Partial<Device>, metres: number) =>
    rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('b', 'buffer', 'Stiff', { engaged: true }),
        device('v', kind, 'Treadle', rest),
        device('e', 'buffer', 'Far', { engaged: true }),
        device('c', 'console-input', 'Desk', { settings: { input: 'line' } }),
      ],
      [
        lead('a', 'g.out', 'b.in', 1),
        lead('b1', 'b.out', 'v.in', 1),
        lead('c1', 'v.out', 'e.in', metres),
        lead('d', 'e.out', 'c.in', 1),
      ],
    );
  const dull = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'dull-lead');
  const half = { settings: { pedal: 5 } };

  test('is named by the passive pedal behind which it does, and a buffer there, tried, cures it', () => {
    const rig = chain('volume-passive', half, 8);
    const trial = new FixTrial(rig);
    const f = trial.report.findings.find((x) => x.rule === 'dull-lead')!;
    expect(f).toMatchObject({
      subjects: ['v', 'c1'],
      what: 'The lead behind Treadle dulls the sound.',
    });
    const [way] = trial.waysOut(f);
    expect(way!.fix.edits[0]).toMatchObject({ edit: 'insertInLead', lead: 'c1' });
    expect(isSafe(way!.tried)).toBe(true);
  });
  test('short leads, a pedal at the toe, or an active one draw nothing', () => {
    expect(dull(chain('volume-passive', half, 0.1))).toEqual([]);
    expect(dull(chain('volume-passive', { settings: { pedal: 10 } }, 8))).toEqual([]);
    expect(dull(chain('volume-active', half, 8))).toEqual([]);
  });
});
