import { touringRig } from '../demo';
import { demoBook, EMPTY_BOOK, withChanges } from '../show';
import { valueOf } from '../testing/value-of';
import { linesFromCsv, linesToCsv } from './log-csv';

const book = withChanges(EMPTY_BOOK, demoBook(touringRig, '2026-06-15'));
const read = (...rows: string[]) =>
  valueOf(linesFromCsv(touringRig, ['at,sort,text,by,show,minutes,about', ...rows].join('\n')));

test('out as a table and in again: the same lines, oldest first, about the same things', () => {
  const sorted = [...book.line].sort((a, b) => a.at.localeCompare(b.at));
  const back = valueOf(linesFromCsv(touringRig, linesToCsv(book)));
  expect(back.map((l) => [l.at, l.text, l.sort, l.minutes, l.by, l.links])).toEqual(
    sorted.map((l) => [l.at, l.text, l.sort, l.minutes, l.by, l.links]),
  );
});

test('a line that was taken back is not in the table; the day of its show and what it is about are', () => {
  const [first, ...rest] = book.line;
  const csv = linesToCsv({ ...book, line: [{ ...first!, gone: true }, ...rest] });
  expect(csv).not.toContain(first!.text);
  const other = rest.find((l) => l.show && l.links.length)!;
  const row = csv.split('\n').find((r) => r.startsWith(other.at) && r.includes(other.text))!;
  expect(row).toContain(book.show.find((s) => s.id === other.show)!.date);
  for (const { name } of other.links) expect(row).toContain(name);
});

test('what is no time, says nothing, says too much or is of no sort is told with its row', () => {
  const bad = linesFromCsv(
    touringRig,
    `at,text,sort\nsoon,,gossip\n2026-06-01 20:00,${'x'.repeat(1001)},\n`,
  );
  expect(bad.ok ? [] : bad.problems.map((p) => `${p.where}: ${p.what}`)).toEqual([
    'row 2: "soon" is no time; write 2026-11-27 21:40',
    'row 2: the line says nothing',
    'row 2: "gossip" is no sort; choose note, fault, repair, battery, tube, measured',
    'row 3: a line is at most 1000 letters',
  ]);
});

test('minutes are those of a day or none; a sort that is left out is found in the words', () => {
  const minutes = (cell: string) =>
    read(`2026-06-01T20:00:00Z,note,A word,Odd,,${cell},`)[0]!.minutes;
  expect(['0', '12', '1440', '1441', '-1', '', 'soon'].map(minutes)).toEqual([
    ...[0, 12, 1440, null, null, null, null],
  ]);
  const [line] = read('2026-06-01T20:00:00Z,,new battery in the radio,Odd,,,');
  expect([line!.sort, line!.by]).toEqual(['battery', 'Odd']);
});
