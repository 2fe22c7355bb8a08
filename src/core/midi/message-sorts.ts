import type { SettingValue } from '../kinds';
import type { Scene } from '../control/scene';
import { fromCarried, hears, mostOf, type Orders } from './commands';
import {
  BANK,
  FINE_ABOVE,
  hex,
  type Message,
  type MessageOf,
  type MessageType,
  MOST_FINE,
  NRPN,
} from './message';
import type { Mapped, MidiDevice, Reception } from './setup';
import type { Effect, Memory, Standing } from './stand-in';
import { asSet } from '../units';

/** A message as a Standard MIDI File holds it, but for its time. */
export type FileEvent =
  | { type: 'programChange'; channel: number; programNumber: number }
  | { type: 'controller'; channel: number; controllerType: number; value: number }
  | { type: 'noteOn' | 'noteOff'; channel: number; noteNumber: number; velocity: number }
  | { type: 'pitchBend'; channel: number; value: number }
  | { type: 'channelAftertouch'; channel: number; amount: number }
  | { type: 'sysEx'; data: number[] };

/** From this status on a message is for everybody, whatever the channel. */
export const SYSTEM = 0xf0;

/** What a simulated device is when a message comes to it. */
export interface Receiver {
  orders: Orders;
  memory: Memory;
  device: MidiDevice;
  standing: Standing;
}

/** One sort of message, whole. */
export interface MessageSort<M> {
  /** Realtime messages are one byte and may go between the bytes of others. */
  isRealtime: boolean;
  /** Its bytes, status first. */
  bytes: (m: M) => number[];
  /** In words, numbers as on the wire. */
  words: (m: M) => string;
  /** What a table says of it: the number that it carries, and its value. */
  columns: (m: M) => { channel?: number; number?: number; value?: number };
  /** "Program 5", at the head of a sentence. */
  title: (m: M) => string;
  /** How a Standard MIDI File holds it; nothing where a file does not hold it. */
  event: (m: M) => FileEvent | undefined;
  /** Whether a device, as it is set up, does something with it. */
  isTaken: (m: M, device: MidiDevice) => boolean;
  /** What it does to a simulated device that hears it. */
  take: (m: M, receiver: Receiver) => Effect;
}

const NOTHING: Effect = { what: 'nothing' };

/** Start, stop, continue and clock: one byte, for everybody. Clock leaves nothing behind. */
const realtime = <T extends 'clock' | 'start' | 'stop' | 'continue'>(
  type: T,
  status: number,
): MessageSort<MessageOf<T>> => ({
  isRealtime: true,
  bytes: () => [status],
  words: () => type,
  columns: () => ({}),
  title: () => type.charAt(0).toUpperCase() + type.slice(1),
  event: () => undefined,
  isTaken: (_, device) => type !== 'clock' && device.clock === 'follow',
  take: (_, { device, standing }) => {
    if (type === 'clock' || device.clock !== 'follow') return NOTHING;
    if (type === 'start') standing.sixteenths = 0;
    standing.isRunning = type !== 'stop';
    return NOTHING;
  },
});

/** Where a song stands: for whoever follows clock and is stopped. */
const position: MessageSort<MessageOf<'position'>> = {
  isRealtime: false,
  bytes: (m) => [0xf2, m.sixteenths & 127, m.sixteenths >> 7],
  words: (m) => `song position ${m.sixteenths} (bar ${Math.floor(m.sixteenths / 16) + 1} of 4/4)`,
  columns: (m) => ({ value: m.sixteenths }),
  title: (m) => `Song position ${m.sixteenths}`,
  event: () => undefined,
  isTaken: (_, device) => device.clock === 'follow',
  take: (m, { device, standing }) => {
    if (device.clock === 'follow') standing.sixteenths = m.sixteenths;
    return NOTHING;
  },
};

/** System exclusive: what it means only its maker knows, so that a stand-in does nothing with it. */
const exclusive: MessageSort<MessageOf<'exclusive'>> = {
  isRealtime: false,
  bytes: (m) => [SYSTEM, ...m.data, 0xf7],
  words: (m) => `system exclusive, ${hex(m.data)}`,
  columns: () => ({}),
  title: (m) => `System exclusive of ${m.data.length} bytes`,
  event: (m) => ({ type: 'sysEx', data: [...m.data, 0xf7] }),
  isTaken: () => false,
  take: () => NOTHING,
};

/** A part of a time of time code. A file for a player holds no time code: its own time is that. */
const quarterFrame: MessageSort<MessageOf<'quarter-frame'>> = {
  isRealtime: false,
  bytes: (m) => [0xf1, (m.piece << 4) | m.nibble],
  words: (m) => `time code, part ${m.piece + 1} of 8 = ${m.nibble}`,
  columns: (m) => ({ number: m.piece, value: m.nibble }),
  title: () => 'Time code',
  event: () => undefined,
  isTaken: () => false,
  take: () => NOTHING,
};

/** What a device has on a number, moved by messages of a sort. */
const movedBy = (device: MidiDevice, as: Reception, number?: number): Mapped | undefined =>
  device.mapped.find((c) => c.as === as && (number === undefined || c.cc === number));

