import fc from 'fast-check';
import { KINDS } from '../../kinds';
import { analyse } from '../../report';
import { device, lead, rigOf } from '../../testing/rigs';
import type { Rig } from '..';
import {
  type Assembly,
  boxAround,
  kindOfSheet,
  sheetProblems,
  withOwnSwitch,
  withoutPart,
  withPartBehind,
  withPartBeside,
} from '.';

const PARTS = KINDS.filter((k) => k.through && !k.hosts && !k.destination).map((k) => k.id);
const some = fc.array(fc.constantFrom(...PARTS), { minLength: 1, maxLength: 5 });

const inRow = ([first = 'buffer', ...rest]: readonly string[]): Assembly =>
  rest.reduce(withPartBehind, boxAround('box', 'Box', first));

/** What a recorder hears of a guitar through devices one behind the other. */
function heard(middle: { kind: string; sheet?: Assembly }[]) {
  const through = (id: string) =>
    KINDS.find((k) => k.id === id)?.through ?? { in: 'in', out: 'out' };
  const devices = middle.map((m, i) => {
    const kind = m.sheet ? kindOfSheet(m.sheet) : undefined;
    return {
      at: kind?.through ?? through(m.kind),
      d: device(`m${i}`, kind?.id ?? m.kind, `M${i}`, { engaged: true }),
    };
  });
  const ends = [...devices.map(({ d, at }) => [`${d.id}.${at.in}`, `${d.id}.${at.out}`] as const)];
  const points = ['g.out', ...ends.flat(), 'r.in'];
  const rig: Rig = {
    ...rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        ...devices.map((x) => x.d),
        device('r', 'recorder', 'R'),
      ],
      points
        .filter((_, i) => i % 2 === 0)
        .map((from, i) =>
          lead(`l${i}`, from, points[2 * i + 1]!, i === 0 || 2 * i + 2 === points.length ? 3 : 0),
        ),
    ),
    sheets: middle.flatMap((m) => m.sheet ?? []),
  };
  const at = analyse(rig).sounds[0]!.destinations[0]!;
  return { level: at.levelDbu, noise: at.noiseDbu, late: at.latencyMs, sources: at.sources };
}

test('a box is made of any kinds in a row, and has no problem', () => {
  fc.assert(
    fc.property(some, (kinds) => {
      expect(sheetProblems(inRow(kinds))).toEqual([]);
      expect(kindOfSheet(inRow(kinds)).through).toBeDefined();
    }),
    { numRuns: 60 },
  );
});

test('mono pedals in a box sound as they do on the floor, joined by leads of no length', () => {
  const mono = ['compressor', 'drive-low', 'drive-mid', 'boost', 'eq', 'buffer', 'wah', 'fuzz'];
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...mono), { minLength: 1, maxLength: 4 }), (kinds) => {
      const box = heard([{ kind: 'box', sheet: inRow(kinds) }]);
      const floor = heard(kinds.map((kind) => ({ kind })));
      expect(box.sources).toEqual(floor.sources);
      expect(box.level!.normal).toBeCloseTo(floor.level!.normal, 6);
      expect(box.noise).toBeCloseTo(floor.noise!, 6);
    }),
    { numRuns: 25 },
  );
});

test('whatever part is taken out, what is left is whole; the last one stays', () => {
  fc.assert(
    fc.property(some, fc.nat(4), fc.boolean(), (kinds, which, beside) => {
      const made = beside ? withPartBeside(inRow(kinds), 'delay') : inRow(kinds);
      const less = withoutPart(made, made.parts[which % made.parts.length]!.id);
      expect(less.parts).toHaveLength(Math.max(1, made.parts.length - 1));
      const wrong = sheetProblems(less).filter((p) => p.where !== 'jacks');
      expect(wrong).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('a jack that would be tied to metal both ways and to an input keeps to the first', () => {
  const made = withPartBeside(inRow(['buffer', 'panel', 'buffer']), 'delay');
  const less = withoutPart(made, 'part-1');
  expect(sheetProblems(less).filter((p) => p.where !== 'jacks')).toEqual([]);
});

test('taking out the middle of three joins the two others', () => {
  const box = withoutPart(inRow(['compressor', 'drive-low', 'eq']), 'part-2');
  expect(box.links).toEqual([
    { from: { part: 'part-1', jack: 'out' }, to: { part: 'part-3', jack: 'in' } },
  ]);
  expect(box.controls.every((c) => c.moves.every((m) => m.part !== 'part-2'))).toBe(true);
});

test('a part beside another hears the same input and has an output of its own', () => {
  const box = withPartBeside(boxAround('box', 'Box', 'delay'), 'delay');
  expect(box.jacks.find((j) => j.id === 'in')!.at).toEqual([
    { part: 'part-1', jack: 'in' },
    { part: 'part-2', jack: 'in' },
  ]);
  expect(
    kindOfSheet(box).jacks.filter((j) => j.direction === 'out' && j.signal === 'audio'),
  ).toHaveLength(4);
});

test('a switch of its own engages the part, whatever the box is', () => {
  const box = withOwnSwitch(inRow(['drive-low', 'drive-mid']), 'part-2');
  expect(box.controls[0]).toMatchObject({ label: 'Drive, mid gain on', type: 'switch' });
  expect(box.parts[1]!.engaged).toBe('never');
  expect(sheetProblems(box)).toEqual([]);
});
