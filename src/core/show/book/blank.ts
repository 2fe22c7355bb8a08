import { hash } from 'ohash';
import type { Book, Change, RecordOf, RecordType } from './records';

/** What a line of the logbook may be. */
export const LINE_SORTS = ['note', 'fault', 'repair', 'battery', 'tube', 'measured'] as const;
export type LineSort = (typeof LINE_SORTS)[number];

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
export const RECORD_TYPES = Object.keys(EMPTY) as RecordType[];

/** A book in which a list stands for each sort of record. */
export const bookBy = (list: <T extends RecordType>(is: T) => RecordOf<T>[]): Book =>
  Object.fromEntries(RECORD_TYPES.map((is) => [is, list(is)])) as unknown as Book;
export const EMPTY_BOOK: Book = bookBy(() => []);

/** Whether a field holds the same. */
export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

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
