import fc from 'fast-check';
import { longestRising } from '.';

const lists = fc.uniqueArray(fc.integer({ min: 0, max: 50 }), { maxLength: 9 });

/** The length of the longest rising run, by trying every choice of places. */
const longestByHand = (values: readonly number[]): number => {
  let most = 0;
  for (let set = 0; set < 1 << values.length; set++) {
    const some = values.filter((_, i) => (set >> i) & 1);
    if (some.every((v, i) => i === 0 || v > some[i - 1]!)) most = Math.max(most, some.length);
  }
  return most;
};

test('what it gives rises, in the order of the list, and nothing longer does', () => {
  fc.assert(
    fc.property(lists, (values) => {
      const run = longestRising(values);
      expect(run).toEqual([...run].sort((a, b) => a - b));
      const picked = run.map((i) => values[i]!);
      expect(picked).toEqual([...picked].sort((a, b) => a - b));
      expect(run).toHaveLength(longestByHand(values));
    }),
  );
});
