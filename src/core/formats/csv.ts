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

/** Largest file that is read, in characters. */
const MOST = 4_000_000;

/**
 * Reads CSV with the headers it must have; what is missing or torn is told with its row. A
 * byte-order mark and semicolons are taken.
 */
export function readCsv(text: string, needed: readonly string[]): Outcome<Row[]> {
  if (text.length > MOST)
    return { ok: false, problems: [{ where: '', what: 'the file is larger than 4 MB; split it' }] };
  const read = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [head, ...body] = read.data;
  if (!head)
    return {
      ok: false,
      problems: [
        {
          where: 'row 1',
          what: `the file is empty; its first row names the columns: ${needed.join(', ')}`,
        },
      ],
    };
  const header = head.map((h) => plain(h.trim()).toLowerCase());
  const missing = needed.filter((n) => !header.includes(n.toLowerCase()));
  if (missing.length)
    return {
      ok: false,
      problems: [
        {
          where: 'row 1',
          what:
            `there is no column ${missing.map((m) => `"${m}"`).join(', ')}; the first row ` +
            `has ${header.map((h) => `"${h}"`).join(', ')}`,
        },
      ],
    };
  const torn = read.errors
    .filter((e) => e.type === 'Quotes')
    .slice(0, 5)
    .map((e): Problem => ({
      where: `row ${(e.row ?? 0) + 1}`,
      what: 'a quotation mark is not closed; the rest of the file cannot be told apart',
    }));
  if (torn.length) return { ok: false, problems: torn };
  const unstorable = body.flatMap((cells, i) =>
    cells.flatMap((cell, k): Problem[] =>
      textProblems(cell).map(({ what }) => ({
        where: `row ${i + 2}, ${header[k] ?? 'a cell'}`,
        what,
      })),
    ),
  );
  if (unstorable.length) return { ok: false, problems: unstorable.slice(0, 20) };
  return {
    ok: true,
    value: body.map((cells, i) => ({
      row: i + 2,
      cells: Object.fromEntries(header.map((h, k) => [h, plain((cells[k] ?? '').trim())])),
    })),
  };
}
