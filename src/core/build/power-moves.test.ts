import fc from 'fast-check';
import { applyEdits, type Device, type Rig } from '../rig';
import { cases } from '../testing/cases';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { powerRemarks } from '.';

const OUTLETS = {
  '1': { id: '1', volts: 9, milliamps: 100, isolated: true },
  '2': { id: '2', volts: 9, milliamps: 500, isolated: true },
  '3': { id: '3', volts: 9, also: [12, 18], milliamps: 300, isolated: true },
  '4': { id: '4', volts: 9, milliamps: 300, isolated: false },
  '5': { id: '5', volts: 9, milliamps: 300, isolated: false },
};
const supply = (ids: readonly (keyof typeof OUTLETS)[], more: object = {}) =>
  device('s', 'supply-isolated', 'S', {
    gives: { outlets: ids.map((id) => OUTLETS[id]), ...more },
  });
const pedal = (id: string, power: object, outlet?: string) =>
  device(id, 'phaser', id.toUpperCase(), {
    power: { volts: 9, maxVolts: 9, milliamps: 50, ...power },
    ...(outlet && { supply: { device: 's', outlet } }),
  });
const rig = (...devices: Device[]): Rig => rigOf(devices, []);
const after = (r: Rig, edits: Parameters<typeof applyEdits>[1]) =>
  valueOf(applyEdits(r, edits)).rig;
/** What is told above advice, and the first way out of each. */
const told = (r: Rig) =>
  powerRemarks(r)
    .filter((x) => x.severity !== 'advice')
    .map((x) => [x.rule, x.fix?.words]);

/** D of so much on an outlet of 100 mA, E of so much on one of 500. */
const two = (d: number, e: number): Rig =>
  rig(pedal('d', { milliamps: d }, '1'), pedal('e', { milliamps: e }, '2'), supply(['1', '2']));

test.each([
  [
    'goes beside others that leave room, where none is free or to be had',
    300,
    95,
    'Plug D into outlet 2 of S, beside E',
  ],
  [
    'is exchanged where each is fed in the place of the other',
    400,
    70,
    'Exchange the plugs of D and E',
  ],
])('what is too much for its outlet %s', (_, d, e, words) => {
  const r = two(d, e);
  expect(told(r)).toEqual([['power-current', words]]);
  expect(told(after(r, powerRemarks(r)[0]!.fix!.edits))).toEqual([]);
});

test('whoever is pinned is not exchanged', () => {
  const r = two(400, 70);
  const devices = r.devices.map((d) =>
    d.id === 'e' ? { ...d, supply: { ...d.supply!, pinned: true } } : d,
  );
  expect(told({ ...r, devices })).toEqual([['power-current', undefined]]);
});

test('what has no power is plugged in where it is fed as it should be; nothing is offered where one is left over', () => {
  const r = rig(pedal('d', {}), pedal('e', {}, '1'), pedal('f', {}), supply(['1', '2']));
  expect(told(r)).toEqual([['power-none', 'Plug all 2 into outlets with room']]);
  expect(told(after(r, powerRemarks(r)[0]!.fix!.edits))).toEqual([]);
  const large = rig(pedal('d', { milliamps: 450 }), pedal('e', {}, '1'), supply(['1', '2']));
  expect(told(large)).toEqual([['power-none', undefined]]);
});

test('an outlet that is set two ways is one finding, and whoever fits elsewhere goes there', () => {
  const set = (d: Device, volts: number) => ({ ...d, supply: { ...d.supply!, volts } });
  const [twelve, eighteen] = [
    set(pedal('d', { volts: 12, maxVolts: 12 }, '3'), 12),
    set(pedal('e', { volts: 9, maxVolts: 18 }, '3'), 18),
  ];
  const r = rig(twelve, eighteen, supply(['2', '3']));
  expect(told(r)).toEqual([['power-voltage', 'Plug E into outlet 2 of S']]);
  expect(told(after(r, powerRemarks(r)[0]!.fix!.edits))).toEqual([]);
});

test('a box that hands power on is not plugged into what hangs on it', () => {
  const hander = { ...pedal('h', { milliamps: 30 }), gives: { outlets: [OUTLETS['1']] } };
  const other = device('s2', 'supply-isolated', 'S2', {
    gives: { outlets: [OUTLETS['2']] },
    power: { volts: 9, milliamps: 10 },
    supply: { device: 'h', outlet: '1' },
  });
  expect(powerRemarks(rig(hander, other)).flatMap((x) => x.fix?.words ?? [])).toEqual([]);
});

test('nor into what hangs on it by way of another', () => {
  const by = (id: string, on?: string) => ({
    ...pedal(id, { milliamps: 5 }),
    gives: { outlets: [{ ...OUTLETS['2'], id: '1' }] },
    ...(on && { supply: { device: on, outlet: '1' } }),
  });
  // G hangs on F, and F on H, which has no power: none of them can feed it.
  const chain = rig(by('h'), by('f', 'h'), by('g', 'f'));
  expect(told(chain)).toEqual([['power-none', undefined]]);
  const fed = rig(by('h'), by('f', 'h'), by('g', 'f'), supply(['2']));
  expect(told(fed)).toEqual([['power-none', 'Plug H into outlet 2 of S']]);
});

const anyPedal = fc.record({
  volts: fc.constantFrom(9, 12),
  maxVolts: fc.constantFrom(12, 18),
  milliamps: fc.integer({ min: 5, max: 280 }),
  noisy: fc.boolean(),
  sensitive: fc.boolean(),
  at: fc.constantFrom('1', '2', '3', '4', '5', undefined),
});

test('whatever is plugged where: a way out by plugs cures what it is offered for, and makes nothing wrong', () => {
  fc.assert(
    fc.property(
      fc.array(anyPedal, { minLength: 1, maxLength: 6 }),
      fc.constantFrom(undefined, 400, 900),
      (list, totalMilliamps) => {
        const pedals = list.map(({ at, ...power }, i) => pedal(`d${i}`, power, at));
        const r = rig(...pedals, supply(['1', '2', '3', '4', '5'], { totalMilliamps }));
        const keys = (x: Rig) =>
          powerRemarks(x)
            .filter((f) => f.severity !== 'advice')
            .map((f) => `${f.rule} ${f.about}`);
        const before = new Set(keys(r));
        for (const { what, why } of powerRemarks(r))
          expect([what, why].join()).toMatch(/^[A-Z\d].*\.$/);
        for (const remark of powerRemarks(r))
          for (const way of [remark.fix, ...(remark.others ?? [])]) {
            if (!way || way.words.startsWith('Unplug')) continue;
            const now = keys(after(r, way.edits));
            expect(now.filter((k) => !before.has(k))).toEqual([]);
            // Of several that hang together, one that goes need not be all that had to.
            if (!/power-(return|current)/.test(remark.rule))
              expect(now).not.toContain(`${remark.rule} ${remark.about}`);
          }
      },
    ),
    { numRuns: cases(150, 2000) },
  );
});
