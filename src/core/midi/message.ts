import type { BankSelect } from '../kinds';
import type { WrittenMessage } from '../rig/schema';

/** One message on the wire. Channels are 1 to 16. */
export type Message =
  | { type: 'program'; channel: number; number: number }
  | { type: 'control'; channel: number; cc: number; value: number }
  | { type: 'clock' | 'start' | 'stop' | 'continue' };

/** 31,250 bit/s and 10 bits a byte: 320 µs. */
export const BYTE_MS = 0.32;
/** Clock messages in a quarter note. */
export const CLOCKS_PER_QUARTER = 24;
/** Bank-select control changes. */
export const BANK = { msb: 0, lsb: 32 } as const;

const STATUS = { program: 0xc0, control: 0xb0 } as const;
const REALTIME = { clock: 0xf8, start: 0xfa, continue: 0xfb, stop: 0xfc } as const;

/** The bytes of a message, status first. */
export function bytesOf(m: Message): number[] {
  if (m.type === 'program') return [STATUS.program | (m.channel - 1), m.number];
  if (m.type === 'control') return [STATUS.control | (m.channel - 1), m.cc, m.value];
  return [REALTIME[m.type]];
}

export const isRealtime = (m: Message): boolean => m.type !== 'program' && m.type !== 'control';

/** Bytes as a tech writes them: "B0 00 01". */
export const hex = (bytes: readonly number[]): string =>
  bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');

/**
 * Time in ms that a list of messages takes on a DIN lead. Running status saves a status byte that
 * is the same as the one before.
 */
export function wireMs(messages: readonly Message[], runningStatus = false): number {
  let status = -1;
  let bytes = 0;
  for (const m of messages) {
    const own = bytesOf(m);
    bytes += own.length - (runningStatus && !isRealtime(m) && own[0] === status ? 1 : 0);
    if (!isRealtime(m)) status = own[0]!;
  }
  return bytes * BYTE_MS;
}

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

/** A message in words, numbers as on the wire. */
export function messageWords(m: Message): string {
  if (m.type === 'program') return `channel ${m.channel}, program ${m.number}`;
  if (m.type === 'control')
    return (
      `channel ${m.channel}, ${m.cc === BANK.msb ? 'bank select MSB' : m.cc === BANK.lsb ? 'bank select LSB' : `control ${m.cc}`} ` +
      `= ${m.value}`
    );
  return m.type;
}
