import type { Rig } from '../rig/schema';
import {
  type Change,
  changeTo,
  EMPTY_BOOK,
  type Line,
  linksIn,
  type Show,
  sortOf,
  withChanges,
} from './book';

const DAY_MS = 86_400_000;
const dayFrom = (today: string, days: number): string =>
  new Date(Date.parse(today) + days * DAY_MS).toISOString().slice(0, 10);

/** A show of the made-up run: days from today, venue, country, set, doors, curtain. */
type Date1 = [
  days: number,
  venue: string,
  country: string,
  set: string,
  doors: string,
  curtain: string,
];

const RUN: Date1[] = [
  [-24, 'Salt warehouse, north bay', 'GB', 'warehouse', '19:00', '20:30'],
  [-20, 'Car ferry, first crossing', 'NO', 'ferry', '16:30', '17:15'],
  [-17, 'Rope factory', 'DE', 'warehouse', '19:00', '20:30'],
  [-13, 'Decommissioned observatory', 'DE', 'warehouse', '19:30', '21:00'],
  [-9, 'Grain silo', 'FR', 'warehouse', '19:00', '20:30'],
  [-4, 'Car ferry, second crossing', 'FR', 'ferry', '16:30', '17:15'],
  [3, 'Salt warehouse, south bay', 'GB', 'warehouse', '19:00', '20:30'],
  [7, 'Ice house', 'US', 'warehouse', '18:30', '20:00'],
  [8, 'Lighthouse yard', 'US', 'ferry', '17:00', '18:00'],
  [15, 'Dry dock hall', 'JP', 'warehouse', '18:00', '19:30'],
];

/** A line of the logbook: the show it was at, hours after curtain, words, minutes that it took. */
type Line1 = [show: number, hours: number, words: string, minutes?: number];

const LINES: Line1[] = [
  [0, 0.3, 'Kiln Drive crackles when trodden on'],
  [0, 3, 'cleaned the switch of Kiln Drive, quiet again', 15],
  [1, 0.2, 'l05 cuts out when the lid touches it', 4],
  [1, 2, 'replaced l05 with the spare, old one in the bin', 5],
  [2, -4, 'fresh battery in the Radio pack'],
  [2, 0.6, 'Radio pack dropped out for a bar behind the pillar', 1],
  [3, 0.4, 'Kiln Drive crackles again in Salt Ledger', 2],
  [3, -5, 'measured latency of Gangway Echo, 1.9 ms'],
  [4, 0.1, 'Stage head silent, standby left on', 3],
  [4, -3, 'new tubes in Stage head, bias set by the workshop'],
  [5, -2, 'mains on the ferry reads 219 V, steady'],
  [5, 0.5, 'l01 loose at the belt pack', 6],
];

/**
 * What the crew of a demo rig wrote down so far: six shows behind and four ahead of a day, and lines of
 * the logbook. Nothing for a rig without sets.
 */
export function demoBook(rig: Rig, today: string): Change[] {
  if (!rig.sets?.some((s) => s.id === 'warehouse')) return [];
  const shows = RUN.map(([days, venue, country, set, doors, curtain], i) =>
    changeTo<'show'>('show', `demo-show-${i + 1}`, undefined, {
      date: dayFrom(today, days),
      venue,
      country,
      set,
      doors,
      curtain,
      crew: 'Odd, Wilhelmina',
      volts: days < 0 ? 231 - i : null,
    } satisfies Partial<Show>),
  );
  const known = withChanges(EMPTY_BOOK, shows).show;
  const lines = LINES.map(([show, hours, text, minutes], i) => {
    const at = known[show];
    const moment = Date.parse(`${at?.date ?? today}T20:30:00Z`) + hours * 3_600_000;
    return changeTo<'line'>('line', `demo-line-${i + 1}`, undefined, {
      at: new Date(moment).toISOString(),
      text,
      by: i % 3 ? 'Odd' : 'Wilhelmina',
      show: at?.id ?? '',
      sort: sortOf(text),
      links: linksIn(rig, text),
      minutes: minutes ?? null,
    } satisfies Partial<Line>);
  });
  return [...shows, ...lines];
}
