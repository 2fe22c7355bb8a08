import type { BankSelect } from '../kinds';
import type { WrittenMessage } from '../rig/schema';

/** What each sort of message carries. Channels are 1 to 16, numbers and values 0 to 127. */
export interface Carries {
  program: { channel: number; number: number };
  control: { channel: number; cc: number; value: number };
  'note-on': { channel: number; note: number; velocity: number };
  'note-off': { channel: number; note: number };
  /** From -8192 to 8191; 0 is no bend. */
  bend: { channel: number; bend: number };
  pressure: { channel: number; pressure: number };
  /** Sixteenth notes from the start, 0 to 16383. */
  position: { sixteenths: number };
  /** Bytes of 0 to 127 between F0 and F7. */
  exclusive: { data: readonly number[] };
  /** One of the eight parts of a time of time code. */
  'quarter-frame': { piece: number; nibble: number };
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
/** Control changes that choose a parameter that is not registered, and give its value. */
export const NRPN = { msb: 99, lsb: 98, valueMsb: 6, valueLsb: 38 } as const;
/** The control that holds the lower seven bits stands so far above the one with the upper. */
export const FINE_ABOVE = 32;
/** The largest value of 14 bits. */
export const MOST_FINE = 16383;

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
  const program: Message = { type: 'program', channel, number };
  if (bank === undefined || select === 'none') return [program];
  if (select === 'msb') return [control(channel, BANK.msb, bank), program];
  if (select === 'lsb') return [control(channel, BANK.lsb, bank), program];
  return [control(channel, BANK.msb, bank >> 7), control(channel, BANK.lsb, bank), program];
}

const control = (channel: number, cc: number, value: number): Message => ({
  type: 'control',
  channel,
  cc,
  value: value & 127,
});

/** Codes of the rates of time code, as its last part carries them. */
const RATE_CODE = { 24: 0, 25: 1, 29.97: 2, 30: 3 } as const;

/** A time of time code as its eight quarter frames, the frames first and the hours with the rate last. */
function quarterFrames(t: Extract<WrittenMessage, { type: 'timecode' }>): Message[] {
  const parts = [t.frames, t.seconds, t.minutes, t.hours | (RATE_CODE[t.rate] << 5)];
  return parts.flatMap((value, i): Message[] => [
    { type: 'quarter-frame', piece: 2 * i, nibble: value & 15 },
    { type: 'quarter-frame', piece: 2 * i + 1, nibble: value >> 4 },
  ]);
}

/**
 * What a person wrote, as messages on the wire; `select` is how the receiver takes a bank, unless
 * the message says so itself.
 */
export function wireMessages(m: WrittenMessage, select: BankSelect): Message[] {
  switch (m.type) {
    case 'program': {
      const usual = select === 'none' && m.bank !== undefined ? 'both' : select;
      return programMessages(m.channel, m.number, m.bank, m.bankSelect ?? usual);
    }
    case 'control':
      return [control(m.channel, m.cc, m.value)];
    case 'fine':
      return [
        control(m.channel, m.cc, m.value >> 7),
        control(m.channel, m.cc + FINE_ABOVE, m.value),
      ];
    case 'nrpn':
      return [
        control(m.channel, NRPN.msb, m.parameter >> 7),
        control(m.channel, NRPN.lsb, m.parameter),
        control(m.channel, NRPN.valueMsb, m.value >> 7),
        control(m.channel, NRPN.valueLsb, m.value),
      ];
    case 'note-on':
      return [{ type: 'note-on', channel: m.channel, note: m.note, velocity: m.velocity }];
    case 'note-off':
      return [{ type: 'note-off', channel: m.channel, note: m.note }];
    case 'bend':
      return [{ type: 'bend', channel: m.channel, bend: m.bend }];
    case 'pressure':
      return [{ type: 'pressure', channel: m.channel, pressure: m.pressure }];
    case 'position':
      return [{ type: 'position', sixteenths: m.sixteenths }];
    case 'exclusive':
      return [
        {
          type: 'exclusive',
          data: m.data
            .trim()
            .split(/\s+/)
            .map((b) => parseInt(b, 16)),
        },
      ];
    case 'timecode':
      return quarterFrames(m);
    default:
      return [{ type: m.type }];
  }
}
