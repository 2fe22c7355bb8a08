import { hash } from 'ohash';
import * as z from 'zod';
import { idSchema } from '../../rig/id-schema';

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

export const LINE_SORTS = ['note', 'fault', 'repair', 'battery', 'tube', 'measured'] as const;
export type LineSort = (typeof LINE_SORTS)[number];

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
const RECORD_TYPES = Object.keys(RECORDS) as RecordType[];
export type RecordOf<T extends RecordType> = z.infer<(typeof RECORDS)[T]> & { id: string };
export type Show = RecordOf<'show'>;
export type Line = RecordOf<'line'>;
export type Tick = RecordOf<'tick'>;
export type Odds = RecordOf<'odds'>;
export type CareSet = RecordOf<'care'>;
export type Scored = RecordOf<'score'>;

/** A record that nobody has filled in yet. */
export const EMPTY: { [T in RecordType]: Omit<RecordOf<T>, 'id'> } = {
  show: {
    date: '2000-01-01',
    venue: '',
    country: '',
    volts: null,
    set: '',
    crew: '',
    doors: '',
    curtain: '',
    minutes: {},
    notes: '',
    gone: false,
  },
  line: {
    at: '2000-01-01T00:00:00.000Z',
    text: '?',
    by: '',
    show: '',
    song: '',
    sort: 'note',
    links: [],
    minutes: null,
    gone: false,
  },
  tick: {
    show: '',
    step: '',
    state: 'open',
    by: '',
    at: '2000-01-01T00:00:00.000Z',
    note: '',
  },
  odds: { fault: '', perThousand: null },
  care: { device: '', care: '', every: null },
  score: { at: '2000-01-01T00:00:00.000Z', points: 0, difficulty: '', by: '' },
};

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

/** A book in which a list stands for each sort of record. */
export const bookBy = (list: <T extends RecordType>(is: T) => RecordOf<T>[]): Book =>
  Object.fromEntries(RECORD_TYPES.map((is) => [is, list(is)])) as unknown as Book;
export const EMPTY_BOOK: Book = bookBy(() => []);

/** A field that two people changed otherwise. */
export interface Differs {
  is: RecordType;
  id: string;
  field: string;
  theirs: unknown;
  yours: unknown;
}

/** What is no list of its own to be lost: of two who set it otherwise the last counts. */
const LAST_COUNTS: readonly RecordType[] = ['tick', 'odds', 'care', 'score'];

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * A record after a change. A field that nobody else touched takes the new value; one that somebody
 * else changed to something other stays as theirs and is told, but for ticks, odds, care and
 * scores, of which the last counts. `problems` says what cannot stand; then nothing is taken.
 */
export function changed<T extends RecordType>(
  is: T,
  before: RecordOf<T> | undefined,
  change: Change,
): { record?: RecordOf<T>; differs: Differs[]; problems: string[] } {
  const base: Record<string, unknown> = { ...EMPTY[is], ...before, id: change.id };
  const differs: Differs[] = [];
  for (const [field, { was, now }] of Object.entries(change.fields)) {
    if (!Object.hasOwn(EMPTY[is], field)) continue;
    const theirs = base[field];
    const free = !before || LAST_COUNTS.includes(is) || same(theirs, was) || same(theirs, now);
    if (free) base[field] = now;
    else differs.push({ is, id: change.id, field, theirs, yours: now });
  }
  const read = RECORDS[is].safeParse(base);
  return read.success
    ? { record: { ...read.data, id: change.id } as unknown as RecordOf<T>, differs, problems: [] }
    : {
        differs,
        problems: read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`),
      };
}

/** A book with changes made to it, as far as they can be; what could not be is left out. */
export function withChanges(book: Book, changes: readonly Change[]): Book {
  const next = bookBy((is) => [...(book[is] as RecordOf<typeof is>[])]);
  const put = <T extends RecordType>(is: T, change: Change) => {
    const list = next[is] as unknown as RecordOf<T>[];
    const at = list.findIndex((r) => r.id === change.id);
    const { record } = changed(is, list[at], change);
    if (!record) return;
    if (at < 0) list.push(record);
    else list[at] = record;
  };
  for (const c of changes) put(c.is, c);
  return next;
}

/** The change that makes a record what it should be. */
export function changeTo<T extends RecordType>(
  is: T,
  id: string,
  before: RecordOf<T> | undefined,
  fields: Partial<RecordOf<T>>,
): Change {
  const was: Record<string, unknown> = { ...EMPTY[is], ...before };
  return {
    is,
    id,
    fields: Object.fromEntries(
      Object.entries(fields)
        .filter(([field, now]) => field !== 'id' && !(before && same(was[field], now)))
        .map(([field, now]: [string, unknown]) => [field, { was: was[field] ?? null, now }]),
    ),
  };
}

/** The id of what was set for a fault of a rig. */
export const oddsId = (rig: string, fault: string): string => `o${hash([rig, fault])}`.slice(0, 60);

/** The id of a tick: one for each step of a show, so that two people who tick it tick one thing. */
export const tickId = (show: string, step: string): string => `t${hash([show, step])}`.slice(0, 60);

/** One way of care of one device of a rig, how often it is due. */
export const careId = (rig: string, device: string, care: string): string =>
  `c${hash([rig, device, care])}`.slice(0, 60);
