import { KINDS } from '../kinds';
import { done, type Outcome, type Problem } from '../outcome';
import { type ChangedKind, checkSheet, freshId, type Sheet } from '../rig';
import { readCsv, type Table, toCsv } from './csv';

const SIZE = ['width mm', 'depth mm', 'height mm', 'grams'] as const;
const TEXTS = ['maker', 'model', 'about', 'notes', 'cannot'] as const;
const HEAD = [
  ...['id', 'sheet', 'kind', ...TEXTS, 'V', 'mA', ...SIZE, 'mains W', 'rack units', 'price'],
];

/** Sheets that a table can hold: a kind that ships, with other figures. Boxes of parts are no rows. */
const isSimple = (sheet: Sheet): sheet is ChangedKind => sheet.is === 'changes';

/**
 * Simple sheets as a table: what each is called and is a kind of, its power in volts and milliamps, its
 * size in mm and weight in grams, price in whatever money the crew counts in. What a table does not
 * hold (controls, jacks, figures, messages) stays behind.
 */
export const sheetsToCsv = (sheets: readonly Sheet[]): string =>
  toCsv(
    HEAD,
    sheets
      .filter(isSimple)
      .map((s) => [
        ...[s.id, s.name, s.base, ...TEXTS.map((t) => s[t])],
        ...[s.power?.volts, s.power?.milliamps],
        ...[s.size?.width, s.size?.depth, s.size?.height, s.size?.grams],
        ...[s.mains?.watts, s.rackUnits, s.price],
      ]),
  );

/**
 * Reads simple sheets: by `sheet`, its name, and `kind`, the id or the name of one that ships. A row with
 * the `id` of a sheet that is `held` changes that one in what the table says, and leaves the rest of it;
 * an empty cell says nothing. Anything wrong is refused with its row, and nothing is taken.
 */
export function sheetsFromCsv(text: string, held: readonly Sheet[]): Outcome<Sheet[]> {
  const read = readCsv(text, ['sheet', 'kind']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const ids = held.map((s) => s.id);
  const sheets: Sheet[] = [];
  for (const { row, cells } of read.value.rows) {
    const say = (what: string) => problems.push({ where: `row ${row}`, what });
    const name = cells.sheet?.trim() ?? '';
    const wanted = cells.kind?.trim().toLowerCase() ?? '';
    const base = KINDS.find((k) => k.id === wanted || k.name.toLowerCase() === wanted);
    if (!name) say('the sheet has no name');
    if (!base) say(`"${cells.kind ?? ''}" is no kind that ships; give its id or its name`);
    if (!name || !base) continue;
    const before = held.find((s) => s.id === cells.id?.trim());
    if (before && !isSimple(before)) {
      say(`${before.name} is a box of parts, which no row can say; leave its row out`);
      continue;
    }
    const id = before?.id ?? freshId(name, ids);
    ids.push(id);
    const checked = checkSheet({
      ...before,
      is: 'changes',
      id,
      name,
      base: base.id,
      ...said(cells, before, read.value, say),
    });
    if (!checked.ok) for (const p of checked.problems) say(`${p.where}: ${p.what}`);
    else if (sheets.some((s) => s.id === id)) say(`${name} is in the table twice`);
    else sheets.push(checked.value);
  }
  return problems.length ? { ok: false, problems } : done(sheets);
}

/** What a row says beside the name and the kind. */
function said(
  cells: Record<string, string>,
  before: ChangedKind | undefined,
  { toNumber }: Table,
  say: (what: string) => void,
) {
  const figure = (column: string): number | undefined => {
    const cell = cells[column.toLowerCase()]?.trim();
    if (!cell) return undefined;
    const value = toNumber(cell);
    if (!Number.isFinite(value)) say(`"${cell}" in the column ${column} is no number`);
    return Number.isFinite(value) ? value : undefined;
  };
  const [volts, milliamps] = [figure('V'), figure('mA')];
  const [width, depth, height, grams] = SIZE.map(figure);
  const [watts, units, price] = [figure('mains W'), figure('rack units'), figure('price')];
  const power = part(before?.power, { volts, milliamps });
  const size = part(before?.size, { width, depth, height, grams });
  const mains = part(before?.mains, { watts });
  return {
    ...part(undefined, Object.fromEntries(TEXTS.map((t) => [t, cells[t]?.trim() || undefined]))),
    ...(power && { power }),
    ...(size && { size }),
    ...(mains && { mains }),
    ...part(undefined, { rackUnits: units, price }),
  };
}

/** What was there with what is said now; nothing where there is neither. */
function part<T extends object>(before: T | undefined, now: Record<string, unknown>) {
  const told = Object.entries(now).filter(([, v]) => v !== undefined);
  return before || told.length ? { ...before, ...Object.fromEntries(told) } : undefined;
}
