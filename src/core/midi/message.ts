import type { BankSelect } from '../kinds';
import type { WrittenMessage } from '../rig/schema';

/** What each sort of message carries. Channels are 1 to 16, numbers and values 0 to 127. */
export interface Carries {
  program: { channel: number; number: number };
  control: { channel: number; cc: number; value: number };
  clock: object;
  start: object;
  stop: object;
  continue: object;
}

export type MessageType = keyof Carries;
export type MessageOf<T extends MessageType> = { type: T } & Carries[T];
/** One message on the wire. */
export type Message = { [T in MessageType]: MessageOf<T> }[MessageType];

/** Clock messages in a quarter note. */
export const CLOCKS_PER_QUARTER = 24;
/** Bank-select control changes. */
export const BANK = { msb: 0, lsb: 32 } as const;

/** Bytes as a tech writes them: "B0 00 01". */
export const hex = (bytes: readonly number[]): string =>
  bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');

/**
 * Bank select as a receiver takes it: control 0 for the MSB, control 32 for the LSB, then the
 * program. Banks count from 0.
 */
export function programMessages(
  channel: number,
  number: number,
  bank?: number,
  select: BankSelect = 'both',
): Message[] {
  const control = (cc: number, value: number): Message => ({
    type: 'control',
    channel,
    cc,
    value: value & 127,
  });
  const program: Message = { type: 'program', channel, number };
  if (bank === undefined || select === 'none') return [program];
  if (select === 'msb') return [control(BANK.msb, bank), program];
  if (select === 'lsb') return [control(BANK.lsb, bank), program];
  return [control(BANK.msb, bank >> 7), control(BANK.lsb, bank), program];
}

/**
 * What a person wrote, as messages on the wire; `select` is how the receiver takes a bank, unless
 * the message says so itself.
 */
export const wireMessages = (m: WrittenMessage, select: BankSelect): Message[] =>
  m.type === 'program'
    ? programMessages(
        m.channel,
        m.number,
        m.bank,
        m.bankSelect ?? (select === 'none' && m.bank !== undefined ? 'both' : select),
      )
    : [{ type: 'control', channel: m.channel, cc: m.cc, value: m.value }];
