import type { MidiSetup } from '../rig/midi-schema';
import type { Address } from '../rig/schema';
import { bothNumbers, shownOn } from './numbers';
import type { MidiDevice } from './setup';

type Numbered = Pick<MidiDevice, 'shows' | 'names'>;

/** What a program is called on its device; nothing where nobody said. */
export const programName = ({ names }: Numbered, { bank, number }: Address): string | undefined =>
  names.get(`${bank ?? 0} ${number}`);

const called = (m: Numbered, address: Address): string => {
  const name = programName(m, address);
  return name === undefined ? '' : ` “${name}”`;
};

/** A program as its device shows it: the number on its screen, and its name: `22 “Harbour pad”`. */
export const screenOn = (m: Numbered, address: Address): string =>
  `${shownOn(m.shows, address)}${called(m, address)}`;

/** Wire and screen side by side, with the name: `wire 21, screen 22 “Harbour pad”`. */
export const numbersOn = (m: Numbered, address: Address): string =>
  `${bothNumbers(m.shows, address)}${called(m, address)}`;

/** The names of a device with one more, or with one taken back where it is empty. */
export function withName(
  names: MidiSetup['names'],
  { bank, number }: Address,
  name: string,
): MidiSetup['names'] {
  const others = (names ?? []).filter((n) => n.number !== number || (n.bank ?? 0) !== (bank ?? 0));
  const own = name.trim() ? [{ ...(bank && { bank }), number, name: name.trim() }] : [];
  const all = [...others, ...own].sort(
    (a, b) => (a.bank ?? 0) - (b.bank ?? 0) || a.number - b.number,
  );
  return all.length ? all : undefined;
}
