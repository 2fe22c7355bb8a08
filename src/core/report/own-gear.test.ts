import fc from 'fast-check';
import { EXAMPLE_SHEETS, touringRig } from '../demo';
import { gearFromCsv, gearToCsv } from '../formats';
import {
  applyEdit,
  applyEdits,
  integrityProblems,
  kindOfSheet,
  type Rig,
  type Sheet,
} from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse, FixTrial } from '.';
import { fixesOf } from './tried';
import { cases } from '../testing/cases';

const through = (s: Sheet) => kindOfSheet(s).through;
const BOXES = EXAMPLE_SHEETS.filter((s) => through(s) && s.id !== 'gantry-head');

/** Boxes one behind the other between an instrument and a desk, some of them on. */
const rowOf = (boxes: readonly Sheet[], on: readonly boolean[]): Rig => {
  const used = [...new Set(boxes)];
  const row = boxes.map((s, i) => device(`b${i}`, kindOfSheet(s).id, `${s.name} ${i}`));
  const ends = [
    'g.out',
    ...boxes.flatMap((s, i) => [`b${i}.${through(s)!.in}`, `b${i}.${through(s)!.out}`]),
    'd.in',
  ];
  const leads = ends.flatMap((from, i) => (i % 2 ? [] : [lead(`l${i}`, from, ends[i + 1]!, 2)]));
  const states = Object.fromEntries(row.map((d, i) => [d.id, { engaged: on[i] ?? false }]));
  return {
    ...rigOf(
      [device('g', 'guitar-single-coil', 'Guitar'), ...row, device('d', 'console-input', 'Desk')],
      leads,
      [sound('a', 'A', [], states), sound('b', 'B', [])],
    ),
    sheets: used,
  };
};
const anyRow = fc
  .tuple(
    fc.array(fc.constantFrom(...BOXES), { minLength: 1, maxLength: 4 }),
    fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
  )
  .map(([boxes, on]) => rowOf(boxes, on));

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : value && typeof value === 'object'
      ? Object.values(value).flatMap(numbersIn)
      : [];

test('whatever boxes stand in a row: no check fails, no figure is none, findings speak of the box', () => {
  fc.assert(
    fc.property(anyRow, (rig) => {
      const { sounds, findings } = analyse(rig);
      expect(findings.filter((f) => f.rule === 'check-failed')).toEqual([]);
      expect(numbersIn(sounds.map((s) => s.destinations)).some(Number.isNaN)).toBe(false);
      const ids = new Set([...rig.devices, ...rig.leads, ...rig.sounds].map((x) => x.id));
      // No part of a box is spoken of by an id that the rig does not have.
      expect(findings.flatMap((f) => f.subjects).filter((s) => !ids.has(s))).toEqual([]);
    }),
    { numRuns: cases(10, 25) },
  );
});

test('fixes of rigs with boxes are tried as any, and what is said to cure cures, judged anew', () => {
  let tried = 0;
  fc.assert(
    fc.property(anyRow, (rig) => {
      const trial = new FixTrial(rig);
      for (const finding of trial.report.findings.slice(0, 4))
        for (const fix of fixesOf(finding).slice(0, 2)) {
          const { cures } = trial.try(finding, fix);
          const made = applyEdits(rig, fix.edits);
          if (!made.ok || !cures) continue;
          tried++;
          expect(integrityProblems(made.value.rig)).toEqual([]);
          // In another sound the same may be new, which is told as what the fix breaks.
          const left = analyse(made.value.rig).findings.find((f) => f.key === finding.key);
          expect(left?.sounds.filter((s) => finding.sounds.includes(s)) ?? []).toEqual([]);
        }
    }),
    { numRuns: cases(4, 12) },
  );
  expect(tried).toBeGreaterThan(0);
});

test('the order of a file means nothing with boxes in it', () => {
  fc.assert(
    fc.property(anyRow, (rig) => {
      const turned = {
        ...rig,
        devices: rig.devices.toReversed(),
        leads: rig.leads.toReversed(),
        sheets: rig.sheets!.toReversed(),
      };
      const said = (r: Rig) =>
        analyse(r)
          .findings.map((f) => f.key)
          .sort();
      expect(said(turned)).toEqual(said(rig));
    }),
    { numRuns: cases(5, 15) },
  );
});

test('a box in the place of a pedal of the demo rig: the rest of the rig is told as before', () => {
  const [twin] = touringRig.sheets!;
  const swapped = applyEdit(touringRig, {
    edit: 'replaceDevice',
    device: 'kiln',
    kind: kindOfSheet(twin!).id,
  });
  if (!swapped.ok) throw new Error(swapped.problems[0]!.what);
  const { sounds } = analyse(swapped.value.rig);
  for (const s of analyse(touringRig).sounds) {
    const now = sounds.find((x) => x.sound === s.sound)!;
    expect(now.destinations.map((d) => [d.device, d.sources])).toEqual(
      s.destinations.map((d) => [d.device, d.sources]),
    );
  }
});

test("gear of one's own comes back from a table into its rig, and is refused with its row where no sheet is", () => {
  const rig = rowOf([BOXES[0]!, BOXES[1]!], [true, false]);
  const csv = gearToCsv(rig);
  const again = gearFromCsv(rig, csv);
  const same = again.ok && applyEdits(rig, again.value);
  expect(same && same.ok && same.value.rig).toEqual(rig);
  // By its name too, as a person would write it.
  const byName = gearFromCsv(rig, 'id,name,kind\r\n,Another,Tandem Drive\r\n');
  expect(byName.ok && JSON.stringify(byName.value)).toContain(kindOfSheet(BOXES[0]!).id);
  expect(gearFromCsv(rigOf([], []), csv)).toMatchObject({
    ok: false,
    problems: expect.arrayContaining([
      { where: 'row 3', what: expect.stringContaining('this rig holds no sheet "tandem-drive"') },
    ]),
  });
});
