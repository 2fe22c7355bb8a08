import type { SettingValue } from '../kinds';
import type { Scene } from '../control/scene';
import { fromSevenBits, hears, type Orders } from './commands';
import { BANK, type Message, type MessageOf, type MessageType } from './message';
import type { MidiDevice } from './setup';
import type { Effect, Memory, Standing } from './stand-in';

/** A message as a Standard MIDI File holds it, but for its time. */
export type FileEvent =
  | { type: 'programChange'; channel: number; programNumber: number }
  | { type: 'controller'; channel: number; controllerType: number; value: number };

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

/** Start, stop, continue and clock: one byte, for everybody, and nothing that a stand-in keeps. */
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
  isTaken: () => false,
  take: () => NOTHING,
});

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
  isTaken: (m, device) => hears(device, m.channel) && device.mapped.some((c) => c.cc === m.cc),
  take: (m, receiver) => {
    const { orders, device, standing } = receiver;
    const bank = bankTold(m, receiver);
    if (bank !== undefined) {
      standing.bank = bank;
      return { what: 'bank', bank };
    }
    const mapped = device.mapped.find((x) => x.cc === m.cc);
    const toggled = mapped?.way === 'toggle';
    // A switch that is turned over by each message takes the press and not its release.
    if (!mapped || (toggled && m.value < 64)) return NOTHING;
    const setting = `${mapped.device} ${mapped.setting}`;
    const value: SettingValue = toggled
      ? standing.values.get(setting) !== true
      : fromSevenBits(orders.rig, mapped, m.value);
    standing.values = new Map(standing.values).set(setting, value);
    return { what: 'control', setting, value, toggled };
  },
};

/**
 * Every sort of message. One more is its shape in `message.ts` and its entry here; nothing compiles
 * without it.
 */
export const MESSAGE_SORTS: { [T in MessageType]: MessageSort<MessageOf<T>> } = {
  program,
  control,
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
