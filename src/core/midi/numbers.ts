import type { Numbering } from '../kinds';
import type { Address } from '../rig/schema';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

const slotText = (slot: number, n: Numbering): string =>
  n.slots === 'letters' ? (LETTERS[slot] ?? String(slot)) : `-${slot + n.from}`;

/**
 * What a screen shows for a number of the wire: `n + from`, or bank `n div size` and slot `n mod
 * size`, banks counted from `banksFrom`. Where a bank was selected, it is that bank and the number
 * is its slot.
 *
 *     shownOn({ from: 1 }, { number: 21 })                                      // "22"
 *     shownOn({ from: 1, size: 4, slots: 'letters' }, { number: 21 })           // "6B"
 */
export function shownOn(n: Numbering, { bank, number }: Address): string {
  const banksFrom = n.banksFrom ?? n.from;
  if (n.size !== undefined) {
    const slot = bank === undefined ? number % n.size : number;
    return `${(bank ?? Math.floor(number / n.size)) + banksFrom}${slotText(slot, n)}`;
  }
  return bank === undefined
    ? String(number + n.from)
    : `bank ${bank + banksFrom}, ${number + n.from}`;
}

/** Wire and screen side by side: "wire 21, screen 22". */
export function bothNumbers(n: Numbering, address: Address): string {
  return (
    `wire ${address.bank === undefined ? '' : `bank ${address.bank} program `}${address.number}, ` +
    `screen ${shownOn(n, address)}`
  );
}

/**
 * The number of the wire that a screen shows so; nothing where no number of 0 to 127 is shown so.
 * With a bank, of that bank.
 */
export function wireOf(n: Numbering, shown: string, bank?: number): number | undefined {
  const wanted = shown.trim().toUpperCase();
  for (let number = 0; number < 128; number++)
    if (shownOn(n, { number, ...(bank !== undefined && { bank }) }).toUpperCase() === wanted)
      return number;
  return undefined;
}

/** How a numbering counts, in words. */
export function numberingWords(n: Numbering): string {
  if (n.size === undefined) return `counts from ${n.from}`;
  const slots =
    n.slots === 'letters'
      ? `A to ${LETTERS[n.size - 1] ?? n.size}`
      : `${n.from} to ${n.size - 1 + n.from}`;
  return `banks of ${n.size} from ${n.banksFrom ?? n.from}, slots ${slots}`;
}
