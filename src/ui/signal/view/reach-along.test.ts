import fc from 'fast-check';
import { reachAlong } from './reach-along';

const walk = ['guitar', 'tuner', 'loop', 'drive', 'loop', 'echo', 'amp'];
const devices = ['guitar', 'tuner', 'loop', 'drive', 'echo', 'amp'];

test('longer, shorter, and over to the other side of where it began', () => {
  expect(reachAlong(walk, ['loop'], 1)).toEqual(['loop', 'drive']);
  expect(reachAlong(walk, ['loop', 'drive'], 1)).toEqual(['loop', 'drive', 'echo']);
  expect(reachAlong(walk, ['loop', 'drive', 'echo'], -1)).toEqual(['loop', 'drive']);
  expect(reachAlong(walk, ['loop', 'drive'], -1)).toEqual(['loop']);
  expect(reachAlong(walk, ['loop'], -1)).toEqual(['loop', 'tuner']);
  expect(reachAlong(walk, ['loop', 'tuner'], -1)).toEqual(['loop', 'tuner', 'guitar']);
});

test('nothing chosen begins at the first; what is not on the walk too; at the ends it stays', () => {
  expect(reachAlong(walk, [], 1)).toEqual(['guitar']);
  expect(reachAlong(walk, ['supply'], -1)).toEqual(['guitar']);
  expect(reachAlong(walk, ['amp'], 1)).toEqual(['amp']);
  expect(reachAlong([], ['amp'], 1)).toEqual([]);
});

test('whatever is pressed, it is one row from where it began, each device once', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...devices),
      fc.array(fc.constantFrom<1 | -1>(1, -1), { maxLength: 20 }),
      (start, presses) => {
        let row: readonly string[] = [start];
        let end = devices.indexOf(start);
        for (const by of presses) {
          row = reachAlong(walk, row, by);
          end = Math.min(devices.length - 1, Math.max(0, end + by));
          expect([row[0], row.at(-1)]).toEqual([start, devices[end]]);
          expect(row).toHaveLength(Math.abs(end - devices.indexOf(start)) + 1);
        }
      },
    ),
  );
});
