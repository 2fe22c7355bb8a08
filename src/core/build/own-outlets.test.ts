import fc from 'fast-check';
import Papa from 'papaparse';
import { groundLoops } from '../analysis/ground';
import { powerPlanCsv } from '../formats';
import { compareRigs } from '../changes';
import { applyEdits, type Device, type Edit, outletsOf, type Rig } from '../rig';
import { editWords } from '../rig/edits';
import { device, lead, rigOf } from '../testing/rigs';
import { billOf, loadsOf, powerLeads, powerRemarks, unfed } from '.';

const outlet = (id: string, rest: object = {}) => ({
  id,
  volts: 9,
  milliamps: 200,
  isolated: true,
  ...rest,
});
const phaser = (id: string, at: string | undefined, rest: Partial<Device> = {}) =>
  device(id, 'phaser', id.toUpperCase(), {
    ...(at !== undefined && { supply: { device: 's', outlet: at } }),
    ...rest,
  });
const supply = (...outlets: ReturnType<typeof outlet>[]) =>
  device('s', 'supply-isolated', 'Brick', { gives: { outlets } });
const after = (rig: Rig, ...edits: Edit[]): Rig => {
  const done = applyEdits(rig, edits);
  if (!done.ok) throw new Error(done.problems.map((p) => p.what).join(' '));
  return done.value.rig;
};
const rules = (rig: Rig) => powerRemarks(rig).map((r) => r.rule);

test(
  'a supply gives what was written in, with a name where none was; back to its kind ' +
    'it gives what is usual',
  () => {
    const rig = rigOf([supply(outlet('a', { label: 'left pair' }), outlet('b'))], []);
    expect(outletsOf(rig.devices[0]!)!.map((o) => o.label)).toEqual(['left pair', 'outlet b']);
    const usual = after(rig, { edit: 'asUsual', device: 's', what: ['gives'] });
    expect(outletsOf(usual.devices[0]!)).toHaveLength(8);
    expect(outletsOf(device('x', 'phaser', 'X'))).toBeUndefined();
  },
);

test('an AC outlet feeds what takes AC, and is a danger to what does not; so with polarity', () => {
  const rig = (rest: object, power: Device['power']) =>
    rigOf([phaser('a', '1', { power }), supply(outlet('1', rest))], []);
  expect(rules(rig({ ac: true }, { ac: true }))).toEqual([]);
  expect(rules(rig({ ac: true }, {}))).toEqual(['power-ac']);
  expect(rules(rig({ centre: 'positive' }, { centre: 'positive' }))).toEqual([]);
  expect(rules(rig({ centre: 'positive' }, {}))).toEqual(['power-polarity']);
});

test('an outlet that goes unplugs what hung on it; undo plugs it in again; a voltage that goes is forgotten', () => {
  const rig = rigOf(
    [
      phaser('a', '1', { supply: { device: 's', outlet: '1', volts: 12 } }),
      phaser('b', '2'),
      supply(outlet('1', { also: [12] }), outlet('2')),
    ],
    [],
  );
  const edit: Edit = { edit: 'setDevice', device: 's', gives: { outlets: [outlet('1')] } };
  const done = applyEdits(rig, [edit]);
  if (!done.ok) throw new Error('it is done');
  expect(unfed(done.value.rig).map((t) => t.device.id)).toEqual(['b']);
  expect(done.value.rig.devices[0]!.supply).toEqual({ device: 's', outlet: '1' });
  expect(editWords(rig, edit)).toBe('wrote in the outlets of Brick');
  expect(compareRigs(rig, done.value.rig).join(' ')).toContain('changed the outlets of Brick');
  const swapped = after(rig, {
    edit: 'replaceDevice',
    device: 's',
    kind: 'supply-shared',
    name: 'Chain',
  });
  expect(unfed(swapped)).toHaveLength(2);
  expect(swapped.devices.find((d) => d.id === 's')!.gives).toBeUndefined();
});

test('limits of its own: the outlet, and all together', () => {
  const rig = (total: number) =>
    rigOf(
      [
        phaser('a', '1', { power: { milliamps: 150 } }),
        phaser('b', '2', { power: { milliamps: 160 } }),
        device('s', 'supply-isolated', 'Brick', {
          gives: { outlets: [outlet('1'), outlet('2')], totalMilliamps: total },
        }),
      ],
      [],
    );
  expect(rules(rig(310))).toEqual([]);
  expect(rules(rig(309))).toEqual(['power-total']);
  expect(loadsOf(rig(400)).map((l) => [l.milliamps, l.room])).toEqual([
    [150, 20],
    [160, 8],
  ]);
});

test('outlets that are not isolated close a hum loop between what they feed; isolated ones do not', () => {
  const rig = (isolated: boolean) =>
    rigOf(
      [
        phaser('a', '1'),
        phaser('b', '2'),
        supply(outlet('1', { isolated }), outlet('2', { isolated })),
      ],
      [lead('l', 'a.out', 'b.in', 0.3)],
    );
  expect(groundLoops(rig(true))).toHaveLength(0);
  expect(groundLoops(rig(false))).toHaveLength(1);
});

