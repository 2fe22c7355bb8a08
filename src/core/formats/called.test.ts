import { hybridRig, touringRig } from '../demo';
import { valueOf } from '../testing/value-of';
import { applyEdits, type Rig } from '../rig';
import {
  gearFromCsv,
  gearToCsv,
  setsFromCsv,
  setsToCsv,
  songsFromCsv,
  songsToCsv,
  wiringFromCsv,
  wiringToCsv,
} from '.';
import { calledIn, whoIs } from './called';

/** Names that a table could take for something else, or that several bear. */
const NAMINGS: [string, (name: string, i: number) => string][] = [
  ['names as they are', (name) => name],
  ['one name for all', () => 'Box'],
  ['capitals alone differ', (_, i) => (i % 2 ? 'box' : 'BOX')],
  [
    'what a spreadsheet would run or part',
    (_, i) => `${['=cmd', 'a,b', 'q "x"', 'l;m', "'tick", '@at', '-5', '1,5'][i % 8]!} ${i}`,
  ],
];

const named = <T extends { name: string }>(
  list: readonly T[],
  by: (n: string, i: number) => string,
) => list.map((x, i) => ({ ...x, name: by(x.name, i) }));

/** A rig of which every list is named so. */
const renamed = (rig: Rig, by: (name: string, i: number) => string): Rig => ({
  ...rig,
  devices: named(rig.devices, by),
  sounds: named(rig.sounds, by),
  ...(rig.sets && { sets: named(rig.sets, by) }),
});

/** The same rig before anything was plugged in or written down. */
const bare = ({ id, name, format, version }: Rig): Rig => ({
  id,
  name,
  format,
  version,
  devices: [],
  leads: [],
  sounds: [],
});

describe.each(NAMINGS)('%s', (_, by) => {
  test.each([touringRig, hybridRig].map((r) => [r.name, renamed(r, by)] as const))(
    '%s: gear and wiring go into an empty rig as they came out',
    (__, rig) => {
      const gear = valueOf(
        applyEdits(bare(rig), valueOf(gearFromCsv(bare(rig), gearToCsv(rig)))),
      ).rig;
      const back = valueOf(applyEdits(gear, valueOf(wiringFromCsv(gear, wiringToCsv(rig))))).rig;
      expect(gearToCsv(back)).toBe(gearToCsv(rig));
      expect(back.devices.map((d) => [d.id, d.host])).toEqual(
        rig.devices.map((d) => [d.id, d.host]),
      );
      const rows = (r: Rig) => wiringToCsv(r).split('\r\n').sort();
      expect(rows(back)).toEqual(rows(rig));
    },
  );
  test('songs call the sounds that they called, and sets play what they played', () => {
    const rig = renamed(touringRig, by);
    const { songs } = valueOf(songsFromCsv({ ...rig, songs: [] }, songsToCsv(rig)));
    expect(songs.map((s) => [s.id, s.instrument, s.sections.map((x) => x.sound)])).toEqual(
      rig.songs!.map((s) => [s.id, s.instrument, s.sections.map((x) => x.sound)]),
    );
    const { sets } = valueOf(setsFromCsv({ ...rig, sets: [] }, setsToCsv(rig)));
    expect(sets.map((s) => [s.id, s.name, s.entries.map((e) => e.song)])).toEqual(
      rig.sets!.map((s) => [s.id, s.name, s.entries.map((e) => e.song)]),
    );
  });
});

const TWO = [
  { id: 'a', name: 'Box' },
  { id: 'b', name: 'box ' },
  { id: 'c', name: 'Crate' },
];
const asked = (text: string) => {
  const told: string[] = [];
  const one = whoIs(TWO, text, { say: (x) => told.push(x), missing: (x) => `no ${x}` });
  return [one?.id, ...told];
};

it('a name that several bear is told with their ids, and nobody is taken for it', () => {
  expect(asked('BOX')).toEqual([
    undefined,
    '"BOX" is what 2 are called; write which by its id: a, b',
  ]);
  expect(asked('crate')).toEqual(['c']);
  expect(asked('b')).toEqual(['b']);
  expect(asked('Tub')).toEqual([undefined, 'no Tub']);
});

it('a table calls by name what one alone is called, and by id what several are', () => {
  expect(TWO.map((x) => calledIn(TWO, x.id))).toEqual(['a', 'b', 'Crate']);
  expect([calledIn(TWO), calledIn(TWO, 'gone')]).toEqual(['', 'gone']);
});

it('a row without an id is about what bears its name, not about what has that name as its id', () => {
  const read = valueOf(gearFromCsv(touringRig, 'name,kind\r\ncomp,compressor\r\n'));
  expect(read).toMatchObject([{ edit: 'addDevice', device: { name: 'comp' } }]);
});

it('a row by name alone is not read into one of two devices that bear it', () => {
  const rig = renamed(touringRig, (name, i) => (i < 2 ? 'Box' : name));
  const read = gearFromCsv(rig, 'name,kind,notes\r\nBox,guitar-baritone,strings are new\r\n');
  expect(read).toMatchObject({ ok: false, problems: [{ where: 'row 2' }] });
  const lead = wiringFromCsv(
    rig,
    'from device,from jack,to device,to jack,length m\r\nBox,out,Tuner,in,1\r\n',
  );
  expect(lead).toMatchObject({
    ok: false,
    problems: [
      { where: 'row 2', what: '"Box" is what 2 are called; write which by its id: bari, radio' },
    ],
  });
});
