import { nameOf } from '../rig/find';
import type { Rig, SetEntry, Song, SongSet } from '../rig/schema';
import { timelineOf } from './timeline';

/** What has to be done before a song. */
export type ChangeoverKind = 'first' | 'plain' | 'retune' | 'instrument';

/**
 * Times of changeovers in seconds, typical: straight on, retuning the same instrument, another
 * instrument.
 */
export const CHANGEOVER_SECONDS = { plain: 8, retune: 60, instrument: 30 };

/**
 * One song of a set as it is played: when it begins, and what comes before it. Times in seconds
 * from the start of the set.
 */
export interface SetLine {
  entry: SetEntry;
  song?: Song;
  changeover: { kind: ChangeoverKind; words: string; seconds: number };
  startsAt: number;
  endsAt: number;
  clock?: string;
}

/** A set in time; `spareSeconds` is what is left of its length, less than 0 where it is too long. */
export interface RunningOrder {
  lines: SetLine[];
  seconds: number;
  musicSeconds: number;
  spareSeconds?: number;
  changes: { instrument: number; retune: number };
}

/** Time of day after so many seconds: "20:30" and 95 s is "20:31:35". */
export function clockAfter(starts: string, seconds: number): string {
  const [h, m] = starts.split(':').map(Number);
  const total = (h! * 3600 + m! * 60 + Math.round(seconds)) % 86_400;
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(total / 3600))}:${two(Math.floor(total / 60) % 60)}:${two(total % 60)}`;
}

/**
 * Plays a set through: an instrument change or a retune where one song and the next differ, with
 * the time it needs.
 */
export function runningOrder(rig: Rig, set: SongSet): RunningOrder {
  const times = { ...CHANGEOVER_SECONDS, ...set.times };
  const changes = { instrument: 0, retune: 0 };
  let at = 0;
  let music = 0;
  const standing = new Map<string, string>();
  let held: string | undefined;
  const lines = set.entries.map((entry, i): SetLine => {
    const song = rig.songs?.find((s) => s.id === entry.song);
    const instrument = song?.instrument ?? held;
    const tuning = song?.tuning?.trim() ?? '';
    const was = instrument === undefined ? undefined : standing.get(instrument);
    const retune =
      song !== undefined && was !== undefined && tuning !== '' && was !== '' && was !== tuning;
    const other = song?.instrument !== undefined && held !== undefined && song.instrument !== held;
    const kind: ChangeoverKind =
      i === 0 ? 'first' : other ? 'instrument' : retune ? 'retune' : 'plain';
    const need =
      i === 0 ? 0 : (other ? times.instrument : 0) + (retune ? times.retune : 0) || times.plain;
    if (i > 0 && other) changes.instrument++;
    if (i > 0 && retune) changes.retune++;
    const words =
      [
        i === 0
          ? instrument === undefined
            ? 'start'
            : `start on ${nameOf(rig, instrument)}`
          : other
            ? `change to ${nameOf(rig, song.instrument!)}`
            : '',
        retune
          ? `retune ${instrument === undefined ? '' : `${nameOf(rig, instrument)} `}to ${tuning}`
          : i === 0 && tuning
            ? `in ${tuning}`
            : '',
      ]
        .filter(Boolean)
        .join(', ') || 'straight on';
    if (instrument !== undefined && (tuning !== '' || !standing.has(instrument)))
      standing.set(instrument, tuning);
    held = instrument;
    const seconds = entry.gap ?? need;
    const startsAt = at + seconds;
    const length = song ? timelineOf(song).lengthMs / 1000 : 0;
    music += length;
    at = startsAt + length;
    return {
      entry,
      song,
      changeover: { kind, words, seconds },
      startsAt,
      endsAt: at,
      ...(set.starts && { clock: clockAfter(set.starts, startsAt) }),
    };
  });
  return {
    lines,
    seconds: at,
    musicSeconds: music,
    changes,
    ...(set.minutes !== undefined && { spareSeconds: set.minutes * 60 - at }),
  };
}