test(
  'power leads: plugs of both ends, length from middle to middle with slack, ' +
    'splitters; on the bill and in the file',
  () => {
    const rig: Rig = {
      ...rigOf(
        [
          phaser('a', '1', {
            size: { width: 70, depth: 120, height: 50 },
            at: { board: 'b', x: 0, y: 0 },
          }),
          phaser('b', '1', {
            power: { plug: 'barrel 2.5' },
            size: { width: 70, depth: 120, height: 50 },
            at: { board: 'b', x: 400, y: 100, turn: 90 },
          }),
          phaser('c', '2'),
          device('s', 'supply-isolated', 'Brick', {
            gives: { outlets: [outlet('1'), outlet('2', { plug: 'mini-plug 3.5' })] },
            size: { width: 160, depth: 80, height: 30 },
            at: { board: 'b', x: 200, y: 220, under: true },
          }),
        ],
        [],
      ),
      boards: [{ id: 'b', name: 'Board', width: 600, depth: 320, rails: [] }],
      making: { slack: 0.1, step: 0.05, perJoint: 4, perLead: 6 },
    };
    // The supply's middle is at 280, 260. A's is at 35, 60: 245 + 200 mm; B, turned, has its at 460,
    // 135: 180 + 125 mm.
    expect(powerLeads(rig).map((l) => [l.device.id, l.from, l.to, l.metres])).toEqual([
      ['a', 'barrel 2.1', 'barrel 2.1', 0.65],
      ['b', 'barrel 2.1', 'barrel 2.5', 0.55],
      ['c', 'mini-plug 3.5', 'barrel 2.1', null],
    ]);
    const bill = billOf(rig)
      .filter((l) => l.what === 'ready-made lead')
      .map((l) => `${l.count} ${l.item}`);
    expect(bill).toEqual([
      '1 power, barrel 2.1 mm to barrel 2.1 mm',
      '1 power, barrel 2.1 mm to barrel 2.5 mm',
      '1 power, mini-plug 3.5 to barrel 2.1 mm',
      '1 power splitter, 2 from one outlet',
      '1 mains',
    ]);
    const { data } = Papa.parse<Record<string, string>>(powerPlanCsv(rig), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data.map((r) => [r.device, r.lead, r['lead m']])).toEqual([
      ['A', 'barrel 2.1 mm to barrel 2.1 mm', '0.65'],
      ['B', 'barrel 2.1 mm to barrel 2.5 mm', '0.55'],
      ['C', 'mini-plug 3.5 to barrel 2.1 mm', ''],
    ]);
  },
);

describe('power that is handed on', () => {
  const rig = rigOf(
    [
      phaser('p', undefined, { supply: { device: 'i' }, power: { milliamps: 180 } }),
      phaser('q', undefined, { supply: { device: 'p2' }, power: { milliamps: 30 } }),
      phaser('p2', undefined, {
        supply: { device: 'i' },
        power: { milliamps: 40 },
        gives: { outlets: [outlet('out')] },
      }),
      device('i', 'insert-powered', 'Insert', { supply: { device: 's', outlet: '1' } }),
      supply(outlet('1')),
    ],
    [],
  );
  test('counts at every outlet that it comes through', () => {
    const loads = Object.fromEntries(loadsOf(rig).map((l) => [l.place.supply.id, l.milliamps]));
    expect(loads).toEqual({ p2: 30, i: 180 + 40 + 30, s: 180 + 40 + 30 });
  });
  test('and is told where the supply behind it gives too little', () => {
    expect(rules(rig)).toContain('power-current');
    const strong = {
      ...rig,
      devices: rig.devices.with(4, supply(outlet('1', { milliamps: 400 }))),
    };
    expect(rules(strong).filter((r) => r === 'power-current')).toEqual(['power-current']);
    const light = after(strong, { edit: 'setDevice', device: 'p', power: { milliamps: 60 } });
    expect(rules(light)).not.toContain('power-current');
  });
  test('in a circle it is counted once', () => {
    const round = rigOf(
      [
        phaser('a', undefined, { supply: { device: 'b' }, gives: { outlets: [outlet('o')] } }),
        phaser('b', undefined, { supply: { device: 'a' }, gives: { outlets: [outlet('o')] } }),
      ],
      [],
    );
    const each = loadsOf(round).map((l) => l.milliamps);
    expect(each[0]).toBe(each[1]);
    expect(each[0]).toBeLessThan(100);
  });
});

test('what a device takes counts whatever its kind: 9 V where only the current was said', () => {
  const lamp = device('l', 'panel', 'Lamp', { power: { milliamps: 150 } });
  expect(unfed(rigOf([lamp], [])).map((t) => t.need)).toEqual([
    expect.objectContaining({ volts: 9, milliamps: 150 }),
  ]);
  expect(unfed(rigOf([device('l', 'panel', 'Lamp')], []))).toEqual([]);
});

