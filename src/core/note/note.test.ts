import fc from 'fast-check';
import { buildCircuit } from '../circuit';
import type { Circuit, CircuitStage } from '../circuit/circuit';
import { DEMO_RIGS } from '../demo';
import { kindOf, responseOf, type Stage } from '../kinds';
import { sure } from '../outcome';
import type { Rig } from '../rig';
import { runSignal } from '../signal/flow';
import { totalVolts } from '../signal/meeting';
import { chainOf } from '../testing/rigs';
import { dbuOfVolts, voltsOfDbu } from '../units';
import { magnitude } from '../units/complex';
import { bandOf, BANDS, loudnessWeight } from './bands';
import { noteAt } from './figures';
import { LOW_E, pluck, sine } from './pluck';
import { joined, type Part, runNote } from './run';
import { delayed, HARMONICS, rmsOf, samplesOf, scaledBy, spectrumOf } from './spectrum';

import { playNote } from '.';

const decibels = (x: number) => 20 * Math.log10(x);

test('a spectrum becomes samples and comes back', () => {
  const note = pluck(LOW_E);
  const back = spectrumOf(samplesOf(note));
  for (let n = 1; n <= HARMONICS; n++) {
    expect(back.re[n]).toBeCloseTo(note.re[n]!, 10);
    expect(back.im[n]).toBeCloseTo(note.im[n]!, 10);
  }
  const samples = samplesOf(note);
  expect(Math.sqrt(samples.reduce((s, x) => s + x * x, 0) / samples.length)).toBeCloseTo(1, 9);
});

test('bands are thirds of an octave, and loudness weighs as the standard’s filters at 48 kHz do', () => {
  expect(BANDS.map((hertz) => bandOf(hertz))).toEqual(BANDS.map((_, i) => i));
  expect([bandOf(30), bandOf(20_000)]).toEqual([undefined, undefined]);
  // The standard gives the two filters as sections for 48 kHz.
  const standard = (hertz: number) => {
    const w = (2 * Math.PI * hertz) / 48_000;
    const poly = ([a, b, c]: number[]) => {
      const re = a! + b! * Math.cos(w) + c! * Math.cos(2 * w);
      const im = -b! * Math.sin(w) - c! * Math.sin(2 * w);
      return re * re + im * im;
    };
    const head =
      poly([1.53512485958697, -2.69169618940638, 1.19839281085285]) /
      poly([1, -1.69065929318241, 0.73248077421585]);
    const low = poly([1, -2, 1]) / poly([1, -1.99004745483398, 0.99007225036621]);
    return head * low;
  };
  for (const hertz of [31, 50, 100, 300, 1000, 2000, 4000, 6000])
    expect(
      10 * Math.log10(loudnessWeight(hertz)) - 10 * Math.log10(standard(hertz) / standard(1000)),
    ).toBeCloseTo(0, 1);
});

