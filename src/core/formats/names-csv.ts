import { type MidiDevice, shownOn, wireOf } from '../midi';
import { done, type Outcome, type Problem } from '../outcome';
import type { Edit } from '../rig/edits';
import type { MidiSetup } from '../rig/schema';
import { readCsv, toCsv } from './csv';

type Name = NonNullable<MidiSetup['names']>[number];

/** The names of a device's programs, by the numbers of the wire and as its screen shows them. */
export const namesToCsv = (m: MidiDevice): string =>
  toCsv(
    ['bank', 'program', 'screen', 'name'],
    (m.device.midi?.names ?? []).map((n) => [n.bank, n.number, shownOn(m.shows, n), n.name]),
  );

/**
 * Reads names of programs: by `program` (wire) or `screen` (as the device shows it), with `bank` where
 * it takes banks, and `name`. They take the place of all names that the device had.
 */
export function namesFromCsv(m: MidiDevice, text: string): Outcome<Edit[]> {
  const read = readCsv(text, ['name']);
  if (!read.ok) return read;
  const { rows, columns, toNumber } = read.value;
  const problems: Problem[] = [];
  if (!columns.includes('program') && !columns.includes('screen'))
    problems.push({
      where: 'row 1',
      what: 'there is no column "program" (as on the wire) and none "screen" (as the device shows it)',
    });
  const names = new Map<string, Name>();
  for (const { row, cells: c } of problems.length ? [] : rows) {
    const say = (what: string) => problems.push({ where: `row ${row}`, what });
    const bank = c.bank ? toNumber(c.bank) : undefined;
    if (bank !== undefined && !(Number.isInteger(bank) && bank >= 0 && bank <= 16383))
      say(`"${c.bank}" is no bank; give 0 to 16383, as on the wire`);
    const number = c.program ? toNumber(c.program) : c.screen ? wireOf(m.shows, c.screen) : NaN;
    if (number === undefined || !(Number.isInteger(number) && number >= 0 && number <= 127)) {
      say(
        c.program
          ? `"${c.program}" is no program; give 0 to 127, as on the wire`
          : `"${c.screen ?? ''}" is shown for no program of ${m.device.name}`,
      );
      continue;
    }
    if (!c.name) continue;
    const key = `${bank ?? 0} ${number}`;
    if (names.has(key)) say(`this program has a name already: ${names.get(key)?.name}`);
    if (c.name.length > 60) say('the name is too long; give at most 60 letters');
    names.set(key, { ...(bank && { bank }), number, name: c.name });
  }
  if (problems.length) return { ok: false, problems };
  const midi = { ...m.device.midi, names: names.size ? [...names.values()] : undefined };
  return done([{ edit: 'setMidi', device: m.device.id, midi }]);
}
