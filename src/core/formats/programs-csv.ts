import { done, type Outcome, type Problem } from '../outcome';
import type { Sheet } from '../rig';
import { readCsv, toCsv } from './csv';

type Programs = NonNullable<Sheet['programs']>;

/** The highest program of a unit with banks, counted through as on the wire. */
const HIGHEST = 16_383;

/** The named programs of a sheet as a table: number as on the wire, counted over banks of 128. */
export const programsToCsv = (programs: Programs): string =>
  toCsv(
    ['program', 'name'],
    programs.map((p) => [p.number, p.name]),
  );

/** Named programs from a table with `program` and `name`; rows without a name are left out. */
export function programsFromCsv(text: string): Outcome<Programs> {
  const read = readCsv(text, ['program', 'name']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const programs = new Map<number, string>();
  for (const { row, cells } of read.value.rows) {
    const say = (what: string) => problems.push({ where: `row ${row}`, what });
    const number = read.value.toNumber(cells.program ?? '');
    const name = cells.name?.trim() ?? '';
    if (!Number.isInteger(number) || number < 0 || number > HIGHEST)
      say(`"${cells.program ?? ''}" is no program; give 0 to ${HIGHEST}, as on the wire`);
    else if (programs.has(number))
      say(`program ${number} has a name already: ${programs.get(number) ?? ''}`);
    else if (name.length > 120) say('the name is too long; give at most 120 letters');
    else if (name) programs.set(number, name);
  }
  if (problems.length) return { ok: false, problems };
  return done([...programs].map(([number, name]) => ({ number, name })));
}