describe('what an outlet is set to', () => {
  const variable = (...takers: Device[]) =>
    rigOf([...takers, supply(outlet('1', { also: [12, 18], milliamps: 500 }), outlet('2'))], []);
  const set = (id: string, volts: number) =>
    phaser(id, '1', { supply: { device: 's', outlet: '1', volts }, power: { maxVolts: 18 } });
  test('two devices that set it to different voltages are a danger, in any order', () => {
    for (const rig of [
      variable(set('a', 12), set('b', 18)),
      variable(set('b', 18), set('a', 12)),
    ]) {
      const [finding] = powerRemarks(rig);
      expect(finding).toMatchObject({ rule: 'power-voltage', severity: 'danger' });
      expect(finding!.what).toMatch(
        /^Outlet 1 of Brick is to be set to 1[28] and 1[28] V at once\.$/,
      );
      for (const way of [finding!.fix!, ...finding!.others!])
        expect(rules(after(rig, ...way.edits))).not.toContain('power-voltage');
    }
    expect(rules(variable(set('a', 18), set('b', 18)))).toEqual([]);
  });
  test('a voltage that it cannot give is told, and refused where it is set', () => {
    expect(rules(variable(set('a', 15)))).toContain('power-setting');
    const rig = variable(phaser('a', '1', { power: { maxVolts: 18 } }), set('b', 12));
    const plug = (volts: number) =>
      applyEdits(rig, [
        { edit: 'setDevice', device: 'a', supply: { device: 's', outlet: '1', volts } },
      ]);
    expect(plug(12).ok).toBe(true);
    for (const [volts, why] of [
      [15, 'outlet 1 of Brick gives 9, 12 or 18 V, not 15 V.'],
      [18, 'B has set outlet 1 of Brick to 12 V; an outlet gives one voltage.'],
    ] as const) {
      const refused = plug(volts);
      expect(refused.ok ? '' : refused.problems[0]!.what).toBe(why);
    }
  });
});

describe('the worst quarrel on a shared return decides', () => {
  const shared = (...powers: Device['power'][]) =>
    rigOf(
      [
        ...powers.map((power, i) =>
          device(`d${i}`, 'phaser', `D${i}`, { power, supply: { device: 'c' } }),
        ),
        device('c', 'supply-shared', 'Chain', {
          gives: { outlets: [outlet('1', { isolated: false, milliamps: 2000 })] },
        }),
      ],
      [],
    );
  const worst = (...powers: Device['power'][]) =>
    powerRemarks(shared(...powers)).map((r) => `${r.severity} ${r.rule}`);
  test.each([
    [[{ noisy: true }, { sensitive: true }, { positiveGround: true }]],
    [[{ positiveGround: true }, { noisy: true }, { sensitive: true }]],
    [[{ sensitive: true }, { positiveGround: true }, { noisy: true }]],
  ])('%j: shorted, whatever comes first', (powers) =>
    expect(worst(...powers)).toEqual(['danger power-return']),
  );
  test('a plain "no" is a fact like nothing said', () =>
    expect(worst({ positiveGround: false }, {}, { noisy: true }, { sensitive: true })).toEqual([
      'caution power-return',
    ]));
});

const anyOutlet = fc.record({
  volts: fc.constantFrom(9, 12, 18),
  also: fc.subarray([9, 12, 18]),
  milliamps: fc.constantFrom(100, 300, 500),
  isolated: fc.boolean(),
  ac: fc.boolean(),
});
const anyTaker = fc.record({
  volts: fc.constantFrom(9, 12, 18),
  milliamps: fc.integer({ min: 10, max: 600 }),
  ac: fc.boolean(),
  noisy: fc.boolean(),
  sensitive: fc.boolean(),
  positiveGround: fc.boolean(),
  at: fc.nat({ max: 3 }),
});
test('every fix of a plug, of any devices on any outlets, cures what it is offered for and brings no danger', () => {
  fc.assert(
    fc.property(
      fc.array(anyOutlet, { minLength: 4, maxLength: 4 }),
      fc.array(anyTaker, { minLength: 1, maxLength: 5 }),
      (outlets, takers) => {
        const rig = rigOf(
          [
            ...takers.map(({ at, ...power }, i) => phaser(`d${i}`, String(at + 1), { power })),
            supply(...outlets.map((o, i) => outlet(String(i + 1), o))),
          ],
          [],
        );
        const key = (r: ReturnType<typeof powerRemarks>[number]) => `${r.rule} ${r.about}`;
        const dangers = (r: Rig) =>
          powerRemarks(r)
            .filter((x) => x.severity === 'danger')
            .map(key);
        for (const told of powerRemarks(rig)) {
          // Several may have to move off one outlet, or off one return; each move is a step.
          const isStep = told.rule === 'power-current' || told.rule === 'power-return';
          for (const way of [told.fix, ...(told.others ?? [])]) {
            if (!way) continue;
            const done = after(rig, ...way.edits);
            const left = powerRemarks(done).find((x) => key(x) === key(told));
            if (!isStep) expect(left).toBeUndefined();
            else expect(left?.what === told.what && left.why === told.why).toBe(false);
            const before = dangers(rig);
            if (told.severity !== 'danger')
              expect(dangers(done).filter((d) => !before.includes(d))).toEqual([]);
          }
        }
      },
    ),
    { numRuns: 120 },
  );
});
