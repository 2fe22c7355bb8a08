import loadHighs from 'highs';
import { brokenRig, flyRig, touringRig } from '../demo';
import { powerPlanCsv } from '../formats';
import { applyEdits, type Device, type Rig } from '../rig';
import { exactly, type MipSolver } from '../optimum';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { refused } from '../outcome';
import { loadsOf, needOf, planPower, powerRemarks, takersOf } from '.';

let solver: MipSolver;
beforeAll(async () => {
  const highs = await loadHighs({});
  solver = exactly(highs);
});

const plan = (rig: Rig, headroom?: number) => valueOf(planPower(rig, solver, headroom));
const rules = (rig: Rig) => powerRemarks(rig).map((r) => `${r.severity} ${r.rule}`);

test('a device that is digital and lifts what it picks up has an outlet to itself; with others it quarrels', () => {
  const both = (id: string) =>
    device(id, 'phaser', id.toUpperCase(), {
      power: { volts: 9, milliamps: 50, noisy: true, sensitive: true },
    });
  const plain = device('p', 'phaser', 'P', { power: { volts: 9, milliamps: 50 } });
  const gives = (count: number) => ({
    outlets: Array.from({ length: count }, (_, i) => ({
      id: String(i + 1),
      volts: 9,
      milliamps: 500,
      isolated: true,
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
    id: String(i + 1),
    volts: 9,
    milliamps,
    isolated: true,
  }));
  const supply = device('s', 'supply-isolated', 'S', { gives: { outlets } });
  const rig = rigOf([box, pedal, supply], []);
  const p = plan(rig);
  expect(p.fed.find((f) => f.device === 'h')).toMatchObject({ supply: 's', outlet: '2' });
  const done = applyEdits(rig, p.edits);
  expect(done.ok && rules(done.value.rig)).toEqual([]);
});

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
      id: String(i + 1),
      volts: 9,
      milliamps: 130,
      isolated: true,
    })),
  };
  const p = plan(rigOf([...hungry, ...fed, device('s', 'supply-isolated', 'S', { gives })], []));
  expect([p.fed.length, p.starved.length, p.moved]).toEqual([6, 14, 1]);
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
