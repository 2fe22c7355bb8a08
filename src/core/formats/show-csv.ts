import type { Outcome, Problem } from '../outcome';
import type { Rig } from '../rig/schema';
import { type Book, RECORDS, type Show } from '../show/book';
import { calledIn, whoIs } from './called';
import { readCsv, toCsv } from './csv';

const TEXTS = ['venue', 'country', 'crew', 'doors', 'curtain', 'notes'] as const;
const HEADER = ['date', ...TEXTS, 'volts', 'set'] as const;

/** The shows of a rig as a table, the first one first; sets by name. Times of day are those of the place. */
export const showsToCsv = (rig: Rig, book: Book): string =>
  toCsv(
    [...HEADER],
    book.show
      .filter((s) => !s.gone)
      .sort((a, b) => a.date.localeCompare(b.date))
      .map((s) => [
        ...[s.date, ...TEXTS.map((field) => s[field]), s.volts],
        calledIn(rig.sets ?? [], s.set),
      ]),
  );

/** Shows from a table with `date`; sets are found by their names. Refused whole where anything is wrong. */
export function showsFromCsv(rig: Rig, text: string): Outcome<Partial<Show>[]> {
  const table = readCsv(text, ['date']);
  if (!table.ok) return table;
  const problems: Problem[] = [];
  const fields = RECORDS.show.partial();
  const shows = table.value.rows.map(({ row, cells }): Partial<Show> => {
    const cell = (name: string) => (cells[name] ?? '').trim();
    const where = `row ${row}`;
    const wanted = cell('set');
    const set = wanted
      ? whoIs(rig.sets ?? [], wanted, {
          say: (what) => problems.push({ where, what }),
          missing: (name) => `no set of this rig is called "${name}"; leave it empty`,
        })
      : undefined;
    const volts = cell('volts');
    const read = fields.safeParse({
      date: cell('date'),
      ...Object.fromEntries(TEXTS.map((field) => [field, cell(field)])),
      volts: volts ? Number(volts) : null,
      set: set?.id ?? '',
    });
    if (read.success) return read.data;
    for (const issue of read.error.issues)
      problems.push({ where, what: `${issue.path.join('.')}: ${issue.message}` });
    return {};
  });
  return problems.length ? { ok: false, problems } : { ok: true, value: shows };
}

/** What was ticked and what failed at line checks, as a table, by show and time. Times in UTC. */
export const ticksToCsv = (book: Book): string =>
  toCsv(
    ['show', 'venue', 'step', 'state', 'by', 'at', 'note'],
    book.tick
      .filter((t) => t.state !== 'open')
      .map((t) => ({ ...t, of: book.show.find((s) => s.id === t.show) }))
      .sort((a, b) => a.at.localeCompare(b.at))
      .map((t) => [...[t.of?.date ?? '', t.of?.venue ?? '', t.step, t.state, t.by, t.at, t.note]]),
  );
