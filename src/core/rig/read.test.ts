import fc from 'fast-check';
import { DEMO_RIGS } from '../demo';
import { chainOf } from '../testing/rigs';
import { checkRig, problemLines, readRig, type Rig, writeRig } from '.';

const problems = (text: string): string[] => {
  const read = readRig(text);
  return read.ok ? [] : problemLines(read.problems);
};
const broken = (change: (rig: Rig & Record<string, unknown>) => void): string[] => {
  const rig = structuredClone(
    chainOf(['guitar-single-coil', 'drive-low', 'console-input']),
  ) as Rig & Record<string, unknown>;
  change(rig);
  return problems(JSON.stringify(rig));
};

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  '%s: written and read it is the same',
  (_, rig) => {
    const read = readRig(writeRig(rig));
    expect(read.ok && read.value).toEqual(rig);
  },
);

test('unknown fields are kept, at every level', () => {
  const rig = structuredClone(chainOf(['guitar-single-coil', 'console-input'])) as Record<
    string,
    unknown
  > &
    Rig;
  Object.assign(rig, { stickers: [{ title: 'Later' }] });
  Object.assign(rig.devices[0]!, { serial: 'A-1' });
  Object.assign(rig.leads[0]!, { colour: 'grey' });
  Object.assign(rig.sounds[0]!, { cue: 4 });
  const read = readRig(writeRig(rig));
  expect(read.ok && read.value).toEqual(rig);
});

test('version 0, with cables in centimetres and "on", is brought up to date', () => {
  const old = {
    format: 'yantrel-rig',
    version: 0,
    id: 'old',
    name: 'Old',
    devices: [
      { id: 'g', kind: 'guitar-active', name: 'G' },
      { id: 'd', kind: 'drive-low', name: 'D' },
    ],
    cables: [
      {
        id: 'c',
        from: { device: 'g', jack: 'out' },
        to: { device: 'd', jack: 'in' },
        lengthCm: 45,
      },
    ],
    sounds: [{ id: 's', name: 'S', states: { d: { on: true } } }],
  };
  const read = readRig(JSON.stringify(old));
  expect(read.ok && read.value).toMatchObject({
    version: 1,
    leads: [{ type: 'instrument', metres: 0.45 }],
    sounds: [{ states: { d: { engaged: true } } }],
  });
});

describe('what cannot be read is told by row and field', () => {
  test('torn', () =>
    expect(problems(writeRig(DEMO_RIGS[0]!).slice(0, 900))[0]).toMatch(
      /not whole JSON: it breaks off or goes wrong at line \d+, column \d+/,
    ));
  test.each([
    ['foreign', '{"tracks":[]}'],
    ['a list', '[]'],
    ['a number', '7'],
    ['null', 'null'],
  ])('%s', (_, text) => expect(problems(text)[0]).toContain('not a rig file'));
  test('from a newer program', () =>
    expect(broken((r) => ((r as Record<string, unknown>).version = 9))).toEqual([
      'version: The file has version 9; this program reads up to 1. Open it with a newer Yantrel.',
    ]));
  test('a jack that does not exist', () =>
    expect(broken((r) => (r.leads[1]!.from.jack = 'outt'))).toContain(
      'leads[1].from.jack: Device 1 (Drive, low gain) has no jack "outt"; it has "in", "out"',
    ));
  test('a kind that does not exist', () =>
    expect(broken((r) => (r.devices[1]!.kind = 'drive-extreme'))[0]).toMatch(
      /^devices\[1\]\.kind: there is no kind "drive-extreme"; did you mean "drive-high"/,
    ));
  test('an id twice', () =>
    expect(broken((r) => (r.devices[1]!.id = 'd0'))[0]).toContain(
      'devices[1].id: the id "d0" is used twice',
    ));
  test('a state of nobody', () =>
    expect(broken((r) => (r.sounds[0]!.states.nobody = { engaged: true }))[0]).toContain(
      'sounds[0].states.nobody: there is no device "nobody"',
    ));
  test('numbers that are none', () =>
    expect(broken((r) => ((r.leads[0] as Record<string, unknown>).metres = 'long'))[0]).toMatch(
      /^leads\[0\]\.metres: /,
    ));
  test('10,000 devices', () =>
    expect(
      broken(
        (r) =>
          (r.devices = Array.from({ length: 10_000 }, (_, i) => ({
            id: `x${i}`,
            kind: 'buffer',
            name: 'X',
          }))),
      ).join(),
    ).toContain('at most 2000 devices'));
  test('names that objects own', () => {
    expect(broken((r) => (r.devices[1]!.id = 'constructor')).join()).toContain('reserved');
    const hostile = readRig(
      JSON.stringify(DEMO_RIGS[0]).replace('"states":{', '"states":{"__proto__":{"engaged":true},'),
    );
    expect(hostile.ok && Object.keys(hostile.value.sounds[0]!.states)).not.toContain('__proto__');
    expect(({} as { engaged?: boolean }).engaged).toBeUndefined();
  });
  test('at most 41 lines', () =>
    expect(
      broken(
        (r) => (r.leads = Array.from({ length: 300 }, (_, i) => ({ ...r.leads[0]!, id: `z${i}` }))),
      ).length,
    ).toBe(41));
});

test('nothing that is thrown at it makes it throw', () => {
  fc.assert(fc.property(fc.json(), (text) => readRig(text).ok === false));
  fc.assert(
    fc.property(
      fc.jsonValue(),
      fc.constantFrom('devices', 'leads', 'sounds', 'order', 'reference', 'accepted'),
      (value, field) => {
        checkRig({ ...chainOf(['guitar-single-coil', 'console-input']), [field]: value });
        return true;
      },
    ),
  );
});
