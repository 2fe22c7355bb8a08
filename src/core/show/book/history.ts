import { type Job, kindOf } from '../../kinds';
import type { Device, Rig } from '../../rig/schema';
import { runningOrder } from '../../songs';
import type { Known } from '../finder/odds';
import type { LineSort } from './blank';
import type { Book, Line, Show } from './records';

/** Shows that were played before a moment, oldest first. */
export const playedBefore = (book: Book, today: string): Show[] =>
  book.show.filter((s) => !s.gone && s.date <= today).sort((a, b) => a.date.localeCompare(b.date));

/** What the logbook knows of odds: in how many shows each device and lead failed. */
export function knownOf(book: Book, today: string): Known {
  const failures: Record<string, number> = {};
  for (const line of book.line)
    if (!line.gone && line.sort === 'fault')
      for (const link of line.links)
        if (link.is === 'device' || link.is === 'lead')
          failures[link.id] = (failures[link.id] ?? 0) + 1;
  const set = Object.fromEntries(
    book.odds.flatMap((o) => (o.perThousand === null ? [] : [[o.fault, o.perThousand]])),
  ) as Record<string, number>;
  return { shows: playedBefore(book, today).length, failures, set };
}

/** What one device or lead has been through. */
export interface Past {
  id: string;
  name: string;
  failed: number;
  repaired: number;
  /** Minutes that its faults took, where somebody wrote them down. */
  minutes: number | null;
  last?: Line;
}

/** History by device and lead, what failed most first. */
export function pastOf(book: Book): Past[] {
  const by = new Map<string, Past>();
  const lines = book.line.filter((l) => !l.gone).sort((a, b) => a.at.localeCompare(b.at));
  for (const line of lines)
    for (const link of line.links) {
      if (link.is !== 'device' && link.is !== 'lead') continue;
      const past = by.get(link.id) ?? {
        id: link.id,
        name: link.name,
        failed: 0,
        repaired: 0,
        minutes: null,
      };
      if (line.sort === 'fault') {
        past.failed++;
        if (line.minutes !== null) past.minutes = (past.minutes ?? 0) + line.minutes;
      }
      if (line.sort === 'repair' || line.sort === 'tube' || line.sort === 'battery')
        past.repaired++;
      past.last = line;
      by.set(link.id, past);
    }
  return [...by.values()].sort((a, b) => b.failed - a.failed || a.name.localeCompare(b.name));
}

/**
 * What is done to gear from time to time, as is usual in the trade: what counts as done, and after how
 * many shows, hours of playing or months it is due again.
 */
interface Care {
  id: string;
  words: (name: string) => string;
  fits: (device: Device, job: Job) => boolean;
  done: LineSort;
  every: { shows: number } | { hours: number } | { months: number };
}
const CARES: readonly Care[] = [
  {
    id: 'battery',
    words: (n) => `fresh battery in ${n}`,
    fits: (d, job) =>
      job === 'wireless' || d.kind === 'guitar-active' || d.kind === 'supply-battery',
    done: 'battery',
    every: { shows: 1 },
  },
  {
    id: 'tubes',
    words: (n) => `output tubes of ${n}: look, measure, change`,
    fits: (d, job) => job === 'amp' && d.kind.includes('tube'),
    done: 'tube',
    every: { hours: 500 },
  },
  {
    id: 'strap',
    words: (n) => `strap, pins and output jack of ${n}`,
    // A voice, a mix and tracks hang on no strap.
    fits: (d, job) => job === 'instrument' && kindOf(d.kind).feed === undefined,
    done: 'repair',
    every: { months: 6 },
  },
];

/** Something that is due, or will be. `used` and `of` are in shows, hours or months. */
export interface Due {
  id: string;
  device: string;
  care: string;
  /** What a line of the logbook is that says it was done. */
  done: LineSort;
  words: string;
  used: number;
  of: number;
  /** What it is due after in the trade. */
  usual: number;
  unit: 'shows' | 'hours' | 'months';
  since: string | null;
  due: boolean;
}

const MONTH_DAYS = 30.4;
const USUAL_SHOW_HOURS = 1.5;
/** Hours that a rig is on around a show: build, line check, sound check. */
const AROUND_SHOW_HOURS = 2.5;

/** What care is due by a day, from the shows since it was last done; as often as the crew says, else as is usual. */
export function dueOf(rig: Rig, book: Book, today: string): Due[] {
  const shows = playedBefore(book, today);
  return rig.devices
    .flatMap((device) =>
      CARES.filter((c) => c.fits(device, kindOf(device.kind).job)).map((care): Due => {
        const last = book.line
          .filter(
            (l) =>
              !l.gone &&
              l.sort === care.done &&
              l.links.some((k) => k.is === 'device' && k.id === device.id),
          )
          .map((l) => l.at.slice(0, 10))
          .sort()
          .at(-1);
        const since = shows.filter((s) => last === undefined || s.date > last);
        const first = last ?? shows[0]?.date;
        const [unit, usual, used] =
          'shows' in care.every
            ? (['shows', care.every.shows, since.length] as const)
            : 'hours' in care.every
              ? (['hours', care.every.hours, hoursOf(rig, since)] as const)
              : (['months', care.every.months, first ? monthsFrom(first, today) : 0] as const);
        const set = book.care.find((c) => c.device === device.id && c.care === care.id)?.every;
        const of = set ?? usual;
        return {
          id: `${care.id} ${device.id}`,
          device: device.id,
          care: care.id,
          usual,
          done: care.done,
          words: care.words(device.name),
          used,
          of,
          unit,
          since: last ?? null,
          due: used >= of,
        };
      }),
    )
    .sort((a, b) => b.used / b.of - a.used / a.of);
}

const monthsFrom = (from: string, to: string): number =>
  Math.max(0, (Date.parse(to) - Date.parse(from)) / 86_400_000 / MONTH_DAYS);

/** Hours that the rig was on in some shows: the length of the set with the time around it. */
function hoursOf(rig: Rig, shows: readonly Show[]): number {
  return shows.reduce((sum, show) => {
    const set = rig.sets?.find((s) => s.id === show.set);
    const hours = set ? runningOrder(rig, set).seconds / 3600 : USUAL_SHOW_HOURS;
    return sum + hours + AROUND_SHOW_HOURS;
  }, 0);
}
