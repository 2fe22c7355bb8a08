import { sectionScene } from '../../../core/control/scene';
import { delayTimes, runningOrder, type SetLine, tempoDevices } from '../../../core/songs';
import { timelineOf } from '../../../core/songs/timeline';
import { pressesBetween } from '../../../core/midi';
import type { Rig, Section, Song, SongSet } from '../../../core/rig';
import { nameOf } from '../../../core/rig';
import { effectiveSound } from '../../../core/control';
import { fixed } from '../../../core/units';

/** One place of a set: a gap before a song, or a section of it. */
export interface Stop {
  line: SetLine;
  song: Song | undefined;
  section?: Section;
  /** Where the set stands here, in seconds from its start. */
  at: number;
  seconds: number;
  bars: number;
}

/** All places of a set in the order they are played: the gap before each song, then its sections. */
export function stopsOf(rig: Rig, set: SongSet): Stop[] {
  return runningOrder(rig, set).lines.flatMap((line): Stop[] => {
    const { song } = line;
    const gap: Stop = {
      line,
      song,
      at: line.startsAt - line.changeover.seconds,
      seconds: line.changeover.seconds,
      bars: 0,
    };
    const sections = song ? timelineOf(song).sections : [];
    return [
      gap,
      ...sections.map(({ section, startMs, endMs }): Stop => ({
        line,
        song,
        section,
        at: line.startsAt + startMs / 1000,
        seconds: (endMs - startMs) / 1000,
        bars: section.bars,
      })),
    ];
  });
}

/** What a foot does to come from one place to the next, in words. */
export function pressesTo(rig: Rig, from: Stop | undefined, to: Stop | undefined): string[] {
  const sound = (s: Stop | undefined) =>
    s?.song && s.section && sectionScene(rig, s.song, s.section.id)?.sound;
  const [a, b] = [sound(from), sound(to)];
  if (!b) return [];
  const before = a ?? rig.sounds[0];
  if (!before) return [];
  const { presses, turns } = pressesBetween(
    rig,
    effectiveSound(rig, before),
    effectiveSound(rig, b),
  );
  return [...presses, ...turns].map((p) => `${nameOf(rig, p.device)}: ${p.changes.join(', ')}`);
}

/** Times of delays in a section: "Gangway Echo 375 ms". */
export function delaysIn(rig: Rig, stop: Stop | undefined): string[] {
  const { song, section } = stop ?? {};
  if (!song || !section) return [];
  return tempoDevices(rig).flatMap((device) =>
    delayTimes(rig, song, device)
      .filter((t) => t.sections.includes(section.id) && t.is === 'delay')
      .slice(0, 1)
      .map((t) => `${device.name} ${fixed(t.wanted)} ms`),
  );
}
