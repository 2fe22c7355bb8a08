import fc from 'fast-check';
import { done, reasonOf, refused } from '../outcome';
import { type LoopOrder, readLoopOrder, writeLoopOrder } from './loop-order';

const anyOrder: fc.Arbitrary<LoopOrder> = fc
  .tuple(
    fc.shuffledSubarray([1, 2, 3, 4, 5, 6, 7, 8]),
    fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
    fc.array(fc.integer({ min: -60, max: 12 }), { minLength: 8, maxLength: 8 }),
  )
  .map(([loops, joins, levels]) => {
    const order: LoopOrder = [];
    loops.forEach((loop, i) => {
      const way = { loop, levelDb: levels[i]! };
      if (i > 0 && joins[i]) order.at(-1)!.push(way);
      else order.push([way]);
    });
    return order;
  });

test('whatever order is written is read as the same order', () => {
  fc.assert(
    fc.property(anyOrder, (order) => {
      expect(readLoopOrder(writeLoopOrder(order), 8)).toEqual(done(order));
    }),
  );
});

test('any text is read, or refused with a reason; nothing throws', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom(...'0123456789()+@-., >x') }), (text) => {
      const read = readLoopOrder(text, 8);
      if (!read.ok) expect(reasonOf(read).length).toBeGreaterThan(15);
      else
        expect(new Set(read.value.flat().map((w) => w.loop)).size).toBe(read.value.flat().length);
    }),
  );
});

test.each([
  ['', []],
  ['  3   1 ', [[{ loop: 3, levelDb: 0 }], [{ loop: 1, levelDb: 0 }]]],
  ['2, 1', [[{ loop: 2, levelDb: 0 }], [{ loop: 1, levelDb: 0 }]]],
  ['2 > 1', [[{ loop: 2, levelDb: 0 }], [{ loop: 1, levelDb: 0 }]]],
  [
    '( 3 + 4@-6 )',
    [
      [
        { loop: 3, levelDb: 0 },
        { loop: 4, levelDb: -6 },
      ],
    ],
  ],
  ['5@+3', [[{ loop: 5, levelDb: 3 }]]],
  [
    '(5@+3+6)',
    [
      [
        { loop: 5, levelDb: 3 },
        { loop: 6, levelDb: 0 },
      ],
    ],
  ],
  ['5@-1.5', [[{ loop: 5, levelDb: -1.5 }]]],
])('"%s"', (text, order) => expect(readLoopOrder(text, 8)).toEqual(done(order)));

test.each([
  ['3+4', 'write loops that run side by side in brackets: (3+4)'],
  ['9', 'there is no loop 9; it has loops 1 to 8'],
  ['0', 'there is no loop 0; it has loops 1 to 8'],
  ['1 2 1', 'loop 1 stands in it twice; signal can pass a loop once'],
  ['(1+1)', 'loop 1 stands in it twice; signal can pass a loop once'],
  ['1@20', "a loop's level runs from −60 to +12 dB, not 20"],
  ['one', '"one" is no loop; write numbers in order, such as "2 1 (3+4@-6) 5"'],
])('"%s" is refused: %s', (text, why) => expect(readLoopOrder(text, 8)).toEqual(refused(why)));
