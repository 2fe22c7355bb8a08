import type { Meter, Section, Song } from '../rig/schema';
import { quarterMs } from './tempo';

export const COMMON_TIME: Meter = { beats: 4, unit: 4 };
export const meterWords = (m: Meter = COMMON_TIME): string => `${m.beats}/${m.unit}`;

/** Quarter notes in a bar. */
export const quartersIn = (m: Meter): number => (m.beats * 4) / m.unit;

/** One bar of a song: its number from 1, the section it is in, when it begins and how fast it is. */
export interface Bar {
  number: number;
  section: Section;
  inSection: number;
  startMs: number;
  quarters: number;
  meter: Meter;
  bpm: number;
}

/** A section as it is played. */
export interface Played {
  section: Section;
  bar: number;
  startMs: number;
  endMs: number;
  bpm: number;
  meter: Meter;
}

/**
 * A song in time: its bars, its sections, and how long it lasts. A tempo holds until the next
 * change, across sections; a meter until the section ends.
 */
export interface Timeline {
  bars: Bar[];
  sections: Played[];
  lengthMs: number;
}

const played = new WeakMap<Song, Timeline>();

/** A song played through. A tempo counts quarter notes, whatever the meter. */
export function timelineOf(song: Song): Timeline {
  let timeline = played.get(song);
  if (!timeline) played.set(song, (timeline = play(song)));
  return timeline;
}

function play(song: Song): Timeline {
  const bars: Bar[] = [];
  const sections: Played[] = [];
  let at = 0;
  let bpm = song.bpm;
  let number = 1;
  for (const section of song.sections) {
    const meter = section.meter ?? song.meter ?? COMMON_TIME;
    const start = { section, bar: number, startMs: at, meter };
    let first = bpm;
    for (let i = 1; i <= section.bars; i++) {
      bpm = section.tempos?.findLast((t) => t.bar === i)?.bpm ?? bpm;
      if (i === 1) first = bpm;
      const quarters = quartersIn(meter);
      bars.push({ number: number++, section, inSection: i, startMs: at, quarters, meter, bpm });
      at += quarters * quarterMs(bpm);
    }
    sections.push({ endMs: at, bpm: first, ...start });
  }
  return { bars, sections, lengthMs: at };
}

/** Every tempo that a song goes through, in order, without repeats next to one another. */
export function temposOf(song: Song): { bar: number; bpm: number }[] {
  const found: { bar: number; bpm: number }[] = [];
  for (const b of timelineOf(song).bars)
    if (found.at(-1)?.bpm !== b.bpm) found.push({ bar: b.number, bpm: b.bpm });
  return found.length ? found : [{ bar: 1, bpm: song.bpm }];
}

/** Minutes and seconds: "3:05". */
export function clockTime(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
