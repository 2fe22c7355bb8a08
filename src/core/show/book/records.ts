import * as z from 'zod';
import { idSchema } from '../../rig/id-schema';
import { LINE_SORTS, RECORD_TYPES } from './blank';

/** What the crew writes down beside the rig: shows, lines of the logbook, ticks of the line check. */
const text = (most: number) => z.string().max(most);
const time = z
  .string()
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'write a time as 18:30')
  .or(z.literal(''));

/** What a line of the logbook is about. */
export const linkSchema = z.object({
  is: z.enum(['device', 'lead', 'song', 'sound', 'fault']),
  id: z.string().min(1).max(120),
  name: text(200),
  /** The serial number of the unit, where the rig knows one: by it a unit is known in other rigs. */
  serial: text(120).optional(),
});
export type Link = z.infer<typeof linkSchema>;

/** Fields of each record, and what each may hold. Times of day are those of the place. */
export const RECORDS = {
  show: z.object({
    date: z.iso.date('write a date as 2026-11-27'),
    venue: text(120),
    country: z.string().regex(/^([A-Z]{2})?$/, 'two capital letters'),
    volts: z.number().min(50).max(500).nullable(),
    set: text(64),
    crew: text(400),
    doors: time,
    curtain: time,
    minutes: z.record(z.string().max(40), z.number().min(0).max(1440)),
    notes: text(4000),
    gone: z.boolean(),
  }),
  line: z.object({
    at: z.iso.datetime(),
    text: z.string().trim().min(1, 'write something').max(1000),
    by: text(60),
    show: text(64),
    song: text(64),
    sort: z.enum(LINE_SORTS),
    links: z.array(linkSchema).max(40),
    minutes: z.number().min(0).max(1440).nullable(),
    gone: z.boolean(),
  }),
  tick: z.object({
    show: text(64),
    step: text(200),
    state: z.enum(['done', 'failed', 'open']),
    by: text(60),
    at: z.iso.datetime(),
    note: text(400),
  }),
  odds: z.object({
    fault: text(200),
    perThousand: z.number().min(0).max(1000).nullable(),
  }),
  /** How often one sort of care is due for one device here; nothing, as is usual. */
  care: z.object({
    device: text(120),
    care: text(40),
    every: z.number().positive().max(10_000).nullable(),
  }),
  /** How one case of the trainer went. */
  score: z.object({
    at: z.iso.datetime(),
    points: z.number().min(0).max(100),
    difficulty: text(20),
    by: text(60),
  }),
} as const;
export type RecordType = keyof typeof RECORDS;
export type RecordOf<T extends RecordType> = z.infer<(typeof RECORDS)[T]> & { id: string };
export type Show = RecordOf<'show'>;
export type Line = RecordOf<'line'>;
export type Tick = RecordOf<'tick'>;
export type Odds = RecordOf<'odds'>;
export type CareSet = RecordOf<'care'>;
export type Scored = RecordOf<'score'>;

/**
 * One change that somebody made: fields of one record, each with what it was and what it is now. It
 * may arrive late, twice, or beside a change of somebody else; what they changed both is kept as both
 * left it only where they agree.
 */
export const changeSchema = z.object({
  is: z.enum(RECORD_TYPES),
  id: idSchema,
  fields: z.record(z.string().max(40), z.object({ was: z.unknown(), now: z.unknown() })),
});
export type Change = z.infer<typeof changeSchema>;

/** All that is written down beside one rig. */
export type Book = { [T in RecordType]: RecordOf<T>[] };

/** A field that two people changed otherwise. */
export interface Differs {
  is: RecordType;
  id: string;
  field: string;
  theirs: unknown;
  yours: unknown;
}
