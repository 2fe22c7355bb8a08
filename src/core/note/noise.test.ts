import fc from 'fast-check';
import { DEMO_RIGS } from '../demo';
import { effectiveRig } from '../control';
import { filterAt, gainAtMiddle } from '../kinds/response';
import type { Filter, Stage } from '../kinds';
import { sure } from '../outcome';
import { analyse } from '../report';
import type { Rig } from '../rig';
import { chainOf, fadedRig } from '../testing/rigs';
import { thermalNoiseVolts } from '../units';
import { magnitude } from '../units/complex';
import { loudnessWeight } from './bands';
import { HISS, HUM, stageOver } from './noise-lines';
import { type NoiseFigures, noiseIn, notesAt } from '.';
import { between } from '../testing/between';

const db = (power: number) => 10 * Math.log10(power);
const noiseAt = (rig: Rig, device: string, point = 'in'): NoiseFigures =>
  noiseIn(rig, sure(rig.sounds[0]))(device, point).idle!;
/** A device whose sheet says otherwise than is typical. */
const stating = (figures: Record<string, number>) => ({
  engaged: true,
  figures: Object.fromEntries(
    Object.entries(figures).map(([name, value]) => [name, { value, from: 'sheet' as const }]),
  ),
});
/** Everything switched on, each as it is set. */
const chain = (kinds: Parameters<typeof chainOf>[0]) =>
  chainOf(kinds.map((k) => (typeof k === 'string' ? [k, { engaged: true }] : k)));

describe('lines', () => {
  test('hiss fills 20 Hz to 20 kHz and comes to what was stated; hum too', () => {
    const total = (shape: Float64Array) => shape.reduce((sum, x) => sum + x * x, 0);
    // A band of 20 Hz begins at 17.8 Hz.
    expect(total(HISS.one.re)).toBeCloseTo((20_000 - 17.78) / 20_000, 5);
    for (const mains of [50, 60] as const) {
      expect(total(HUM[mains].one.re)).toBeCloseTo(1, 12);
      expect(HUM[mains].hertz.slice(0, 3)).toEqual([mains, 2 * mains, 3 * mains]);
    }
  });

  const filter = fc.oneof(
    fc.record({
      is: fc.constantFrom('low pass' as const, 'high pass' as const, 'band pass' as const),
      hertz: fc.integer({ min: 60, max: 8000 }),
      q: fc.double({ min: 0.5, max: 2, noNaN: true }),
    }),
    fc.record({
      is: fc.constantFrom('low shelf' as const, 'high shelf' as const),
      hertz: fc.integer({ min: 60, max: 8000 }),
      db: between(-12, 12),
    }),
    fc.record({
      is: fc.constant('peak' as const),
      hertz: fc.integer({ min: 60, max: 8000 }),
      q: fc.double({ min: 0.5, max: 2, noNaN: true }),
      db: between(-12, 12),
    }),
  );
  test('white noise behind any filter is what every hertz of it comes to, weighted or not', () => {
    fc.assert(
      fc.property(filter, (f: Filter) => {
        const stage = { tiltDb: 5, filters: { after: [f] } } as unknown as Stage;
        // The tilt that a kind states is its filters' own here, so that nothing makes up for it.
        const own = { ...stage, tiltDb: db(size(f, 5000)) - db(size(f, 1000)) };
        const row = sure(stageOver(own, HISS));
        let [bands, heard, all, weighted] = [0, 0, 0, 0];
        HISS.hertz.forEach((_, i) => {
          const w = (row.re[i]! ** 2 + row.im[i]! ** 2) * HISS.one.re[i]! ** 2;
          bands += w;
          heard += w * sure(HISS.weights[i]);
        });
        for (let hertz = 20; hertz < 20_000; hertz += 4) {
          const w = (size(f, hertz) / 10 ** (gainAtMiddle(f) / 10)) * (4 / 20_000);
          all += w;
          weighted += w * loudnessWeight(hertz);
        }
        expect(Math.abs(db(bands) - db(all))).toBeLessThan(0.3);
        expect(Math.abs(db(heard) - db(weighted))).toBeLessThan(0.3);
      }),
      { numRuns: 60 },
    );
    function size(f: Filter, hertz: number): number {
      return magnitude(filterAt(f, hertz)) ** 2;
    }
  });
});

