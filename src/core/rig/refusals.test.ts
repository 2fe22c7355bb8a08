import { touringRig } from '../demo';
import { problemLines, readRig, type Rig, rigSchema, writeRig } from '.';

type Loose = Record<string, unknown>;
const device = (rig: Rig, id: string): Loose =>
  rig.devices.find((d) => d.id === id) as unknown as Loose;
const loose = (rig: Rig): Loose => rig;

/** What is said of the touring rig with something wrong put into its file. */
const said = (spoil: (rig: Rig) => void): string => {
  const rig = structuredClone<Rig>(touringRig);
  spoil(rig);
  const read = readRig(JSON.stringify(rig));
  return read.ok ? 'read' : problemLines(read.problems).join(' | ');
};

describe('a file with something wrong says where and what', () => {
  test.each<[name: string, spoil: (rig: Rig) => void, where: string, what: RegExp]>([
    [
      'a board without width',
      (r) => delete (r.boards![0] as Loose).width,
      'boards[0].width',
      /it is missing; give a number/,
    ],
    [
      'a board of no width',
      (r) => (r.boards![0]!.width = 0),
      'boards',
      /too small; give at least 50/,
    ],
    [
      'a board as wide as a lorry',
      (r) => (r.boards![0]!.width = 30_000),
      'boards',
      /too large; give at most 3000/,
    ],
    [
      'a board with a name of blanks',
      (r) => (r.boards![0]!.name = '   '),
      'boards',
      /give it a name/,
    ],
    ['two boards with one id', (r) => r.boards!.push(r.boards![0]!), 'boards[1].id', /used twice/],
    [
      'a board with the id of a device',
      (r) => r.boards!.push({ ...r.boards![0]!, id: 'kiln' }),
      'boards',
      /used twice/,
    ],
    [
      'a rail that is a word',
      (r) => ((r.boards![0]! as Loose).rails = ['front']),
      'boards',
      /rails/,
    ],
    [
      'a device on a board that is not there',
      (r) => (device(r, 'kiln').at = { board: 'gone', x: 1, y: 1 }),
      'at.board',
      /no board "gone"/,
    ],
    [
      'a device turned by 45 degrees',
      (r) => (device(r, 'kiln').at = { board: 'deck-board', x: 1, y: 1, turn: 45 }),
      'turn',
      /none of 0, 90, 180, 270/,
    ],
    [
      'a place that is no number',
      (r) => (device(r, 'kiln').at = { board: 'deck-board', x: 'left', y: 1 }),
      'x',
      /it takes a number, not a text/,
    ],
    [
      'a device in a rack that is not there',
      (r) => (device(r, 'echo').rack = { rack: 'gone', unit: 1 }),
      'rack.rack',
      /no rack "gone"/,
    ],
    [
      'a device in unit 0',
      (r) => (device(r, 'echo').rack = { rack: 'tide-rack', unit: 0 }),
      'unit',
      /1/,
    ],
    [
      'a device in half a unit',
      (r) => (device(r, 'echo').rack = { rack: 'tide-rack', unit: 1.5 }),
      'unit',
      /it takes a whole number/,
    ],
    [
      'a device on a board and in a rack',
      (r) => (device(r, 'kiln').rack = { rack: 'tide-rack', unit: 1 }),
      'devices',
      /stands on a board and in a rack/,
    ],
    ['a rack of no units', (r) => (r.racks![0]!.units = 0), 'racks', /1/],
    ['a rack that weighs less than nothing', (r) => (r.racks![0]!.grams = -1), 'racks', /0/],
    [
      'a case with something that is not there',
      (r) => r.cases![0]!.holds.push('gone'),
      'cases[0].holds',
      /no device, board or rack "gone"/,
    ],
    ['two cases with one id', (r) => r.cases!.push(r.cases![0]!), 'cases', /used twice/],
    ['two looms with one id', (r) => r.looms!.push(r.looms![0]!), 'looms[1].id', /used twice/],
    ['a stage of no width', (r) => (r.stage!.width = 0), 'stage', /1/],
    ['a spot in the next town', (r) => (r.stage!.spots[0]!.x = 5000), 'stage', /150/],
    [
      'a country by its name',
      (r) => (loose(r).tour = { countries: ['Norway'] }),
      'tour',
      /two capital letters/,
    ],
    ['a limit of nothing', (r) => (loose(r).limits = { grams: 0 }), 'limits', /0/],
    [
      'slack of a kilometre',
      (r) => (loose(r).making = { slack: 1000, step: 0.05, perJoint: 4, perLead: 6 }),
      'making',
      /10/,
    ],
    [
      'steps of nothing',
      (r) => (loose(r).making = { slack: 0.1, step: 0, perJoint: 4, perLead: 6 }),
      'making',
      /0\.001/,
    ],
    [
      'codes by smell',
      (r) =>
        (loose(r).making = { slack: 0.1, step: 0.1, perJoint: 4, perLead: 6, codes: 'smells' }),
      'codes',
      /numbers/,
    ],
    [
      'a plug of no known shape',
      (r) => ((r.leads[4]! as Loose).plugs = { from: 'bent' }),
      'plugs',
      /none of "straight", "right-angle", "flat"/,
    ],
    ['a lead of less than no capacitance', (r) => (r.leads[4]!.pF = -3), 'pF', /0/],
    [
      'a body without depth',
      (r) => (device(r, 'kiln').size = { width: 70, height: 50 }),
      'size',
      /depth/,
    ],
    [
      'a jack on the lid',
      (r) => (device(r, 'kiln').jackSpots = { in: { edge: 'top', mm: 10 } }),
      'jackSpots',
      /none of "left", "right", "front", "rear"/,
    ],
    [
      'a mains lead into a pedal',
      (r) => (device(r, 'ears').mains = { from: 'kiln' }),
      'mains.from',
      /no mains outlets/,
    ],
    ['mains of 12 volts', (r) => (device(r, 'ears').mains = { volts: [[12, 12]] }), 'mains', /50/],
    [
      'mains of 400 hertz',
      (r) => (device(r, 'ears').mains = { hz: [400] }),
      'mains',
      /none of 50, 60/,
    ],
    [
      'a supply that is no supply',
      (r) => (device(r, 'kiln').supply = { device: 'tuner' }),
      'supply',
      /is no supply/,
    ],
    [
      'an outlet that is not there',
      (r) => (device(r, 'kiln').supply = { device: 'supply', outlet: '99' }),
      'supply.outlet',
      /it has the outlets/,
    ],
    [
      'outlets on a block',
      (r) =>
        Object.assign(device(r, 'kiln'), {
          host: 'tuner',
          gives: { outlets: [{ id: '1', volts: 9, milliamps: 100, isolated: true }] },
        }),
      'gives',
      /feeds nobody/,
    ],
    [
      'a supply without outlets',
      (r) => (device(r, 'supply').gives = { outlets: [] }),
      'gives.outlets',
      /at least one outlet/,
    ],
    [
      'two outlets of one name',
      (r) =>
        (device(r, 'supply').gives = {
          outlets: [1, 2].map(() => ({ id: '1', volts: 9, milliamps: 100, isolated: true })),
        }),
      'gives.outlets',
      /two outlets are called "1"/,
    ],
    [
      'an outlet of 230 volts',
      (r) =>
        (device(r, 'supply').gives = {
          outlets: [{ id: '1', volts: 230, milliamps: 100, isolated: true }],
        }),
      'gives.outlets',
      /60/,
    ],
    [
      'a jack for power that nobody makes',
      (r) => (device(r, 'kiln').power = { plug: 'banana' }),
      'power.plug',
      /none of "barrel 2\.1"/,
    ],
    [
      'a tick by nobody known',
      (r) =>
        (loose(r).done = { ticks: [{ id: 'x', by: 'A'.repeat(60), at: '2026-11-25T10:00:00Z' }] }),
      'done',
      /too long; give at most 40 letters/,
    ],
    [
      'a tick at no time',
      (r) => (loose(r).done = { ticks: [{ id: 'x', by: 'OF', at: 'yesterday' }] }),
      'done',
      /takes a date and time/,
    ],
    [
      'adhesive that needs a year',
      (r) => (loose(r).done = { ticks: [], cureHours: 9000 }),
      'cureHours',
      /240/,
    ],
    ['a weight in words', (r) => (device(r, 'kiln').gear = { grams: 'heavy' }), 'gear', /number/],
    ['a lead of no length', (r) => (r.leads[0]!.metres = -1), 'leads[0]', /0/],
    [
      'a lead to a device that is not there',
      (r) => (r.leads[0]!.to.device = 'gone'),
      'leads[0]',
      /no device "gone"/,
    ],
    [
      'a lead to a jack that is not there',
      (r) => (r.leads[0]!.to.jack = 'lid'),
      'leads[0]',
      /no jack "lid"/,
    ],
    [
      'two leads in one jack',
      (r) => r.leads.push({ ...r.leads[4]!, id: 'twin' }),
      'leads',
      /already holds/,
    ],
    [
      'a lead from an input to an output',
      (r) =>
        r.leads.push({
          id: 'back',
          from: { device: 'kiln', jack: 'in' },
          to: { device: 'kiln', jack: 'out' },
          type: 'instrument',
          metres: 1,
        }),
      'leads',
      /other way round|already holds/,
    ],
    ['two devices with one id', (r) => r.devices.push(r.devices[0]!), 'devices', /used twice/],
    [
      'a kind that nobody makes',
      (r) => (device(r, 'kiln').kind = 'teapot'),
      'kind',
      /no kind "teapot"/,
    ],
    ['a device without a name', (r) => (device(r, 'kiln').name = ''), 'name', /give it a name/],
    [
      'a knob beyond its end',
      (r) => (device(r, 'kiln').settings = { drive: 11 }),
      'settings',
      /0 to 10/,
    ],
    [
      'a state of a device that is not there',
      (r) => (r.sounds[0]!.states.gone = { engaged: true }),
      'sounds[0]',
      /no device "gone"/,
    ],
    ['two sounds with one id', (r) => r.sounds.push(r.sounds[0]!), 'sounds', /used twice/],
  ])('%s', (_, spoil, where, what) => {
    const lines = said(spoil);
    expect(lines).toContain(where);
    expect(lines).toMatch(what);
    // A person can act on it: it is a sentence, not a type.
    expect(lines.length).toBeGreaterThan(15);
    expect(lines).not.toMatch(/undefined|\[object|ZodError|Invalid/);
  });
});

test('the rig that is spoilt here reads well as it is', () =>
  expect(said(() => undefined)).toBe('read'));

describe('what is strange and still right is read', () => {
  test.each<[name: string, strange: (rig: Rig) => void]>([
    [
      'no board, rack, case, loom or stage at all',
      (r) => {
        for (const d of r.devices) {
          delete d.at;
          delete d.rack;
        }
        for (const key of [
          'boards',
          'racks',
          'cases',
          'looms',
          'stage',
          'tour',
          'limits',
          'making',
        ])
          delete loose(r)[key];
      },
    ],
    ['a loom of leads that are gone', (r) => (r.looms![0]!.leads = ['gone', 'gone-too'])],
    [
      'a stage spot of something that is gone',
      (r) => r.stage!.spots.push({ id: 'gone', x: 1, y: 1 }),
    ],
    ['a country that is not in the table', (r) => (loose(r).tour = { countries: ['ZZ'] })],
    [
      'a device that stands beside its board',
      (r) => (device(r, 'kiln').at = { board: 'deck-board', x: -300, y: 900 }),
    ],
    [
      'fields of a later program',
      (r) => {
        (r.boards![0]! as Loose).carpet = 'grey';
        (r.racks![0]! as Loose).fans = 2;
        (r.stage! as Loose).smoke = true;
        (device(r, 'kiln').at as Loose).screws = 4;
      },
    ],
  ])('%s', (_, strange) => {
    const rig = structuredClone<Rig>(touringRig);
    strange(rig);
    const text = JSON.stringify(rig);
    const read = readRig(text);
    expect(read.ok).toBe(true);
    // Nothing of it is lost in writing and reading again.
    expect(read.ok && JSON.parse(writeRig(read.value))).toEqual(JSON.parse(text));
  });
});

test('the schema takes every demo field by its name', () => {
  const parsed = rigSchema.safeParse(JSON.parse(writeRig(touringRig)));
  expect(parsed.success && Object.keys(parsed.data).sort()).toEqual(
    Object.keys(JSON.parse(writeRig(touringRig)) as object).sort(),
  );
});
