import fc from 'fast-check';
import type { Circuit, Driver, Net, Section } from './circuit';
import { solveSection } from './passive';

const net = (index: number, shunts: Net['shunts'], leadFarads = 0): Net => ({
  index,
  points: [],
  leads: [],
  coils: [],
  leadFarads,
  shunts,
  section: 0,
});
const driver = (index: number, at: number, ohms: number, henries = 0): Driver => ({
  index,
  device: `d${index}`,
  net: at,
  ohms,
  henries,
  stages: [],
});
const circuit = (
  nets: Net[],
  drivers: Driver[],
  resistors: Section['resistors'] = [],
): { circuit: Circuit; section: Section } => {
  const section = { index: 0, nets: nets.map((n) => n.index), resistors, drivers };
  return {
    circuit: {
      nets,
      sections: [section],
      drivers,
      stages: [],
      arrivals: [],
      netAt: () => undefined,
    },
    section,
  };
};
const ohms = (r: number) => ({ ohms: r, farads: 0 });

describe('nodal solution against networks known by hand', () => {
  test('a divider', () => {
    const { circuit: c, section } = circuit([net(0, [ohms(10_000)])], [driver(0, 0, 10_000)]);
    expect(solveSection(c, section, 1000).transfer(0, 0)).toBeCloseTo(0.5, 6);
  });
  test('a divider of two resistors behind a net', () => {
    const { circuit: c, section } = circuit(
      [net(0, []), net(1, [ohms(30_000)])],
      [driver(0, 0, 0.01)],
      [{ a: 0, b: 1, ohms: 10_000 }],
    );
    const s = solveSection(c, section, 1000);
    expect(s.transfer(0, 1)).toBeCloseTo(0.75, 5);
    expect(s.impedance(1).re).toBeCloseTo(7500, 0);
  });
  test('a low-pass is 3 dB down at 1/(2πRC)', () => {
    const { circuit: c, section } = circuit([net(0, [ohms(1e12)], 1e-9)], [driver(0, 0, 10_000)]);
    expect(solveSection(c, section, 1 / (2 * Math.PI * 10_000 * 1e-9)).transfer(0, 0)).toBeCloseTo(
      Math.SQRT1_2,
      5,
    );
  });
  test('a coil and a capacitor resonate at 1/(2π√(LC))', () => {
    const { circuit: c, section } = circuit([net(0, [ohms(1e12)], 1e-9)], [driver(0, 0, 100, 1)]);
    const f0 = 1 / (2 * Math.PI * Math.sqrt(1e-9));
    const q = Math.sqrt(1 / 1e-9) / 100;
    expect(solveSection(c, section, f0).transfer(0, 0) / q).toBeCloseTo(1, 2);
  });
  test('a resistor and a capacitor in series to ground let go of low notes', () => {
    const { circuit: c, section } = circuit(
      [net(0, [{ ohms: 1000, farads: 1e-6 }])],
      [driver(0, 0, 9000)],
    );
    expect(solveSection(c, section, 1).transfer(0, 0)).toBeGreaterThan(0.99);
    expect(solveSection(c, section, 100_000).transfer(0, 0)).toBeCloseTo(0.1, 3);
  });
  test('two sources blended passively load each other', () => {
    const { circuit: c, section } = circuit(
      [net(0, [ohms(1e6)])],
      [driver(0, 0, 10_000), driver(1, 0, 10_000)],
    );
    const s = solveSection(c, section, 1000);
    expect(20 * Math.log10(s.transfer(0, 0))).toBeCloseTo(-6.06, 2);
    expect(s.transfer(0, 0)).toBeCloseTo(s.transfer(1, 0), 9);
  });
});

describe('laws', () => {
  const r = fc.double({ min: 10, max: 1e6, noNaN: true });
  test('a network without coils never gives more than it gets, at any frequency', () => {
    fc.assert(
      fc.property(
        r,
        r,
        r,
        fc.double({ min: 0, max: 1e-7, noNaN: true }),
        fc.double({ min: 20, max: 20_000, noNaN: true }),
        (source, series, load, farads, hertz) => {
          const { circuit: c, section } = circuit(
            [net(0, [], farads), net(1, [ohms(load)])],
            [driver(0, 0, source)],
            [{ a: 0, b: 1, ohms: series }],
          );
          const s = solveSection(c, section, hertz);
          return s.transfer(0, 0) <= 1 + 1e-9 && s.transfer(0, 1) <= s.transfer(0, 0) + 1e-9;
        },
      ),
    );
  });
  test('sources superpose: what two give together at one net is the sum of what each gives', () => {
    fc.assert(
      fc.property(r, r, r, (a, b, load) => {
        const both = solveSection(...pair(a, b, load), 1000);
        const parallel = 1 / (1 / b + 1 / load);
        return Math.abs(both.transfer(0, 0) - parallel / (parallel + a)) < 1e-6;
      }),
    );
  });
  const pair = (a: number, b: number, load: number): [Circuit, Section] => {
    const { circuit: c, section } = circuit(
      [net(0, [ohms(load)])],
      [driver(0, 0, a), driver(1, 0, b)],
    );
    return [c, section];
  };
});

test('any parts to ground at one net divide as their admittances, worked out by hand', () => {
  const part = fc.record({
    ohms: fc.oneof(
      fc.constant(0),
      fc.constant(Infinity),
      fc.double({ min: 1, max: 1e7, noNaN: true }),
    ),
    farads: fc.oneof(fc.constant(0), fc.double({ min: 1e-12, max: 1e-6, noNaN: true })),
    henries: fc.oneof(fc.constant(0), fc.double({ min: 1e-3, max: 10, noNaN: true })),
  });
  fc.assert(
    fc.property(
      fc.array(part, { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 50, max: 10_000 }),
      fc.double({ min: 10, max: 1e6, noNaN: true }),
      (parts, hertz, source) => {
        const w = 2 * Math.PI * hertz;
        // A plain wire to ground (no ohms, no farads, no henries) is not a part.
        const shunts = parts
          .filter((p) => p.ohms > 0 || p.farads > 0 || p.henries > 0)
          .map((p) => {
            const inSeries = p.henries > 0 || p.farads > 0;
            const r = inSeries && !Number.isFinite(p.ohms) ? 0 : p.ohms;
            return { ...p, ohms: r, farads: p.henries ? 0 : p.farads };
          });
        const inverse = (re: number, im: number) => {
          const size = re * re + im * im;
          return Number.isFinite(size) ? { re: re / size, im: -im / size } : { re: 0, im: 0 };
        };
        const sum = shunts
          .map(({ ohms: r, farads, henries }) =>
            henries ? inverse(r, w * henries) : inverse(r, farads ? -1 / (w * farads) : 0),
          )
          .reduce((a, b) => ({ re: a.re + b.re, im: a.im + b.im }), { re: 1 / source, im: 0 });
        const { circuit: c, section } = circuit([net(0, shunts)], [driver(0, 0, source)]);
        const gain = solveSection(c, section, hertz).transfer(0, 0);
        expect(gain / (1 / source / Math.hypot(sum.re, sum.im))).toBeCloseTo(1, 5);
      },
    ),
    { numRuns: 60 },
  );
});
