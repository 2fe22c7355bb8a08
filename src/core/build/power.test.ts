import fc from 'fast-check';
import loadHighs from 'highs';
import { brokenRig, flyRig, touringRig } from '../demo';
import { powerPlanCsv } from '../formats';
import { applyEdits, type Device, type Gives, type Rig, supplyTotal } from '../rig';
import { exactly, type MipSolver } from '../optimum';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { refused } from '../outcome';
import {
  loadsOf,
  misfit,
  needOf,
  planPower,
  placesOf,
  powerRemarks,
  quarrel,
  takersOf,
  unfed,
  voltagesOf,
} from '.';

let solver: MipSolver;
beforeAll(async () => {
  const highs = await loadHighs({});
  solver = exactly(highs);
});

const plan = (rig: Rig, headroom?: number) => valueOf(planPower(rig, solver, headroom));
const rules = (rig: Rig) => powerRemarks(rig).map((r) => `${r.severity} ${r.rule}`);

/** The most devices that any assignment feeds, by trying every one. */
const mostFed = (rig: Rig, headroom: number): number =>
  bestOf(rig, headroom, (found) => [found.fed])[0]!;

/** What the best assignment comes to, by trying every one: of two the one is better whose first figure is higher, then the next. */
function bestOf(
  rig: Rig,
  headroom: number,
  worth: (found: { fed: number; used: number; moved: number }) => number[],
): number[] {
  const takers = takersOf(rig);
  const places = placesOf(rig);
  let best = worth({ fed: 0, used: 0, moved: 0 });
  const isBetter = (a: number[], b: number[]) => {
    const differs = a.findIndex((x, i) => x !== b[i]);
    return differs >= 0 && a[differs]! > b[differs]!;
  };
  const at: ({ place: number; volts: number } | null)[] = takers.map(() => null);
  const fits = (i: number): boolean => {
    const now = at[i]!;
    const place = places[now.place]!;
    const mates = takers.flatMap((t, k) => (k <= i && at[k] ? [{ t, at: at[k] }] : []));
    const here = mates.filter((m) => m.at.place === now.place);
    const load = (list: typeof mates) =>
      list.reduce((sum, m) => sum + m.t.need.milliamps * (1 + headroom), 0);
    if (here.some((m) => m.at.volts !== now.volts) || load(here) > place.outlet.milliamps + 1e-9)
      return false;
    const total = supplyTotal(place.supply);
    if (
      total !== undefined &&
      load(mates.filter((m) => places[m.at.place]!.supply.id === place.supply.id)) > total + 1e-9
    )
      return false;
    const sharing = place.outlet.isolated
      ? here
      : mates.filter(
          (m) =>
            places[m.at.place]!.supply.id === place.supply.id &&
            !places[m.at.place]!.outlet.isolated,
        );
    return sharing.every((m) => m.t === takers[i] || !quarrel(m.t.need, takers[i]!.need));
  };
  const stays = (i: number) => {
    const { supply } = takers[i]!.device;
    const { supply: box, outlet } = places[at[i]!.place]!;
    return supply?.device === box.id && supply.outlet === outlet.id;
  };
  const go = (i: number, fed: number) => {
    if (fed + takers.length - i < best[0]!) return;
    if (i === takers.length) {
      const fedAt = at.flatMap((x, n) => (x ? [{ place: x.place, n }] : []));
      const used = new Set(fedAt.map((x) => x.place)).size;
      const found = worth({ fed, used, moved: fedAt.filter((x) => !stays(x.n)).length });
      if (isBetter(found, best)) best = found;
      return;
    }
    places.forEach((p, place) =>
      voltagesOf(p.outlet).forEach((volts) => {
        if (misfit(takers[i]!.need, p.outlet, volts)) return;
        at[i] = { place, volts };
        if (fits(i)) go(i + 1, fed + 1);
      }),
    );
    at[i] = null;
    go(i + 1, fed);
  };
  go(0, 0);
  return best;
}

/**
 * Outlets as nobody makes them: any voltages, currents and polarity, isolated or not, with or
 * without a limit for all.
 */