/** A setting that a message moves: to the value that it carries, or over where it turns it over. */
function moved(mapped: Mapped, value: number, { orders, standing }: Receiver): Effect {
  const toggled = mapped.way === 'toggle';
  // A switch that is turned over by each message takes the press and not its release.
  if (toggled && value <= mostOf(mapped) / 2) return NOTHING;
  const setting = `${mapped.device} ${mapped.setting}`;
  const now: SettingValue = toggled
    ? standing.values.get(setting) !== true
    : fromCarried(orders.rig, mapped, value);
  standing.values = new Map(standing.values).set(setting, now);
  return { what: 'control', setting, value: now, toggled };
}

const program: MessageSort<MessageOf<'program'>> = {
  isRealtime: false,
  bytes: (m) => [0xc0 | (m.channel - 1), m.number],
  words: (m) => `channel ${m.channel}, program ${m.number}`,
  columns: (m) => ({ channel: m.channel, number: m.number }),
  title: (m) => `Program ${m.number}`,
  event: (m) => ({ type: 'programChange', channel: m.channel - 1, programNumber: m.number }),
  isTaken: (m, device) => hears(device, m.channel) && device.programs,
  take: (m, { device, memory, standing }) => {
    if (!device.programs) return NOTHING;
    const bank = device.bank === 'none' ? 0 : standing.bank;
    const [held]: readonly Scene[] = memory.at(device.device.id, bank, m.number);
    // It goes there, whatever it finds: what it then holds nobody has said.
    standing.program = { bank, number: m.number };
    if (!held) return { what: 'unknown', bank, number: m.number };
    standing.values = memory.intent(held, device.device.id);
    return { what: 'program', bank, number: m.number, recalled: held };
  },
};

/** A bank that was told, where the device takes banks that way; nothing where it is an ordinary control. */
function bankTold(m: MessageOf<'control'>, { device, standing }: Receiver): number | undefined {
  if (!device.programs || device.bank === 'none') return undefined;
  if (m.cc === BANK.msb && device.bank !== 'lsb')
    return device.bank === 'both' ? (m.value << 7) | (standing.bank & 127) : m.value;
  if (m.cc === BANK.lsb && device.bank !== 'msb')
    return device.bank === 'both' ? (standing.bank & ~127) | m.value : m.value;
  return undefined;
}

/** What a device keeps of the upper half of a value of 14 bits, and the whole once the lower half comes. */
function half(receiver: Receiver, mapped: Mapped, part: 'upper' | 'lower', value: number): Effect {
  const { standing } = receiver;
  const key = `${mapped.as} ${mapped.cc}`;
  const upper = part === 'upper' ? value : (standing.halves?.get(key) ?? 0);
  if (part === 'upper') standing.halves = new Map(standing.halves).set(key, value);
  return moved(mapped, (upper << 7) | (part === 'upper' ? 0 : value), receiver);
}

/** A control change that is half of something of 14 bits which the device takes; nothing where it is not. */
function ofFourteen(m: MessageOf<'control'>, receiver: Receiver): Effect | undefined {
  const { device, standing } = receiver;
  const upper = movedBy(device, 'fine', m.cc);
  if (upper) return half(receiver, upper, 'upper', m.value);
  const lower = movedBy(device, 'fine', m.cc - FINE_ABOVE);
  if (lower) return half(receiver, lower, 'lower', m.value);
  if (!movedBy(device, 'nrpn')) return undefined;
  const chosen = standing.parameter ?? MOST_FINE;
  if (m.cc === NRPN.msb) standing.parameter = (m.value << 7) | (chosen & 127);
  else if (m.cc === NRPN.lsb) standing.parameter = (chosen & ~127) | m.value;
  else if (m.cc === NRPN.valueMsb || m.cc === NRPN.valueLsb) {
    const mapped = movedBy(device, 'nrpn', chosen);
    if (!mapped) return NOTHING;
    return half(receiver, mapped, m.cc === NRPN.valueMsb ? 'upper' : 'lower', m.value);
  } else return undefined;
  return NOTHING;
}

/** Whether a control change is part of something of 14 bits that a device takes. */
const isPart = (cc: number, device: MidiDevice): boolean =>
  movedBy(device, 'fine', cc) !== undefined ||
  movedBy(device, 'fine', cc - FINE_ABOVE) !== undefined ||
  (movedBy(device, 'nrpn') !== undefined && (Object.values(NRPN) as number[]).includes(cc));

const control: MessageSort<MessageOf<'control'>> = {
  isRealtime: false,
  bytes: (m) => [0xb0 | (m.channel - 1), m.cc, m.value],
  words: (m) => {
    const names: Record<number, string> = {
      [BANK.msb]: 'bank select MSB',
      [BANK.lsb]: 'bank select LSB',
    };
    return `channel ${m.channel}, ${names[m.cc] ?? `control ${m.cc}`} = ${m.value}`;
  },
  columns: (m) => ({ channel: m.channel, number: m.cc, value: m.value }),
  title: (m) => `Control ${m.cc}`,
  event: (m) => ({
    type: 'controller',
    channel: m.channel - 1,
    controllerType: m.cc,
    value: m.value,
  }),
  isTaken: (m, device) =>
    hears(device, m.channel) &&
    (movedBy(device, 'control', m.cc) !== undefined || isPart(m.cc, device)),
  take: (m, receiver) => {
    const bank = bankTold(m, receiver);
    if (bank !== undefined) {
      receiver.standing.bank = bank;
      return { what: 'bank', bank };
    }
    const part = ofFourteen(m, receiver);
    if (part) return part;
    const mapped = movedBy(receiver.device, 'control', m.cc);
    return mapped ? moved(mapped, m.value, receiver) : NOTHING;
  },
};

