import fc from 'fast-check';
import { freeSpots, nameSpots } from './spots';

test('names stand on their ways, and not on one another where there is room', () => {
  const ways = [0, 30, 60].map((y) => [
    { x: 0, y },
    { x: 200, y },
  ]);
  const spots = nameSpots(ways, { width: 20, height: 40 }, (p) => p.x > 95 && p.x < 105);
  spots.forEach((p, i) => expect(p.y).toBe(30 * i));
  expect(spots.every((p) => p.x <= 95 || p.x >= 105)).toBe(true);
  // Neighbours are too close for two names over one another.
  for (const [i, p] of spots.slice(1).entries())
    expect(Math.abs(p.x - spots[i]!.x)).toBeGreaterThan(20);
});

test('a name takes the first of its spots that is free, and its first where none is', () => {
  const [a, b] = [
    { x: 0, y: 0 },
    { x: 0, y: 30 },
  ];
  const size = { width: 22, height: 24 };
  expect(freeSpots([[a], [a, b], [a, b]], size, () => false)).toEqual([a, b, a]);
  expect(freeSpots([[a, b]], size, (p) => p.y === 0)).toEqual([b]);
  // Over something solid is better than over a name.
  expect(freeSpots([[a], [a, b]], size, (p) => p.y === 30)).toEqual([a, b]);
});

test('looking only at what is near finds what looking through all finds', () => {
  const spot = fc.record({
    x: fc.integer({ min: -300, max: 900 }),
    y: fc.integer({ min: 0, max: 200 }),
  });
  const names = fc.array(fc.array(spot, { minLength: 1, maxLength: 5 }), { maxLength: 30 });
  const size = { width: 130, height: 24 };
  const isSolid = (p: { y: number }) => p.y % 7 === 0;
  fc.assert(
    fc.property(names, (list) => {
      const taken: { x: number; y: number }[] = [];
      const isFree = (p: { x: number; y: number }) =>
        taken.every((q) => Math.abs(p.x - q.x) > size.width || Math.abs(p.y - q.y) > size.height);
      for (const spots of list)
        taken.push(spots.find((p) => !isSolid(p) && isFree(p)) ?? spots.find(isFree) ?? spots[0]!);
      expect(freeSpots(list, size, isSolid)).toEqual(taken);
    }),
  );
});
