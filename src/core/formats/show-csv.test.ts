import { touringRig } from '../demo';
import { demoBook } from '../show/demo-book';
import { changeTo, EMPTY_BOOK, withChanges } from '../show/book';
import { valueOf } from '../testing/value-of';
import { readCsv } from './csv';
import { showsFromCsv, showsToCsv, ticksToCsv } from './show-csv';

const book = withChanges(EMPTY_BOOK, demoBook(touringRig, '2026-11-27'));

test('shows go out and come back the same, in all that the table speaks of', () => {
  const back = valueOf(showsFromCsv(touringRig, showsToCsv(touringRig, book)));
  const held = book.show.filter((s) => !s.gone).sort((a, b) => a.date.localeCompare(b.date));
  expect(held.length).toBeGreaterThan(5);
  expect(back).toEqual(held.map(({ id: _id, minutes: _minutes, gone: _gone, ...said }) => said));
});

test('a table with anything wrong in it is refused whole, with its rows', () => {
  const table = [
    'date,venue,country,volts,doors,set',
    '2026-12-01,Silo,FI,230,19:00,',
    'tomorrow,Quay,Finland,9000,7 pm,Nobody’s set',
  ].join('\n');
  const read = showsFromCsv(touringRig, table);
  expect(read.ok).toBe(false);
  const told = read.ok ? [] : read.problems.map((p) => `${p.where}: ${p.what}`);
  for (const part of [
    'no set of this rig',
    'date: write a date',
    'country: two',
    'volts: ',
    'doors: write a time',
  ])
    expect(told.some((t) => t.startsWith('row 3: ') && t.includes(part))).toBe(true);
  expect(told.some((t) => t.startsWith('row 2'))).toBe(false);
  expect(showsFromCsv(touringRig, 'venue\nSilo\n').ok).toBe(false);
});

test('ticks are told with the show that they belong to; what is open again is left out', () => {
  const tick = (id: string, state: 'done' | 'failed' | 'open', at: string) =>
    changeTo<'tick'>('tick', id, undefined, {
      show: 's',
      step: `step ${id}`,
      state,
      by: 'OD',
      at,
      note: '',
    });
  const ticked = withChanges(EMPTY_BOOK, [
    changeTo<'show'>('show', 's', undefined, { date: '2026-12-01', venue: 'Silo' }),
    tick('b', 'failed', '2026-12-01T16:20:00.000Z'),
    tick('a', 'done', '2026-12-01T16:10:00.000Z'),
    tick('c', 'open', '2026-12-01T16:30:00.000Z'),
  ]);
  const { rows } = valueOf(readCsv(ticksToCsv(ticked), ['step', 'state']));
  expect(rows.map((r) => [r.cells.show, r.cells.venue, r.cells.step, r.cells.state])).toEqual([
    ['2026-12-01', 'Silo', 'step a', 'done'],
    ['2026-12-01', 'Silo', 'step b', 'failed'],
  ]);
});
