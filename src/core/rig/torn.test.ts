import fc from 'fast-check';
import { chainOf } from '../testing/rigs';
import { problemLines, readRig, writeRig } from '.';

const text = writeRig(chainOf(['guitar-active', 'boost', 'console-input']));
const place = (torn: string): [number, number] | undefined => {
  const read = readRig(torn);
  const found = read.ok
    ? null
    : /line (\d+), column (\d+)/.exec(problemLines(read.problems)[0] ?? '');
  return found ? [Number(found[1]), Number(found[2])] : undefined;
};

test.each([
  ['a comma that is missing', '{\n  "a": 1\n  "b": 2\n}', [3, 3]],
  ['a word that is none', '{\n  "a": nothing\n}', [2, 8]],
  ['a bracket too many', '[1]]', [1, 4]],
  ['an end that is missing', '{\n  "a": [1, 2', [2, 13]],
] as const)('%s is told with its line and column', (_, torn, at) => {
  expect(place(torn)).toEqual(at);
});

test('a file that is cut off anywhere says where it ends', () => {
  fc.assert(
    fc.property(fc.nat({ max: text.length - 3 }), (cut) => {
      const torn = text.slice(0, cut);
      const [line, column] = place(torn) ?? [0, 0];
      const lines = torn.split('\n');
      // At the end, or at the start of the last thing that was begun.
      return (
        line >= 1 &&
        line <= lines.length &&
        column >= 1 &&
        column <= (lines[line - 1]?.length ?? 0) + 1
      );
    }),
    { numRuns: 200 },
  );
});