const anySupply = fc
  .record({
    outlets: fc.array(
      fc.record({
        volts: fc.constantFrom<number[]>([9], [9, 12], [12], [9, 12, 18], [18]),
        milliamps: fc.integer({ min: 40, max: 600 }),
        isolated: fc.boolean(),
        current: fc.constantFrom('negative', 'negative', 'negative', 'positive', 'ac'),
      }),
      { minLength: 1, maxLength: 4 },
    ),
    total: fc.option(fc.integer({ min: 100, max: 1200 }), { nil: undefined }),
  })
  .map(({ outlets, total }): Gives => ({
    outlets: outlets.map(({ volts: [volts, ...also], milliamps, isolated, current }, i) => ({
      id: `o${i}`,
      volts: volts!,
      also,
      milliamps,
      isolated,
      ac: current === 'ac',
      centre: current === 'positive' ? ('positive' as const) : ('negative' as const),
    })),
    ...(total !== undefined && { totalMilliamps: total }),
  }));

const anyBoard = fc
  .array(
    fc.record({
      volts: fc.constantFrom(9, 9, 9, 12, 18),
      wide: fc.boolean(),
      milliamps: fc.integer({ min: 5, max: 420 }),
      noisy: fc.boolean(),
      sensitive: fc.boolean(),
      plus: fc.integer({ min: 0, max: 5 }),
      odd: fc.integer({ min: 0, max: 9 }),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .map((list) =>
    list.map((x, i): Device =>
      device(`d${i}`, 'phaser', `D${i}`, {
        power: {
          volts: x.volts,
          milliamps: x.milliamps,
          ...(x.wide && { maxVolts: 18 }),
          noisy: x.noisy,
          sensitive: x.sensitive,
          positiveGround: x.plus === 0,
          ac: x.odd === 0,
          ...(x.odd === 1 && { centre: 'positive' as const }),
        },
      }),
    ),
  );

test('the plan feeds as many as any assignment can, and keeps every rule: against trying them all', () => {
  fc.assert(
    fc.property(
      anyBoard,
      fc.constantFrom('supply-shared', 'supply-isolated'),
      fc.constantFrom(0, 0.2),
      (devices, supply, headroom) => {
        const rig = rigOf([...devices, device('s', supply, 'S')], []);
        const p = plan(rig, headroom);
        if (p.fed.length !== mostFed(rig, headroom)) return false;
        const done = applyEdits(rig, p.edits);
        if (!done.ok) return false;
        // What was fed meets no danger or fault; what was not is told.
        const bad = rules(done.value.rig).filter(
          (r) => !r.startsWith('caution') && !r.endsWith('power-none'),
        );
        return (
          bad.length === 0 &&
          unfed(done.value.rig).length === p.starved.length &&
          p.starved.every((s) => s.why.length > 10 && s.cure.length > 5)
        );
      },
    ),
    { numRuns: 60 },
  );
}, 120_000);

test('a device that is digital and lifts what it picks up has an outlet to itself; with others it quarrels', () => {
  const both = (id: string) =>
    device(id, 'phaser', id.toUpperCase(), {
      power: { volts: 9, milliamps: 50, noisy: true, sensitive: true },
    });
  const plain = device('p', 'phaser', 'P', { power: { volts: 9, milliamps: 50 } });
  const gives = (count: number) => ({
    outlets: Array.from({ length: count }, (_, i) => ({
      ...{ id: String(i + 1), volts: 9, milliamps: 500, isolated: true },
    })),
  });
  const fed = (count: number, ...devices: Device[]) =>
    plan(rigOf([...devices, device('s', 'supply-isolated', 'S', { gives: gives(count) })], [])).fed
      .length;
  expect(fed(1, both('a'))).toBe(1);
  expect(fed(1, both('a'), plain)).toBe(2);
  expect(fed(1, both('a'), both('b'))).toBe(1);
  expect(fed(2, both('a'), both('b'))).toBe(2);
});

test('what a box hands on counts on the outlet that it hangs on, and boxes do not feed one another', () => {
  const hander = (id: string, milliamps: number) =>
    device(id, 'phaser', id.toUpperCase(), {
      power: { volts: 9, milliamps: 20 },
      gives: { outlets: [{ id: 'out', volts: 9, milliamps, isolated: false }] },
    });
  const pedal = (id: string, milliamps: number) =>
    device(id, 'phaser', id.toUpperCase(), { power: { volts: 9, milliamps } });
  const supply = (milliamps: number) =>
    device('s', 'supply-isolated', 'S', {
      gives: { outlets: [{ id: '1', volts: 9, milliamps, isolated: true }] },
    });
  const fed = (...devices: Device[]) =>
    plan(rigOf(devices, []), 0)
      .fed.map((f) => f.device)
      .sort();
  // 20 of its own and 100 that it hands on are 120: one milliamp less, and one of them goes without.
  expect(fed(hander('h', 500), pedal('p', 100), supply(120))).toEqual(['h', 'p']);
  expect(fed(hander('h', 500), pedal('p', 100), supply(119))).toHaveLength(1);
  // Two boxes and nothing behind them: each could hang on the other, and neither would have power.
  expect(fed(hander('a', 500), hander('b', 500), supply(10))).toEqual([]);
  expect(fed(hander('a', 500), hander('b', 500), supply(40))).toEqual(['a', 'b']);
});

test('what hands power on keeps an outlet that bears both, though a narrower one bears the box alone', () => {
  const gives = { outlets: [{ id: 'out', volts: 9, milliamps: 500, isolated: false }] };
  const box = device('h', 'phaser', 'H', { power: { volts: 9, milliamps: 20 }, gives });
  const pedal = device('p', 'phaser', 'P', {
    power: { volts: 9, milliamps: 300 },
    supply: { device: 'h', outlet: 'out', pinned: true },
  });
  const outlets = [100, 500].map((milliamps, i) => ({
    ...{ id: String(i + 1), volts: 9, milliamps, isolated: true },
  }));
  const supply = device('s', 'supply-isolated', 'S', { gives: { outlets } });
  const rig = rigOf([box, pedal, supply], []);
  const p = plan(rig);
  expect(p.fed.find((f) => f.device === 'h')).toMatchObject({ supply: 's', outlet: '2' });
  const done = applyEdits(rig, p.edits);
  expect(done.ok && rules(done.value.rig)).toEqual([]);
});

test('every cure that is printed was tried: made so, one more can be fed, and nobody less', () => {
  fc.assert(
    fc.property(anyBoard, anySupply, fc.nat({ max: 3 }), (devices, supply, pin) => {
      const outlet = supply.outlets[0]!.id;
      const pinned = devices.map((d, i) =>
        i === pin ? { ...d, supply: { device: 's', outlet, pinned: true } } : d,
      );
      const rig = rigOf([...pinned, device('s', 'supply-isolated', 'S', { gives: supply })], []);
      const before = plan(rig);
      for (const s of before.starved) {
        const made = applyEdits(rig, s.edits);
        if (!made.ok) return false;
        if (!s.edits.length) continue;
        // All that were fed can be, and it beside them: fewer stay without, whichever the plan takes.
        const after = plan(made.value.rig);
        if (after.fed.length <= before.fed.length) return false;
      }
      return true;
    }),
    { numRuns: 60 },
  );
}, 120_000);

test('as few plugs move as can be, though a device without power weighs ten thousand times as much', () => {
  // Fourteen devices that nothing can feed, and six that could all stay where they are but for two.
  const hungry = Array.from({ length: 14 }, (_, i) =>
    device(`h${i}`, 'phaser', `H${i}`, { power: { volts: 24, milliamps: 10 } }),
  );
  const fed = Array.from({ length: 6 }, (_, i) =>
    device(`f${i}`, 'phaser', `F${i}`, {
      power: { volts: 9, milliamps: 100 },
      supply: { device: 's', outlet: i < 2 ? '1' : String(i) },
    }),
  );
  const gives = {
    outlets: Array.from({ length: 8 }, (_, i) => ({
      ...{ id: String(i + 1), volts: 9, milliamps: 130, isolated: true },
    })),
  };
  const p = plan(rigOf([...hungry, ...fed, device('s', 'supply-isolated', 'S', { gives })], []));
  expect([p.fed.length, p.starved.length, p.moved]).toEqual([6, 14, 1]);
}, 60_000);

test('so it does with outlets that were written in, of two supplies', () => {
  fc.assert(
    fc.property(anyBoard, anySupply, anySupply, (devices, one, two) => {
      const rig = rigOf(
        [
          ...devices.slice(0, 5),
          device('s', 'supply-isolated', 'S', { gives: one }),
          device('t', 'supply-large', 'T', { gives: two }),
        ],
        [],
      );
      const p = plan(rig);
      const done = applyEdits(rig, p.edits);
      if (!done.ok || p.fed.length !== mostFed(rig, 0.2)) return false;
      const known = new Set([
        ...one.outlets.map((o) => `s ${o.id}`),
        ...two.outlets.map((o) => `t ${o.id}`),
      ]);
      return (
        p.fed.every((f) => known.has(`${f.supply} ${f.outlet}`)) &&
        rules(done.value.rig).every((r) => r.startsWith('caution') || r.endsWith('power-none'))
      );
    }),
    { numRuns: 60 },
  );
}, 120_000);

test('fed, then each an outlet of its own, then left where it is: as good as the best of all ways there are', () => {
  const plugged = fc.array(
    fc.record({ supply: fc.boolean(), outlet: fc.integer({ min: 0, max: 3 }) }),
    {
      minLength: 4,
      maxLength: 4,
    },
  );
  let moves = 0;
  fc.assert(
    fc.property(anyBoard, plugged, anySupply, anySupply, (devices, at, one, two) => {
      const rig = rigOf(
        [
          ...devices.slice(0, 4).map((d, i) => ({
            ...d,
            supply: { device: at[i]!.supply ? 's' : 't', outlet: `o${at[i]!.outlet}` },
          })),
          device('s', 'supply-isolated', 'S', { gives: one }),
          device('t', 'supply-large', 'T', { gives: two }),
        ],
        [],
      );
      const p = plan(rig);
      const { length: fed } = p.fed;
      moves += p.moved;
      const best = bestOf(rig, 0.2, (f) => [f.fed, f.used, -f.moved]);
      expect([fed, fed - p.shared, -p.moved]).toEqual(best);
    }),
    { numRuns: 60 },
  );
  expect(moves).toBeGreaterThan(0);
}, 120_000);

test('a hundred devices, plugged anyhow: all fed, none shares that need not, as few moved as can be', () => {
  // Three sorts of outlets and of devices that fit one sort each; two in five stand right.
  const sorts = [9, 12, 18];
  const outlets = (volts: number, count: number) =>
    Array.from({ length: count }, (_, i) => ({
      ...{ id: `${volts} ${i}`, volts, milliamps: 300, isolated: true },
    }));
  const gives = { outlets: [...outlets(9, 50), ...outlets(12, 20), ...outlets(18, 20)] };
  const devices = Array.from({ length: 100 }, (_, i) => {
    const volts = i < 60 ? 9 : sorts[1 + (i % 2)]!;
    const n = i < 60 ? i : Math.floor((i - 60) / 2);
    return device(`d${i}`, 'phaser', `D${i}`, {
      power: { volts, milliamps: 100 },
      ...(i % 5 < 2 && { supply: { device: 's', outlet: `${volts} ${n % 40}` } }),
    });
  });
  const p = plan(rigOf([...devices, device('s', 'supply-isolated', 'S', { gives })], []));
  expect([p.fed.length, p.starved.length]).toEqual([100, 0]);
  // Sixty of 9 V on fifty outlets: ten share. Those that share and stand right may stay so.
  expect(p.shared).toBe(10);
  const right = devices.filter((d) => d.supply).length;
  expect(p.moved).toBe(100 - right);
}, 60_000);

test('the reason when it cannot be: which device, how many milliamps short, what would cure it', () => {
  const rig = rigOf(
    [
      device('a', 'modeler-compact', 'Big', { power: { milliamps: 900 } }),
      device('s', 'supply-isolated', 'S'),
    ],
    [],
  );
  expect(plan(rig).starved).toMatchObject([
    {
      device: 'a',
      shortMilliamps: 580,
      why: 'it needs 1080 mA with headroom, and the most that is left on one outlet is 500 mA',
      cure: 'an outlet of 9 V DC, centre negative, 1080 mA on another supply, or an adapter',
    },
  ]);
  const ac = rigOf(
    [device('a', 'phaser', 'Old', { power: { ac: true } }), device('s', 'supply-isolated', 'S')],
    [],
  );
  expect(plan(ac).starved[0]).toMatchObject({
    why: 'no outlet gives 9 V AC',
    shortMilliamps: null,
  });
  expect(planPower(rigOf([device('a', 'phaser', 'P')], []), solver)).toEqual(
    refused('There is no supply in this rig. Add one, then the outlets can be given out.'),
  );
});

test('pins stay, a second plan moves nothing, a narrow outlet is taken before a wide one', () => {
  const rig = rigOf(
    [
      device('a', 'phaser', 'A', { supply: { device: 's', outlet: '8', pinned: true } }),
      device('b', 'phaser', 'B'),
      device('s', 'supply-isolated', 'S'),
    ],
    [],
  );
  const p = plan(rig);
  expect(p.fed.find((f) => f.device === 'a')!.outlet).toBe('8');
  expect(Number(p.fed.find((f) => f.device === 'b')!.outlet)).toBeLessThanOrEqual(6);
  const done = applyEdits(rig, p.edits);
  expect(done.ok && plan(done.value.rig)).toMatchObject({ moved: 0, edits: [] });
});

test('dangers first: voltage, AC, polarity; then current, sag, a return that must not be shared', () => {
  const on = (rest: Partial<Device>, supply = 's', outlet = '7') =>
    rigOf(
      [
        device('a', 'phaser', 'A', { supply: { device: supply, outlet }, ...rest }),
        device('s', 'supply-isolated', 'S'),
        device('c', 'supply-shared', 'C'),
      ],
      [],
    );
  expect(rules(on({ supply: { device: 's', outlet: '7', volts: 18 } }))).toEqual([
    'danger power-voltage',
  ]);
  expect(rules(on({ power: { ac: true } }))).toEqual(['danger power-ac']);
  expect(rules(on({ power: { centre: 'positive' } }))).toEqual(['danger power-polarity']);
  expect(rules(on({ power: { volts: 18 } }))).toEqual(['fault power-low']);
  expect(rules(on({ power: { milliamps: 450 } }))).toEqual(['caution power-current']);
  expect(rules(on({ power: { milliamps: 600 } }))).toEqual(['fault power-current']);
  for (const r of ['power-ac', 'power-polarity']) {
    const found = powerRemarks(
      on(r === 'power-ac' ? { power: { ac: true } } : { power: { centre: 'positive' } }),
    ).find((x) => x.rule === r)!;
    const done = applyEdits(
      on(r === 'power-ac' ? { power: { ac: true } } : { power: { centre: 'positive' } }),
      found.fix!.edits,
    );
    expect(done.ok && rules(done.value.rig)).toEqual(['advice power-none']);
  }
  const chain = rigOf(
    [
      device('a', 'delay', 'Delay', { supply: { device: 'c' } }),
      device('b', 'fuzz-low-impedance', 'Fuzz', { supply: { device: 'c' } }),
      device('c', 'supply-shared', 'C'),
    ],
    [],
  );
  expect(rules(chain)).toEqual(['caution power-return']);
  const plus = rigOf(
    [
      device('a', 'treble-booster', 'Booster', { supply: { device: 'c' } }),
      device('b', 'chorus', 'Chorus', { supply: { device: 'c' } }),
      device('c', 'supply-shared', 'C'),
    ],
    [],
  );
  expect(rules(plus)).toEqual(['danger power-return']);
  const sag = rigOf(
    [
      ...Array.from({ length: 8 }, (_, i) =>
        device(`d${i}`, 'phaser', `D${i}`, {
          power: { milliamps: i < 6 ? 90 : 480 },
          supply: { device: 's', outlet: String(i + 1) },
        }),
      ),
      device('s', 'supply-isolated', 'S'),
    ],
    [],
  );
  expect(rules(sag)).toContain('fault power-total');
});

test(
  'the demo rigs are powered, the practice rig asks for a plan; loads add up; the CSV ' +
    'has a row for every device',
  () => {
    for (const rig of [touringRig, flyRig]) {
      expect(powerRemarks(rig)).toEqual([]);
      expect(loadsOf(rig).reduce((s, l) => s + l.milliamps, 0)).toBe(
        takersOf(rig).reduce((s, t) => s + t.need.milliamps, 0),
      );
      for (const t of takersOf(rig)) expect(powerPlanCsv(rig)).toContain(t.device.name);
    }
    expect(rules(brokenRig)).toEqual(['advice power-none']);
    expect(needOf(device('x', 'delay', 'X', { host: 'y' }))).toBeUndefined();
  },
);