describe('stages', () => {
  const stageOf = (kind: string, settings: Record<string, number> = {}): Stage => {
    const rig = chainOf(['guitar-active', [kind, { engaged: true, settings }], 'console-input']);
    const { stages } = buildCircuit(rig, rig.sounds[0]);
    return sure(stages.find((s) => s.device === 'd1')).stage;
  };

  test('every stage of every kind is as loud at 1 kHz as it says, and as bright at 5', () => {
    for (const rig of DEMO_RIGS)
      for (const { stage } of buildCircuit(rig, rig.sounds[0]).stages) {
        const { before, after } = responseOf(stage);
        const db = (hertz: number) =>
          decibels(magnitude(before(hertz))) + decibels(magnitude(after(hertz)));
        expect(db(1000)).toBeCloseTo(0, 6);
        expect(db(5000)).toBeCloseTo(stage.tiltDb, 4);
      }
  });

  test('presence, a condenser and a transformer do what their knobs and figures say', () => {
    const rig = chainOf([
      'guitar-active',
      ['combo-tube', { settings: { presence: 10 } }],
      'microphone-condenser',
      'direct-box',
    ]);
    const wired: Rig = {
      ...rig,
      leads: rig.leads.map((l, i) =>
        i === 1
          ? { ...l, type: 'air', from: { ...l.from, jack: 'air' }, to: { ...l.to, jack: 'air' } }
          : l,
      ),
    };
    const { stages } = buildCircuit(wired, wired.sounds[0]);
    const gain = (device: string, id: string) => {
      const found = sure(stages.find((s) => s.device === device && s.stage.id === id)).stage;
      const { before, after } = responseOf(found);
      return (hertz: number) =>
        decibels(magnitude(before(hertz))) + decibels(magnitude(after(hertz)));
    };
    expect(gain('d1', 'power')(5000)).toBeCloseTo(6, 3);
    expect(gain('d1', 'power')(10_000)).toBeGreaterThan(7);
    const condenser = gain('d2', 'main');
    expect(condenser(9000) - condenser(200)).toBeGreaterThan(3);
    expect(Math.abs(condenser(100))).toBeLessThan(0.3);
    expect(gain('d3', 'main')(10)).toBeCloseTo(-3.01, 1);
    expect(Math.abs(gain('d3', 'main')(82))).toBeLessThan(0.1);
  });

  test('an equaliser lifts what its knobs say, where they say it', () => {
    const flat = responseOf(stageOf('eq'));
    const low = responseOf(stageOf('eq', { low: 12 }));
    const high = responseOf(stageOf('eq', { high: -9 }));
    const at = (r: ReturnType<typeof responseOf>, hertz: number) =>
      decibels(magnitude(r.before(hertz))) + decibels(magnitude(r.after(hertz)));
    for (const hertz of [50, 400, 3000, 9000]) expect(at(flat, hertz)).toBeCloseTo(0, 6);
    expect(at(low, 100)).toBeGreaterThan(11);
    expect(at(low, 100)).toBeLessThan(13);
    expect(at(high, 5000)).toBeCloseTo(-9, 4);
    expect(Math.abs(at(high, 100))).toBeLessThan(1.2);
  });

  test('a wah passes most of 1 kHz where its resonance is, and less by hand to either side', () => {
    const gain = (pedal: number) => stageOf('wah', { pedal }).gainDb;
    const there = (10 * Math.log(1000 / 400)) / Math.log(2200 / 400);
    expect(gain(there)).toBeCloseTo(9, 6);
    // A resonance of quality 3 at f: 1/√(1 + 9·(1000/f − f/1000)²).
    for (const [pedal, hertz] of [
      [0, 400],
      [10, 2200],
    ] as const) {
      const off = 1000 / hertz - hertz / 1000;
      expect(gain(pedal)).toBeCloseTo(9 - 10 * Math.log10(1 + 9 * off * off), 6);
    }
  });
  test('a wah is strongest where its pedal stands', () => {
    const strongest = (pedal: number) => {
      const { after } = responseOf(stageOf('wah', { pedal }));
      const over = Array.from({ length: 400 }, (_, i) => 100 * 100 ** (i / 400));
      return over.reduce((a, b) => (magnitude(after(b)) > magnitude(after(a)) ? b : a));
    };
    expect(strongest(0)).toBeLessThan(600);
    expect(strongest(5)).toBeGreaterThan(700);
    expect(strongest(5)).toBeLessThan(1300);
  });
});

/** Sources that play a sine of 1 kHz: the note for which levels and saturation are stated. */
function withSines(rig: Rig) {
  const circuit = buildCircuit(rig, rig.sounds[0]);
  const drivers = circuit.drivers.map((d) =>
    d.source ? { ...d, source: { ...d.source, played: { ...LOW_E, hertz: 1000 } } } : d,
  );
  const again = new Map(circuit.drivers.map((d, i) => [d, drivers[i]!]));
  return {
    ...circuit,
    drivers,
    sections: circuit.sections.map((s) => ({
      ...s,
      drivers: s.drivers.map((d) => again.get(d)!),
    })),
  };
}

test('a sine of 1 kHz is as loud everywhere as the level says, where one wave comes by one way', () => {
  let compared = 0;
  for (const rig of DEMO_RIGS) {
    const circuit = withSines(rig);
    const levels = runSignal(circuit);
    const note = runNote(circuit, sine);
    for (const { index } of circuit.nets) {
      const { flows } = levels.present(index);
      const parts = note.at(index);
      // Dirt before a filter or a ceiling has harmonics, which levels at 1 kHz pass like the sine.
      if (
        flows.length !== 1 ||
        parts.length !== 1 ||
        flows[0]!.shapes.some((s) => s !== flows[0]!.shapes[0])
      )
        continue;
      for (const t of [0, 1, 2] as const) {
        const was = totalVolts(flows, t);
        if (was < 1e-6) continue;
        expect(dbuOfVolts(rmsOf(parts[0]!.waves[t])) - dbuOfVolts(was)).toBeCloseTo(0, 2);
        compared++;
      }
    }
  }
  expect(compared).toBeGreaterThan(100);
});

