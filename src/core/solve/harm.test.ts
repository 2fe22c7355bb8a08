import fc from 'fast-check';
import { withoutHarm } from './harm';

describe('what is left out of a proposal', () => {
  const conflict = fc.array(fc.nat(6), { minLength: 1, maxLength: 3 });

  test('is what would break something; the rest breaks nothing, and no single one could be added', () => {
    fc.assert(
      fc.property(fc.nat(6), fc.array(conflict, { maxLength: 5 }), (most, conflicts) => {
        const all = Array.from({ length: most }, (_, i) => i);
        // Each conflict is told while all of its members are in.
        const breaksOf = (some: readonly number[]) =>
          conflicts.filter((c) => c.every((one) => some.includes(one))).map((c) => c.join());
        const { kept, left } = withoutHarm(all, breaksOf);
        expect(breaksOf(kept)).toEqual([]);
        expect([...kept, ...left.map((l) => l.one)].sort()).toEqual(all);
        expect(left.every((l) => l.breaks.length > 0)).toBe(true);
        if (!breaksOf(all).length) expect(left).toEqual([]);
      }),
    );
  });
});