const NOTES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];
/** A note by name: 60 is C4, as most sheets count. */
export const noteName = (note: number): string =>
  `${NOTES[note % 12] ?? ''}${Math.floor(note / 12) - 1}`;

/** A note pressed or let go: a switch that it moves stands as long as it is held, or is turned over. */
const note = <T extends 'note-on' | 'note-off'>(
  type: T,
  velocityOf: (m: MessageOf<T>) => number,
): MessageSort<MessageOf<T>> => {
  const status = type === 'note-on' ? 0x90 : 0x80;
  const verb = type === 'note-on' ? 'note' : 'end of note';
  return {
    isRealtime: false,
    bytes: (m) => [status | (m.channel - 1), m.note, velocityOf(m)],
    words: (m) =>
      `channel ${m.channel}, ${verb} ${noteName(m.note)} (${m.note})` +
      (type === 'note-on' ? `, velocity ${velocityOf(m)}` : ''),
    columns: (m) => ({ channel: m.channel, number: m.note, value: velocityOf(m) }),
    title: (m) => `${type === 'note-on' ? 'Note' : 'End of note'} ${noteName(m.note)}`,
    event: (m) => ({
      type: type === 'note-on' ? 'noteOn' : 'noteOff',
      channel: m.channel - 1,
      noteNumber: m.note,
      velocity: velocityOf(m),
    }),
    isTaken: (m, device) =>
      hears(device, m.channel) && movedBy(device, 'note', m.note) !== undefined,
    take: (m, receiver) => {
      const mapped = movedBy(receiver.device, 'note', m.note);
      return mapped ? moved(mapped, type === 'note-on' ? 127 : 0, receiver) : NOTHING;
    },
  };
};

/** No bend, as it is on the wire. */
const MIDDLE = (MOST_FINE + 1) / 2;

const bend: MessageSort<MessageOf<'bend'>> = {
  isRealtime: false,
  bytes: (m) => [0xe0 | (m.channel - 1), (m.bend + MIDDLE) & 127, (m.bend + MIDDLE) >> 7],
  words: (m) => `channel ${m.channel}, pitch bend ${asSet(m.bend, '')}`,
  columns: (m) => ({ channel: m.channel, value: m.bend }),
  title: (m) => `Pitch bend ${asSet(m.bend, '')}`,
  event: (m) => ({ type: 'pitchBend', channel: m.channel - 1, value: m.bend }),
  isTaken: (m, device) => hears(device, m.channel) && movedBy(device, 'bend') !== undefined,
  take: (m, receiver) => {
    const mapped = movedBy(receiver.device, 'bend');
    return mapped ? moved(mapped, m.bend + MIDDLE, receiver) : NOTHING;
  },
};

const pressure: MessageSort<MessageOf<'pressure'>> = {
  isRealtime: false,
  bytes: (m) => [0xd0 | (m.channel - 1), m.pressure],
  words: (m) => `channel ${m.channel}, pressure ${m.pressure}`,
  columns: (m) => ({ channel: m.channel, value: m.pressure }),
  title: (m) => `Pressure ${m.pressure}`,
  event: (m) => ({ type: 'channelAftertouch', channel: m.channel - 1, amount: m.pressure }),
  isTaken: (m, device) => hears(device, m.channel) && movedBy(device, 'pressure') !== undefined,
  take: (m, receiver) => {
    const mapped = movedBy(receiver.device, 'pressure');
    return mapped ? moved(mapped, m.pressure, receiver) : NOTHING;
  },
};

/**
 * Every sort of message. One more is its shape in `message.ts` and its entry here; nothing compiles
 * without it.
 */
export const MESSAGE_SORTS: { [T in MessageType]: MessageSort<MessageOf<T>> } = {
  program,
  control,
  'note-on': note('note-on', (m) => m.velocity),
  'note-off': note('note-off', () => 0),
  bend,
  pressure,
  position,
  exclusive,
  'quarter-frame': quarterFrame,
  clock: realtime('clock', 0xf8),
  start: realtime('start', 0xfa),
  continue: realtime('continue', 0xfb),
  stop: realtime('stop', 0xfc),
};

/** The sort of a message. */
export const sortOf = <M extends Message>(m: M): MessageSort<M> =>
  MESSAGE_SORTS[m.type] as unknown as MessageSort<M>;

export const bytesOf = (m: Message): number[] => sortOf(m).bytes(m);
export const isRealtime = (m: Message): boolean => sortOf(m).isRealtime;
export const messageWords = (m: Message): string => sortOf(m).words(m);
