import fc from 'fast-check';
import { DEMO_RIGS, EXAMPLE_SHEETS, flyRig, touringRig } from '../demo';
import { analyse } from '../report';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import {
  applyEdits,
  type Clip,
  clipOf,
  cutLeads,
  deviceOf,
  fittedTo,
  integrityProblems,
  kindOfSheet,
  readClip,
  type Rig,
} from '.';

const pasted = (rig: Rig, clip: Clip): Rig => {
  const { format: _format, version: _version, ...rest } = fittedTo(rig, clip);
  return valueOf(applyEdits(rig, [{ edit: 'paste', ...rest }])).rig;
};

test('any devices of any rig go into any rig, by way of text, and what is told of that rig stays', () => {
  fc.assert(
    fc.property(
      fc.nat(DEMO_RIGS.length - 1),
      fc.nat(DEMO_RIGS.length - 1),
      fc.array(fc.nat(60), { minLength: 1, maxLength: 8 }),
      (a, b, picks) => {
        const [from, to] = [DEMO_RIGS[a]!, DEMO_RIGS[b]!];
        const ids = picks.map((n) => from.devices[n % from.devices.length]!.id);
        const clip = valueOf(readClip(JSON.stringify(clipOf(from, ids))));
        const made = pasted(to, clip);
        expect(integrityProblems(made)).toEqual([]);
        expect(made.devices).toHaveLength(to.devices.length + clip.devices.length);
        expect(made.devices.slice(0, to.devices.length)).toEqual(to.devices);
        expect(new Set(made.devices.map((d) => d.name)).size).toBe(
          made.devices.length - (to.devices.length - new Set(to.devices.map((d) => d.name)).size),
        );
        // Leads between what was taken come too; those that were cut, and links of a host that stays, do not.
        const taken = clip.devices.map((d) => d.id);
        const between = from.leads.filter(
          (l) => taken.includes(l.from.device) && taken.includes(l.to.device),
        );
        expect(between.filter((l) => l.type !== 'inside').map((l) => l.id)).toEqual(
          clip.leads.filter((l) => l.type !== 'inside').map((l) => l.id),
        );
        expect(cutLeads(from, taken).some((l) => clip.leads.some((x) => x.id === l.id))).toBe(
          false,
        );
      },
    ),
    { numRuns: 60 },
  );
});

test('a copy stands as the original does in each sound, and plays no part until it is plugged', () => {
  const twice = pasted(touringRig, clipOf(touringRig, ['kiln', 'flare']));
  const copies = twice.devices.slice(touringRig.devices.length);
  expect(copies.map((d) => d.name)).toEqual(['Kiln Drive 2', 'Flare Boost 2']);
  for (const s of twice.sounds) {
    const { program: _program, ...state } = s.states.kiln ?? {};
    expect(s.states[copies[0]!.id] ?? {}).toEqual(state);
  }
  expect(analyse(twice).sounds[2]!.destinations.map((d) => d.levelDbu)).toEqual(
    analyse(touringRig).sounds[2]!.destinations.map((d) => d.levelDbu),
  );
});

test('the unit, its supply and its place stay with the original', () => {
  const [own] = clipOf(touringRig, ['kiln']).devices;
  expect(deviceOf(touringRig, 'kiln')).toHaveProperty('supply');
  for (const left of ['supply', 'at', 'rack', 'gear']) expect(own).not.toHaveProperty(left);
});

test('what is no clip is refused in words', () => {
  for (const text of ['', 'kelp', '{}', JSON.stringify(flyRig), '{"format":"yantrel-clip"}']) {
    const read = readClip(text);
    expect(read.ok ? '' : read.problems[0]!.what).toBe('What was copied is no part of a rig.');
  }
});

test("devices of one's own bring their sheets; one of the same name that says something else stays beside it", () => {
  const [sheet] = EXAMPLE_SHEETS;
  const own = device('twin', kindOfSheet(sheet!).id, 'Tandem');
  const from: Rig = { ...rigOf([own], []), sheets: [sheet!] };
  const clip = valueOf(readClip(JSON.stringify(clipOf(from, ['twin']))));
  const made = pasted(rigOf([], []), clip);
  expect(made.sheets).toEqual([sheet]);
  expect(integrityProblems(made)).toEqual([]);
  // Again into the same rig: the sheet is there already.
  expect(pasted(made, clip).sheets).toHaveLength(1);
  const other: Rig = { ...rigOf([], []), sheets: [{ ...sheet!, about: 'another one' }] };
  const both = pasted(other, clip);
  expect(both.sheets!.map((s) => s.about)).toEqual(['another one', sheet!.about]);
  expect(integrityProblems(both)).toEqual([]);
});

test('a clip whose sheet cannot be is refused with the place', () => {
  const [sheet] = EXAMPLE_SHEETS;
  const from: Rig = { ...rigOf([device('b', 'buffer', 'B')], []) };
  const torn = {
    ...clipOf(from, ['b']),
    sheets: [
      { ...sheet, links: [{ from: { part: 'x', jack: 'y' }, to: { part: 'z', jack: 'in' } }] },
    ],
  };
  expect(readClip(JSON.stringify(torn))).toMatchObject({ ok: false });
});