/** A circuit with one of its stages changed, and driving what follows without loss. */
function withStage(circuit: Circuit, was: CircuitStage, part: Partial<Stage>): Circuit {
  const now = { ...was, stage: { ...was.stage, ...part } };
  const changed = (s: CircuitStage) => (s === was ? now : s);
  const drivers = circuit.drivers.map((d) => ({
    ...d,
    ...(d.index === was.driver && { ohms: 0.01 }),
    stages: d.stages.map(changed),
  }));
  return {
    ...circuit,
    drivers,
    stages: circuit.stages.map(changed),
    sections: circuit.sections.map((s) => ({
      ...s,
      drivers: s.drivers.map((d) => drivers[d.index]!),
    })),
  };
}

const driven = chainOf(['guitar-active', ['drive-low', { engaged: true }], 'console-input']);
const outOf = (circuit: Circuit, stage: CircuitStage) => circuit.drivers[stage.driver]!.net;

test.each([
  [0.5, 0.333],
  [1, 0.575],
  [2, 0.802],
  [4, 0.914],
  [8, 0.959],
])('a sine that drives a soft ceiling by %d leaves with %d of it', (drive, share) => {
  const circuit = withSines(driven);
  const stage = sure(circuit.stages.find((s) => s.device === 'd1'));
  const input = dbuOfVolts(rmsOf(runNote(circuit, sine).at(stage.from)[0]!.waves[1]));
  const changed = withStage(circuit, stage, {
    gainDb: decibels(drive),
    outputDb: 0,
    tiltDb: 0,
    filters: {},
    ceiling: { dbu: input, shape: 'soft', meant: true },
  });
  const out = runNote(changed, sine).at(outOf(changed, stage))[0]!;
  expect(rmsOf(out.waves[1]) / (voltsOfDbu(input) * Math.SQRT2)).toBeCloseTo(share, 2);
});

test('a chain of filters and a ceiling is what stepping through time gives', () => {
  // A high pass at 350 Hz, a soft ceiling and a low pass at 3 kHz.
  const before = [{ is: 'high pass 1', hertz: 350 }] as const;
  const after = [{ is: 'low pass 1', hertz: 3000 }] as const;
  const sizeAt = (hertz: number) => ({
    before: 1 / Math.hypot(1, 350 / hertz),
    after: 1 / Math.hypot(1, hertz / 3000),
  });
  const [at1, at5] = [sizeAt(1000), sizeAt(5000)];
  const circuit = buildCircuit(driven, driven.sounds[0]);
  const stage = sure(circuit.stages.find((s) => s.device === 'd1'));
  const ceiling = 0.4;
  const changed = withStage(circuit, stage, {
    gainDb: 12,
    outputDb: 0,
    inverts: false,
    filters: { before: [...before], after: [...after] },
    tiltDb: decibels((at5.before * at5.after) / (at1.before * at1.after)),
    ceiling: { dbu: dbuOfVolts(ceiling / Math.SQRT2), shape: 'soft', meant: true },
  });
  const flow = runNote(changed);
  const input = flow.at(stage.from)[0]!.waves[1];

  // The same by steps of time, each filter by the exact answer to a line between two samples.
  const steps = 8192;
  const dt = 1 / (LOW_E.hertz * steps);
  const x = Float64Array.from({ length: steps }, (_, i) => {
    let v = 0;
    for (let n = 1; n <= HARMONICS; n++) {
      const w = (2 * Math.PI * n * i) / steps;
      v += input.re[n]! * Math.cos(w) - input.im[n]! * Math.sin(w);
    }
    return v;
  });
  const lowPassed = (wave: Float64Array, hertz: number) => {
    const a = 2 * Math.PI * hertz * dt;
    const e = Math.exp(-a);
    const out = new Float64Array(wave.length);
    let y = 0;
    for (let round = 0; round < 12; round++)
      for (let i = 0; i < wave.length; i++) {
        const [was, now] = [wave[(i + steps - 1) % steps]!, wave[i]!];
        y = y * e + was * ((1 - e) / a - e) + now * (1 - (1 - e) / a);
        out[i] = y;
      }
    return out;
  };
  const low = lowPassed(x, 350);
  const g = 10 ** (12 / 20) / at1.before;
  const bent = x.map((v, i) => ceiling * Math.tanh((g * (v - low[i]!)) / ceiling));
  const passed = lowPassed(bent, 3000).map((v) => v / at1.after);
  // No standing voltage comes through the next capacitor.
  const standing = passed.reduce((a, b) => a + b, 0) / steps;
  const wanted = passed.map((v) => v - standing);

  const mine = noteAt(flow.at(outOf(changed, stage)))!.touches[1];
  const theirs = bandsOf(wanted);
  for (const [i, band] of theirs.bands.entries())
    if (band > theirs.power * 1e-6)
      expect(Math.abs(mine.bandsDbu[i]! - dbuOfVolts(Math.sqrt(band)))).toBeLessThan(0.3);
  expect(Math.abs(mine.levelDbu - dbuOfVolts(Math.sqrt(theirs.power)))).toBeLessThan(0.1);
  const peak = wanted.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  expect(Math.abs(mine.truePeakDbu - dbuOfVolts(peak / Math.SQRT2))).toBeLessThan(0.2);
});

