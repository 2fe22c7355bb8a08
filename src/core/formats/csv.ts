import Papa from 'papaparse';
import type { Outcome, Problem } from '../outcome';
import { textProblems } from '../rig';

type Cell = string | number | boolean | null | undefined;

/** A cell that a spreadsheet would run as a formula gets an apostrophe in front, which it does not show. */
const RUNS = /^'*[=+\-@\t\r]/;
/**
 * Where semicolons or tabs part cells, a text would be parted there, and what follows be run: it gets
 * an apostrophe, too.
 */
const RUNS_INSIDE = /([;\t]\s*)('*[=+\-@])/g;
const MADE_SAFE_INSIDE = /([;\t]\s*)'('*[=+\-@])/g;
const isNumber = (text: string): boolean => /^[+-]?\d+(\.\d+)?$/.test(text);

const safe = (cell: Cell): string => {
  const text = cell === null || cell === undefined ? '' : String(cell);
  const inside = text.replace(RUNS_INSIDE, "$1'$2");
  return RUNS.test(inside) && !isNumber(inside) ? `'${inside}` : inside;
};
const plain = (text: string): string =>
  (/^'+[=+\-@\t\r]/.test(text) ? text.slice(1) : text).replace(MADE_SAFE_INSIDE, '$1$2');

/**
 * Rows as CSV: UTF-8 text with a header row, lines ended by CR LF, and nothing that a spreadsheet
 * would run.
 */
export const toCsv = (header: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  `${Papa.unparse({ fields: header.map(safe), data: rows.map((r) => r.map(safe)) }, { newline: '\r\n' })}\r\n`;

/** One row of a CSV file: its number as a spreadsheet counts it, and its cells by header. */
export interface Row {
  row: number;
  cells: Record<string, string>;
}

/** What was read of a CSV file. */
export interface Table {
  rows: Row[];
  /** The columns that the file has, in small letters. */
  columns: string[];
  /** A number as the file writes them: where semicolons part the cells, commas may be decimal. */
  toNumber: (text: string) => number;
}

/** Largest file that is read, in characters. */
const MOST = 4_000_000;

const refusedAt = (where: string, what: string): Outcome<never> => ({
  ok: false,
  problems: [{ where, what }],
});

/**
 * Reads CSV with the headers it must have; what is missing, twice there or torn is told with its row.
 * A byte-order mark and semicolons are taken. Rows are numbered as a spreadsheet numbers them, empty
 * ones too.
 */
export function readCsv(text: string, needed: readonly string[]): Outcome<Table> {
  if (text.length > MOST) return refusedAt('', 'the file is larger than 4 MB; split it');
  const whole = text.replace(/^\uFEFF/, '');
  const read = Papa.parse<string[]>(whole, { delimiter: delimiterOf(whole, needed) });
  const all = read.data.map((cells, i) => ({ cells, row: i + 1 }));
  const [head, ...body] = all.filter(({ cells }) => cells.some((c) => c.trim() !== ''));
  if (!head)
    return refusedAt(
      'row 1',
      `the file is empty; its first row names the columns: ${needed.join(', ')}`,
    );
  const columns = head.cells.map((h) => plain(h.trim()).toLowerCase());
  const wrong = columnProblem(columns, needed);
  if (wrong !== undefined) return refusedAt(`row ${head.row}`, wrong);
  const torn = read.errors
    .filter((e) => e.type === 'Quotes')
    .slice(0, 5)
    .map((e): Problem => ({
      where: `row ${(e.row ?? 0) + 1}`,
      what: 'a quotation mark is not closed; the rest of the file cannot be told apart',
    }));
  if (torn.length) return { ok: false, problems: torn };
  const unstorable = body.flatMap(({ cells, row }) =>
    cells.flatMap((cell, k): Problem[] =>
      textProblems(cell).map(({ what }) => ({
        where: `row ${row}, ${columns[k] ?? 'a cell'}`,
        what,
      })),
    ),
  );
  if (unstorable.length) return { ok: false, problems: unstorable.slice(0, 20) };
  const hasDecimalCommas = read.meta.delimiter !== ',';
  return {
    ok: true,
    value: {
      columns,
      rows: body.map(({ cells, row }) => ({
        row,
        cells: Object.fromEntries(columns.map((h, k) => [h, plain((cells[k] ?? '').trim())])),
      })),
      toNumber: (cell) =>
        cell.trim() === '' ? NaN : Number(hasDecimalCommas ? cell.replace(',', '.') : cell),
    },
  };
}

/**
 * What parts the cells: that by which the first row has the columns that are needed, else that by
 * which it has most.
 */
function delimiterOf(text: string, needed: readonly string[]): string {
  const found = [',', ';', '\t'].map((delimiter) => {
    const [head = []] = Papa.parse<string[]>(text, {
      delimiter,
      preview: 1,
      skipEmptyLines: 'greedy',
    }).data;
    const columns = head.map((h) => plain(h.trim()).toLowerCase());
    const there = needed.filter((n) => columns.includes(n.toLowerCase())).length;
    return { delimiter, there, columns: columns.length };
  });
  found.sort((a, b) => b.there - a.there || b.columns - a.columns);
  return found[0]?.delimiter ?? ',';
}

/** What is wrong with the names of the columns. */
function columnProblem(columns: readonly string[], needed: readonly string[]): string | undefined {
  const missing = needed.filter((n) => !columns.includes(n.toLowerCase()));
  if (missing.length)
    return (
      `there is no column ${missing.map((m) => `"${m}"`).join(', ')}; the first row ` +
      `has ${columns.map((h) => `"${h}"`).join(', ')}`
    );
  const twice = columns.find((h, i) => h !== '' && columns.indexOf(h) !== i);
  return twice === undefined
    ? undefined
    : `two columns are called "${twice}"; keep one, or give the other another name`;
}

/** Says which columns of a table were not read, so that a misspelt one is noticed; nothing where all were. */
export function unreadColumns({ columns }: Table, known: readonly string[]): string[] {
  const names = known.map((k) => k.toLowerCase());
  const others = columns.filter((c) => c !== '' && !names.includes(c));
  return others.length
    ? [
        `not read: the column${others.length > 1 ? 's' : ''} ${others.map((o) => `"${o}"`).join(', ')}`,
      ]
    : [];
}
