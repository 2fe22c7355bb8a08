import fc from 'fast-check';
import { arrangementCost, cheapestArrangement, EXACT_UP_TO, type Prices } from './arrange';

const price = fc.integer({ min: 0, max: 20 });
const pricesOf = (count: number, segments: number): fc.Arbitrary<Prices> =>
  fc.record({
    alone: fc.array(fc.array(price, { minLength: segments, maxLength: segments }), {
      minLength: count,
      maxLength: count,
    }),
    before: fc.array(fc.array(price, { minLength: count, maxLength: count }), {
      minLength: count,
      maxLength: count,
    }),
    // The first segment is always allowed, so that an arrangement exists.
    allowed: fc.array(
      fc
        .array(fc.boolean(), { minLength: segments, maxLength: segments })
        .map((row) => [true, ...row.slice(1)]),
      { minLength: count, maxLength: count },
    ),
  });

/** Every arrangement there is, by putting one thing after another into each place. */
function* everyWay(count: number, segments: number): Generator<number[][]> {
  const place = function* (t: number, at: number[][]): Generator<number[][]> {
    if (t === count) return void (yield at);
    for (let s = 0; s < segments; s++)
      for (let i = 0; i <= at[s]!.length; i++)
        yield* place(
          t + 1,
          at.map((x, k) => (k === s ? [...x.slice(0, i), t, ...x.slice(i)] : x)),
        );
  };
  yield* place(
    0,
    Array.from({ length: segments }, () => []),
  );
}
const isAllowed = (p: Prices, way: readonly (readonly number[])[]) =>
  way.every((things, s) => things.every((t) => p.allowed[t]![s]));
const start = (count: number, segments: number): number[][] => [
  Array.from({ length: count }, (_, i) => i),
  ...Array.from({ length: segments - 1 }, () => []),
];

test('the cheapest of all arrangements, as trying every one finds it', () => {
  fc.assert(
    fc.property(pricesOf(4, 2), (p) => {
      const best = Math.min(
        ...[...everyWay(4, 2)].filter((w) => isAllowed(p, w)).map((w) => arrangementCost(p, w)),
      );
      const found = cheapestArrangement(p, start(4, 2));
      return (
        found.exact &&
        Math.abs(found.cost - best) < 1e-9 &&
        isAllowed(p, found.segments) &&
        found.segments.flat().sort().join() === '0,1,2,3'
      );
    }),
    { numRuns: 60 },
  );
});

test('too many for that: never dearer than what stands, allowed, complete, and it says so', () => {
  const count = EXACT_UP_TO + 2;
  fc.assert(
    fc.property(pricesOf(count, 2), (p) => {
      const now = start(count, 2);
      const found = cheapestArrangement(p, now);
      return (
        !found.exact &&
        found.cost <= arrangementCost(p, now) &&
        isAllowed(p, found.segments) &&
        new Set(found.segments.flat()).size === count
      );
    }),
    { numRuns: 15 },
  );
});

test('where order costs nothing, nothing has to move', () => {
  const free: Prices = {
    alone: [[0], [0], [0]],
    before: [0, 1, 2].map((a) => [0, 1, 2].map((b) => (a > b ? 1 : 0))),
    allowed: [[true], [true], [true]],
  };
  expect(cheapestArrangement(free, [[2, 0, 1]]).segments).toEqual([[0, 1, 2]]);
});
