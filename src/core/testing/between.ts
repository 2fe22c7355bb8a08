import fc from 'fast-check';

/**
 * A figure between two, evenly, and now and then one of the ends. `fc.double` draws evenly from the
 * numbers that a computer can write, of which nearly all between 0 and 1 are next to nothing: right for
 * what spans decades, such as ohms, and wrong for shares, positions and decibels.
 */
export const between = (min: number, max: number): fc.Arbitrary<number> =>
  fc.oneof(
    { weight: 1, arbitrary: fc.constantFrom(min, max) },
    {
      weight: 9,
      arbitrary: fc.integer({ min: 0, max: 1_000_000 }).map((n) => min + ((max - min) * n) / 1e6),
    },
  );
