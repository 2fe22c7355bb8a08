import fc from 'fast-check';
import { touringRig } from '../demo';
import { applyEdits, type Rig } from '../rig';
import { cases } from '../testing/cases';
import { valueOf } from '../testing/value-of';
import { BUILD_REMARKS } from './build-remarks';

const told = (rig: Rig) => BUILD_REMARKS.boards(rig);
const standing = touringRig.devices.filter((d) => d.at);
const moved = (at: Record<string, object>): Rig => ({
  ...touringRig,
  devices: touringRig.devices.map((d) => (d.at ? { ...d, at: { ...d.at, ...at[d.id] } } : d)),
});
const keyOf = (r: ReturnType<typeof told>[number]) => `${r.rule} ${r.about}`;

test('what stands on another is moved to the nearest place where nothing is wrong', () => {
  expect(told(touringRig).filter((r) => r.rule === 'board-overlap')).toEqual([]);
  // 40 mm further to the left it stands on its neighbour.
  const brine = touringRig.devices.find((d) => d.id === 'brine')!;
  const rig = moved({ brine: { x: brine.at!.x - 90 } });
  const clash = told(rig).find((r) => r.rule === 'board-overlap')!;
  expect(clash.what).toBe('Brine Drive and Kiln Drive stand on the same place.');
  const ways = [clash.fix!, ...(clash.others ?? [])];
  const back = ways.find((w) => w.words.startsWith('Move Brine Drive'))!;
  expect(back.words).toMatch(/^Move Brine Drive \d+ mm to the right/);
  for (const way of ways) {
    const after = told(valueOf(applyEdits(rig, way.edits)).rig);
    expect(after.map((r) => r.rule)).not.toContain('board-overlap');
  }
});

test('what is pinned stays, and where everything is taken nothing is offered', () => {
  const kiln = touringRig.devices.find((d) => d.id === 'kiln')!;
  const onKiln = { x: kiln.at!.x, y: kiln.at!.y };
  const pinned = moved({ brine: { ...onKiln, pinned: true } });
  const clash = told(pinned).find((r) => r.rule === 'board-overlap')!;
  expect([clash.fix!, ...(clash.others ?? [])].map((w) => w.words)).toEqual([
    expect.stringMatching(/^Move Kiln Drive /) as string,
  ]);
  const small = {
    ...pinned,
    boards: pinned.boards!.map((b) => ({ ...b, width: 450, depth: 200 })),
  };
  const crowded = told(small).find(
    (r) => r.rule === 'board-overlap' && r.subjects.includes('kiln'),
  )!;
  expect(crowded.fix).toBeUndefined();
});

test('wherever things stand, a move cures what it is offered for and makes nothing wrong', () => {
  const places = fc.array(
    fc.record({
      id: fc.constantFrom(...standing.map((d) => d.id)),
      x: fc.integer({ min: 0, max: 950 }),
      y: fc.integer({ min: 0, max: 400 }),
      turn: fc.constantFrom(0, 90, 180, 270),
    }),
    { minLength: 1, maxLength: 3 },
  );
  fc.assert(
    fc.property(places, (list) => {
      const rig = moved(Object.fromEntries(list.map(({ id, ...at }) => [id, at])));
      const before = told(rig);
      const known = new Set(before.map(keyOf));
      for (const r of before)
        for (const way of [r.fix, ...(r.others ?? [])]) {
          if (!way) continue;
          const after = told(valueOf(applyEdits(rig, way.edits)).rig).map(keyOf);
          expect(after).not.toContain(keyOf(r));
          expect(after.filter((k) => !known.has(k))).toEqual([]);
        }
    }),
    { numRuns: cases(20, 300) },
  );
});