function bandsOf(wave: Float64Array) {
  const bands = BANDS.map(() => 0);
  let power = 0;
  for (let n = 1; n <= HARMONICS; n++) {
    let [re, im] = [0, 0];
    for (let i = 0; i < wave.length; i++) {
      const w = (2 * Math.PI * n * i) / wave.length;
      re += (wave[i]! * Math.cos(w) * 2) / wave.length;
      im -= (wave[i]! * Math.sin(w) * 2) / wave.length;
    }
    const band = bandOf(n * LOW_E.hertz);
    if (band !== undefined) bands[band]! += (re * re + im * im) / 2;
    power += (re * re + im * im) / 2;
  }
  return { bands, power };
}

test('waves of one source add as waves: two alike are twice as high, one turned leaves nothing', () => {
  const circuit = buildCircuit(driven, driven.sounds[0]);
  const [part] = runNote(circuit).at(sure(circuit.stages[0]).from);
  const turned = { ...part!, waves: part!.waves.map((w) => scaledBy(w, -1)) as Part['waves'] };
  const other = { ...part!, source: 'another' };
  const level = (parts: Part[]) => noteAt(joined(parts))?.touches[1].levelDbu;
  const one = level([part!])!;
  expect(level([part!, part!])! - one).toBeCloseTo(6.02, 2);
  expect(level([part!, turned])).toBeUndefined();
  expect(level([part!, other])! - one).toBeCloseTo(3.01, 2);
});

test('of the demo rigs: bands hold the level, peaks stand over it, every destination that has level has a note', () => {
  for (const rig of DEMO_RIGS) {
    const sound = sure(rig.sounds[0]);
    const note = playNote(rig, sound);
    const circuit = buildCircuit(rig, sound);
    const levels = runSignal(circuit);
    for (const d of rig.devices)
      for (const point of kindOf(d.kind).destination?.jacks ?? []) {
        const net = circuit.netAt(d.id, point);
        const volts = net ? totalVolts(levels.present(net.index).flows, 1) : 0;
        const at = note.at(d.id, point);
        expect(at !== undefined).toBe(volts > 1e-9);
        for (const f of at?.touches ?? []) {
          const all = f.bandsDbu.reduce((s: number, b) => s + (b === null ? 0 : 10 ** (b / 10)), 0);
          expect(10 * Math.log10(all)).toBeLessThanOrEqual(f.levelDbu + 1e-9);
          expect(f.crestDb).toBeGreaterThan(0);
          expect(Math.abs(f.loudnessDbu - f.levelDbu)).toBeLessThan(8);
        }
      }
  }
}, 60_000);

test('picking harder never makes a note softer, and a boost in front of dirt adds more dirt than level', () => {
  const boosted = (level: number) =>
    chainOf([
      'guitar-active',
      ['boost', { engaged: true, settings: { gain: level } }],
      ['drive-mid', { engaged: true }],
      'console-input',
    ]);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 10 }), (level) => {
      const rig = boosted(level);
      const at = playNote(rig, sure(rig.sounds[0])).at('d3', 'in')!;
      const [soft, normal, hard] = at.touches.map((f) => f.levelDbu);
      return soft! <= normal! + 1e-6 && normal! <= hard! + 1e-6;
    }),
    { numRuns: 11 },
  );
  const figures = (level: number) => {
    const rig = boosted(level);
    const { at, added } = playNote(rig, sure(rig.sounds[0]));
    return {
      level: at('d3', 'in')!.touches[1].levelDbu,
      added: added().find((a) => a.device === 'd2')?.db[1] ?? -200,
    };
  };
  const [low, high] = [figures(2), figures(9)];
  expect(high.added - low.added).toBeGreaterThan(high.level - low.level);
});

test('a note that is late is the same wave, moved: each harmonic by its own angle', () => {
  const note = spectrumOf(samplesOf(pluck(LOW_E)));
  const period = 1000 / LOW_E.hertz;
  const quarter = samplesOf(delayed(note, LOW_E.hertz, period / 4));
  const now = samplesOf(note);
  const n = now.length;
  for (let i = 0; i < n; i += 37) expect(quarter[i]).toBeCloseTo(now[(i - n / 4 + n) % n]!, 9);
  expect(rmsOf(delayed(note, LOW_E.hertz, 1.234))).toBeCloseTo(rmsOf(note), 12);
});
