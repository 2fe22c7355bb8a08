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
