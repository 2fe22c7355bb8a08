import * as z from 'zod';
import { BANK_SELECTS, SOCKETS, THRUS } from '../kinds/kind';
import { idSchema } from './id-schema';

const channel = z.number().int().min(1).max(16);
const seven = z.number().int().min(0).max(127);
const fourteen = z.number().int().min(0).max(16383);

/**
 * What a setting can be moved by: a control change of 7 bits; one of 14 bits (a control of 0 to 31 and
 * the one 32 above it); a parameter that is not registered (NRPN); a note; pitch bend; pressure.
 */
export const RECEPTIONS = ['control', 'fine', 'nrpn', 'note', 'bend', 'pressure'] as const;

/** How one device is set up for MIDI; what is left out is as usual for its kind. */
export const midiSchema = z.looseObject({
  /** The channel it listens on, 1 to 16, or all. */
  channel: z.union([channel, z.literal('all')]).optional(),
  thru: z.enum(THRUS).optional(),
  /** The sockets of its MIDI jacks, where they are not as usual for its kind. */
  socket: z.enum(SOCKETS).optional(),
  /** Whether it leads with clock, follows it, or does neither. */
  clock: z.enum(['send', 'follow', 'ignore']).optional(),
  /** How its screen counts. */
  shows: z
    .looseObject({
      from: z.union([z.literal(0), z.literal(1)]),
      size: z.number().int().min(1).max(128).optional(),
      slots: z.enum(['letters', 'numbers']).optional(),
      banksFrom: z.union([z.literal(0), z.literal(1)]).optional(),
    })
    .optional(),
  bankSelect: z.enum(BANK_SELECTS).optional(),
  /** What its programs are called on it. */
  names: z
    .array(
      z.looseObject({
        bank: z.number().int().min(0).max(16383).optional(),
        number: seven,
        name: z.string().trim().min(1, 'give the program a name').max(60),
      }),
    )
    .max(2048, 'a device has at most 2048 names of programs')
    .optional(),
  /** Whether it takes programs and control changes at all. */
  programs: z.boolean().optional(),
  /** Whether it tells back what was changed on it. */
  reports: z.boolean().optional(),
  /** The device that sends it its messages; left out, the nearest one that can. */
  commander: idSchema.optional(),
  /** Sends a repeated status byte once only. */
  runningStatus: z.boolean().optional(),
  /** Which control changes move what; `device` names a block inside. Left out, the kind's own. */
  controls: z
    .array(
      z.looseObject({
        setting: idSchema,
        device: idSchema.optional(),
        /** Which control, parameter or note. */
        cc: fourteen,
        way: z.enum(['absolute', 'toggle']),
        as: z.enum(RECEPTIONS).optional(),
      }),
    )
    .max(128)
    .optional(),
});

/** Bytes of a system exclusive message as a person types them, without the F0 and F7 around them. */
const exclusive = z
  .string()
  .trim()
  .regex(
    /^[0-7][0-9A-Fa-f](\s+[0-7][0-9A-Fa-f]){0,255}$/,
    'write bytes of 00 to 7F, such as 7D 10 01; the F0 before them and the F7 behind are sent by themselves',
  );

/** Frames a second of time code. */
export const TIMECODE_RATES = [24, 25, 29.97, 30] as const;

/**
 * One message as a person writes it. Channels are 1 to 16, numbers as on the wire. A bank is sent
 * as the receiver takes it; a parameter, a control of 14 bits and a time of time code go out as the
 * several messages that they are on the wire. Positions count sixteenth notes from the start.
 */
export const messageSchema = z.discriminatedUnion('type', [
  z.looseObject({
    type: z.literal('program'),
    channel,
    number: seven,
    bank: z.number().int().min(0).max(16383).optional(),
    bankSelect: z.enum(BANK_SELECTS).optional(),
  }),
  z.looseObject({ type: z.literal('control'), channel, cc: seven, value: seven }),
  z.looseObject({
    type: z.literal('fine'),
    channel,
    cc: z.number().int().min(0).max(31),
    value: fourteen,
  }),
  z.looseObject({ type: z.literal('nrpn'), channel, parameter: fourteen, value: fourteen }),
  z.looseObject({
    type: z.literal('note-on'),
    channel,
    note: seven,
    velocity: z.number().int().min(1).max(127),
  }),
  z.looseObject({ type: z.literal('note-off'), channel, note: seven }),
  z.looseObject({
    type: z.literal('bend'),
    channel,
    bend: z.number().int().min(-8192).max(8191),
  }),
  z.looseObject({ type: z.literal('pressure'), channel, pressure: seven }),
  z.looseObject({ type: z.literal('start') }),
  z.looseObject({ type: z.literal('stop') }),
  z.looseObject({ type: z.literal('continue') }),
  z.looseObject({ type: z.literal('position'), sixteenths: fourteen }),
  z.looseObject({ type: z.literal('exclusive'), data: exclusive }),
  z.looseObject({
    type: z.literal('timecode'),
    hours: z.number().int().min(0).max(23),
    minutes: z.number().int().min(0).max(59),
    seconds: z.number().int().min(0).max(59),
    frames: z.number().int().min(0).max(29),
    rate: z.union([z.literal(24), z.literal(25), z.literal(29.97), z.literal(30)]),
  }),
]);

/** What a foot does to a switch that can send a message; press where a message says nothing. */
export const SEND_WHEN = ['press', 'release', 'long'] as const;

/** A message that a sender gives when a sound is called. `to` says whom it is meant for. */
export const sendSchema = z.looseObject({
  from: idSchema,
  to: idSchema.optional(),
  message: messageSchema,
  /** How long after the one before it in the list it goes out, in ms; at once where it is left out. */
  waitMs: z.number().min(0).max(60_000).optional(),
  /** How often it goes out, each time after its wait; once where it is left out. */
  times: z.number().int().min(1).max(20).optional(),
  /**
   * What the foot does that sends it: puts the switch down, lets it up, or holds it down for long. A
   * switch that is momentary sends one message on press and one on release.
   */
  when: z.enum(SEND_WHEN).optional(),
});

/**
 * How a device's time is set for a song: stored in a program, by clock, or tapped; and which note
 * value it plays.
 */
export const tempoSchema = z.looseObject({
  way: z.enum(['program', 'clock', 'tap']),
  division: z.string().min(1).max(30).optional(),
  /** Note values of the further times of one box, by the setting of each. */
  more: z.record(idSchema, z.string().min(1).max(30)).optional(),
});

/** What a control jack is set to expect, where that is not usual for its kind. */
export const expectsSchema = z.looseObject({
  wiper: z.enum(['tip', 'ring']).optional(),
  action: z.enum(['momentary', 'latching', 'any']).optional(),
  contact: z.enum(['open', 'closed', 'any']).optional(),
  /** Contacts that it reads: 2 where the ring has one of its own. */
  contacts: z.union([z.literal(1), z.literal(2)]).optional(),
});

export type MidiSetup = z.infer<typeof midiSchema>;
export type WrittenMessage = z.infer<typeof messageSchema>;
export type Send = z.infer<typeof sendSchema>;
export type TempoSetup = z.infer<typeof tempoSchema>;
export type Expects = z.infer<typeof expectsSchema>;
