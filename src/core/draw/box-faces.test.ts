import { EXAMPLE_SHEETS } from '../demo';
import { kindOfSheet, type Sheet } from '../rig';
import { boxFaces } from './box-faces';

const box = (jackSpots?: Sheet['jackSpots']): Sheet => ({
  is: 'changes',
  id: 'echo-box',
  name: 'Echo box',
  base: 'delay',
  size: { width: 100, depth: 120, height: 50, grams: 400 },
  ...(jackSpots && { jackSpots }),
});
const spots = (sheet: Sheet) =>
  Object.fromEntries(boxFaces(sheet).map((f) => [f.edge, f.jacks.map((j) => [j.id, j.x])]));

test('a side is as one sees it who stands before it: from behind and from the right, the other way round', () => {
  const at = (edge: 'left' | 'right' | 'front' | 'rear') => ({ in: { edge, mm: 10 } });
  const inAt = (edge: 'left' | 'right' | 'front' | 'rear') =>
    new Map(spots(box(at(edge)))[edge] as [string, number][]).get('in');
  expect([inAt('left'), inAt('front')]).toEqual([10, 10]);
  expect([inAt('rear'), inAt('right')]).toEqual([90, 110]);
});

test('every jack of every shipped sheet that a lead reaches is on one face, inside its outline', () => {
  for (const sheet of EXAMPLE_SHEETS) {
    const faces = boxFaces(sheet);
    const shown = faces.flatMap((f) => f.jacks.map((j) => j.id)).sort();
    const kind = kindOfSheet(sheet);
    const jacks = kind.jacks.filter((j) => !j.inside && j.signal !== 'air').map((j) => j.id);
    expect([sheet.id, shown]).toEqual([sheet.id, jacks.sort()]);
    for (const f of faces)
      for (const j of f.jacks) {
        expect(j.x).toBeGreaterThanOrEqual(0);
        expect(j.x).toBeLessThanOrEqual(f.width);
        expect(j.y).toBe(f.height / 2);
      }
  }
});
