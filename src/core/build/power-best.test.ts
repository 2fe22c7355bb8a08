import fc from 'fast-check';
import loadHighs from 'highs';
import { applyEdits, type Device, type Gives, type Rig, supplyTotal } from '../rig';
import { exactly, type MipSolver } from '../optimum';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import {
  loadsOf,
  misfit,
  planPower,
  placesOf,
  powerRemarks,
  quarrel,
  takersOf,
  unfed,
  voltagesOf,
} from '.';
import { cases } from '../testing/cases';

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
    { numRuns: cases(20, 60) },
  );
}, 120_000);

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
    { numRuns: cases(20, 60) },
  );
}, 120_000);

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
    { numRuns: cases(20, 60) },
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
    { numRuns: cases(20, 60) },
  );
  expect(moves).toBeGreaterThan(0);
}, 120_000);

test('what is told as what no plan can better is so, where the solver answers in parts alone: against trying them all', () => {
  const inParts: MipSolver = (lp, gap, seconds) =>
    lp.includes('General')
      ? { Status: 'Time limit reached', ObjectiveValue: 0, Columns: {} }
      : solver(lp, gap, seconds);
  const at = fc.array(fc.nat({ max: 3 }), { minLength: 5, maxLength: 5 });
  let open = 0;
  fc.assert(
    fc.property(anyBoard, at, anySupply, (devices, now, one) => {
      const plugged = devices
        .slice(0, 5)
        .map((d, i) => ({ ...d, supply: { device: 's', outlet: `o${now[i]!}` } }));
      const rig = rigOf([...plugged, device('s', 'supply-isolated', 'S', { gives: one })], []);
      const p = valueOf(planPower(rig, inParts));
      open += Number(!p.isProven);
      const [fed = 0, used = 0, stays = 0] = bestOf(rig, 0.2, (f) => [f.fed, f.used, -f.moved]);
      expect(p.atBest.fed).toBeGreaterThanOrEqual(fed);
      if (p.fed.length < fed) return;
      expect(p.atBest.shared).toBeLessThanOrEqual(fed - used);
      if (p.shared === fed - used) expect(p.atBest.moved).toBeLessThanOrEqual(-stays);
      // Told as the best only where it is.
      if (p.isProven) expect([p.shared, p.moved]).toEqual([fed - used, -stays]);
    }),
    { numRuns: cases(40, 200) },
  );
  expect(open).toBeGreaterThan(0);
}, 120_000);

test('a hundred devices, plugged anyhow: all fed, none shares that need not, as few moved as can be', () => {
  // Three sorts of outlets and of devices that fit one sort each; two in five stand right.
  const sorts = [9, 12, 18];
  const outlets = (volts: number, count: number) =>
    Array.from({ length: count }, (_, i) => ({
      id: `${volts} ${i}`,
      volts,
      milliamps: 300,
      isolated: true,
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

test('a hundred devices and ten outlets: as many as go on them, none moved that need not be, all that go without cured', () => {
  const outlets = Array.from({ length: 10 }, (_, i) => ({
    id: `o${i}`,
    volts: 9,
    milliamps: 500,
    isolated: true,
  }));
  // 120 mA each with headroom: four to an outlet. Six hang on the first now, three on the second.
  const plugged = [...Array<string>(6).fill('o0'), ...Array<string>(3).fill('o1')];
  const devices = Array.from({ length: 100 }, (_, i) =>
    device(`d${i}`, 'phaser', `D${i}`, {
      power: { volts: 9, milliamps: 100 },
      ...(plugged[i] && { supply: { device: 's', outlet: plugged[i] } }),
    }),
  );
  const rig = rigOf([...devices, device('s', 'supply-isolated', 'S', { gives: { outlets } })], []);
  const p = plan(rig);
  expect([p.fed.length, p.starved.length, p.shared, p.isProven]).toEqual([40, 60, 30, true]);
  expect(p.moved).toBe(40 - 4 - 3);
  for (const s of [p.starved[0]!, p.starved[59]!]) {
    expect(s.cure).toBe(
      'an outlet of 9 V DC, centre negative, 120 mA on another supply, or an adapter',
    );
    const cured = plan(valueOf(applyEdits(rig, s.edits)).rig);
    expect(cured.fed).toHaveLength(41);
  }
}, 60_000);

test('whatever hands power on, and however little there is, a plan overloads nothing and feeds nobody from a dead box', () => {
  const anyRig = fc.record({
    pedals: fc.array(
      fc.record({
        milliamps: fc.integer({ min: 5, max: 220 }),
        noisy: fc.boolean(),
        sensitive: fc.boolean(),
        hands: fc.constantFrom(undefined, undefined, undefined, 100, 300),
        at: fc.constantFrom(undefined, undefined, 0, 1, 2),
      }),
      { minLength: 6, maxLength: 20 },
    ),
    supplies: fc.array(anySupply, { minLength: 1, maxLength: 2 }),
  });
  fc.assert(
    fc.property(anyRig, ({ pedals, supplies }) => {
      const devices = pedals.map((p, i) =>
        device(`d${i}`, 'phaser', `D${i}`, {
          power: { volts: 9, milliamps: p.milliamps, noisy: p.noisy, sensitive: p.sensitive },
          ...(p.hands !== undefined && {
            gives: { outlets: [{ id: 'out', volts: 9, milliamps: p.hands, isolated: false }] },
          }),
          ...(p.at !== undefined && { supply: { device: 's0', outlet: `o${p.at}` } }),
        }),
      );
      const rig = rigOf(
        [
          ...devices,
          ...supplies.map((gives, i) => device(`s${i}`, 'supply-large', `S${i}`, { gives })),
        ],
        [],
      );
      const p = plan(rig);
      const { rig: made } = valueOf(applyEdits(rig, p.edits));
      const fed = new Set(p.fed.map((f) => f.device));
      expect(
        powerRemarks(made).filter((r) => r.severity !== 'caution' && r.rule !== 'power-none'),
      ).toEqual([]);
      expect(loadsOf(made).filter((l) => l.room < -1e-6)).toEqual([]);
      for (const f of p.fed) expect(f.supply.startsWith('s') || fed.has(f.supply)).toBe(true);
    }),
    { numRuns: cases(4, 12) },
  );
}, 120_000);