describe('noise at a place', () => {
  test('what is flat hisses as the levels say, at every station of a chain of buffers', () => {
    const rig = chain(['guitar-active', 'buffer', 'buffer', 'buffer', 'console-input']);
    const report = sure(analyse(rig).sounds[0]);
    for (const s of report.stations.filter((s) => s.outs.length)) {
      const said = s.output.noiseDbu!;
      expect(Math.abs(noiseAt(rig, s.device, 'out').levelDbu - said)).toBeLessThan(0.05);
    }
    const house = sure(report.destinations[0]);
    expect(Math.abs(noiseAt(rig, house.device).levelDbu - house.noiseDbu!)).toBeLessThan(0.05);
  });

  test('however many boxes hiss, no power is lost in following them', () => {
    const hisses = fc.array(fc.integer({ min: -120, max: -70 }), { minLength: 2, maxLength: 30 });
    fc.assert(
      fc.property(hisses, (list) => {
        const rig = chain([
          'guitar-active',
          ...list.map((noiseDbu): [string, object] => ['buffer', stating({ noiseDbu })]),
          'console-input',
        ]);
        const last = `d${list.length}`;
        const { stations } = sure(analyse(rig).sounds[0]);
        const said = sure(stations.find((s) => s.device === last)).output.noiseDbu!;
        expect(Math.abs(noiseAt(rig, last, 'out').levelDbu - said)).toBeLessThan(0.05);
      }),
      { numRuns: 20 },
    );
  });

  test('a network warms: ten kilohms over 20 kHz make −112.6 dBu', () => {
    expect(db(thermalNoiseVolts(10_000) ** 2 / 0.6)).toBeCloseTo(-112.6, 0);
    // Nothing but the heat of a pickup's network into a quiet input: more than a bare resistance of its coil.
    const rig = chain([
      ['guitar-single-coil', stating({ humDbu: -120 })],
      ['buffer', stating({ noiseDbu: -140 })],
      'console-input',
    ]);
    const { humDbu, levelDbu } = noiseAt(rig, 'd1', 'out');
    expect(levelDbu).toBeGreaterThan(humDbu!);
    expect(levelDbu).toBeGreaterThan(db(thermalNoiseVolts(6000) ** 2 / 0.6));
  });

  test('split and joined at once, hiss gains as the signal does', () => {
    const noisy = (select: string): Rig => {
      const rig = fadedRig(true);
      return {
        ...rig,
        devices: rig.devices.map((d) => ({
          ...d,
          ...(d.id === 'g' && stating({ noiseDbu: -50 })),
          ...(d.id === 's' && { settings: { select } }),
        })),
      };
    };
    const [one, both] = [noiseAt(noisy('a'), 'm', 'out'), noiseAt(noisy('both'), 'm', 'out')];
    expect(both.levelDbu - one.levelDbu).toBeCloseTo(6.02, 1);
    expect(both.weightedDbu - one.weightedDbu).toBeCloseTo(6.02, 1);
  });

  test('a knob of an equaliser takes hum and leaves hiss, and the other way about', () => {
    const eq = (settings: Record<string, number>) =>
      noiseAt(
        chain([
          ['guitar-single-coil', stating({ humDbu: -60 })],
          ['eq', { engaged: true, settings }],
          'console-input',
        ]),
        'd1',
        'out',
      );
    const flat = eq({ low: 0, mid: 0, high: 0 });
    const [lessLow, lessHigh] = [eq({ low: -12 }), eq({ high: -12 })];
    expect(flat.humDbu! - lessLow.humDbu!).toBeGreaterThan(5);
    expect(Math.abs(flat.humDbu! - lessHigh.humDbu!)).toBeLessThan(2);
    expect(flat.device).toBe('d0');
    expect(flat.band).toBeLessThanOrEqual(315);
  });

  test('a gate that is shut is quiet between notes and hisses while it is open', () => {
    const rig = chain([
      'guitar-active',
      ['drive-mid', { engaged: true }],
      ['gate', { engaged: true, settings: { threshold: -20 } }],
      'console-input',
    ]);
    const { idle, playing } = noiseIn(rig, sure(rig.sounds[0]))('d2', 'out');
    expect(playing!.weightedDbu - idle!.weightedDbu).toBeGreaterThan(10);
    expect(playing!.device).not.toBe('d2');
  });

  test('the loudest of noises is named, with the band in which it counts most', () => {
    const hissing = chain([
      'guitar-active',
      ['buffer', stating({ noiseDbu: -40 })],
      'console-input',
    ]);
    const { device, band, humDbu, weightedDbu, levelDbu } = noiseAt(hissing, 'd2');
    expect([device, humDbu]).toEqual(['d1', null]);
    expect(band).toBeGreaterThan(5000);
    // White noise weighs more than its level: the shelf lifts what is high.
    expect(weightedDbu - levelDbu).toBeGreaterThan(2);
  });

  test('mains of 60 Hz are heard a little more than those of 50', () => {
    const rig = chain(['guitar-single-coil', 'buffer', 'console-input']);
    const hum = (mains: 50 | 60) =>
      noiseIn(rig, sure(rig.sounds[0]), mains)('d1', 'out').idle!.humDbu!;
    expect(hum(60)).toBeGreaterThan(hum(50));
    expect(hum(60) - hum(50)).toBeLessThan(3);
  });
});

test('in every demo rig: noise is finite, its bands no more than all of it, S/N the difference told', () => {
  for (const written of DEMO_RIGS) {
    const rig = effectiveRig(written);
    for (const { device } of analyse(rig).sounds[0]?.destinations ?? [])
      for (const { note, noise, weightedSignalToNoiseDb } of notesAt(rig, device)) {
        if (note && noise.playing)
          expect(weightedSignalToNoiseDb).toBeCloseTo(
            note.touches[1].loudnessDbu - noise.playing.weightedDbu,
            9,
          );
        for (const f of [noise.idle, noise.playing]) {
          if (!f) continue;
          const inBands = f.bandsDbu.reduce<number>((sum, b) => sum + 10 ** ((b ?? -999) / 10), 0);
          expect(db(inBands)).toBeLessThanOrEqual(f.levelDbu + 1e-9);
          expect(f.humDbu ?? -999).toBeLessThanOrEqual(f.weightedDbu + 1e-9);
        }
      }
  }
});
