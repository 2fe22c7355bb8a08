import type { Outcome } from '../outcome';
import type { Rig } from '../rig/schema';
import { type Book, type Line, LINE_SORTS, linksIn, sortOf } from '../show/book';
import { readCsv, toCsv } from './csv';

const HEADER = ['at', 'sort', 'text', 'by', 'show', 'minutes', 'about'] as const;

/** The logbook as a table, oldest line first. Times in UTC. */
export const linesToCsv = (book: Book): string =>
  toCsv(
    [...HEADER],
    book.line
      .filter((l) => !l.gone)
      .sort((a, b) => a.at.localeCompare(b.at))
      .map((l) => [
        ...[l.at, l.sort, l.text, l.by],
        ...[book.show.find((s) => s.id === l.show)?.date ?? '', l.minutes ?? ''],
        l.links.map((k) => k.name).join('; '),
      ]),
  );

/** Lines from a table with `at` and `text`; what they are about is found in their words again. */
export function linesFromCsv(rig: Rig, text: string): Outcome<Partial<Line>[]> {
  const table = readCsv(text, ['at', 'text']);
  if (!table.ok) return table;
  const problems: { where: string; what: string }[] = [];
  const lines = table.value.rows.map(({ row, cells }): Partial<Line> => {
    const cell = (name: string) => (cells[name] ?? '').trim();
    const [at, words, sort] = [cell('at'), cell('text'), cell('sort')];
    const moment = new Date(at);
    const where = `row ${row}`;
    if (Number.isNaN(moment.valueOf()))
      problems.push({ where, what: `"${at}" is no time; write 2026-11-27 21:40` });
    if (!words) problems.push({ where, what: 'the line says nothing' });
    if (words.length > 1000) problems.push({ where, what: 'a line is at most 1000 letters' });
    const known = LINE_SORTS.find((s) => s === sort);
    if (sort && !known)
      problems.push({ where, what: `"${sort}" is no sort; choose ${LINE_SORTS.join(', ')}` });
    const minutes = Number(cell('minutes') || NaN);
    return {
      at: Number.isNaN(moment.valueOf()) ? '' : moment.toISOString(),
      text: words,
      by: cell('by').slice(0, 60),
      sort: known ?? sortOf(words),
      links: linksIn(rig, words),
      minutes: minutes >= 0 && minutes <= 1440 ? minutes : null,
    };
  });
  return problems.length ? { ok: false, problems } : { ok: true, value: lines };
}
