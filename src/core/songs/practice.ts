import { at as entryAt } from '../outcome';
import type { Rig, Song } from '../rig/schema';
import { sectionScene } from '../control/scene';
import { quarterMs } from './tempo';
import { quartersIn, timelineOf } from './timeline';

/** A change that has to be played: at which time after the first click, and which scene. */
export interface Due {
  section: string;
  name: string;
  scene: string;
  sound: string;
  atMs: number;
  bar: number;
  beatMs: number;
}

/** Bars of click before the song. */
export const COUNT_IN_BARS = 2;

/**
 * Every change that a song asks for, in ms from the first click of its count-in; sections that call
 * what is on already ask for nothing.
 */
export function dueChanges(
  rig: Rig,
  song: Song,
  countIn = COUNT_IN_BARS,
): { due: Due[]; countInMs: number; lengthMs: number } {
  const line = timelineOf(song);
  const first = line.bars[0];
  const countInMs = first ? countIn * quartersIn(first.meter) * quarterMs(first.bpm) : 0;
  let on: string | undefined;
  const due = line.sections.flatMap((p): Due[] => {
    const scene = sectionScene(rig, song, p.section.id);
    if (!scene || scene.id === on) return [];
    const isFirst = on === undefined;
    on = scene.id;
    return isFirst
      ? []
      : [
          {
            section: p.section.id,
            name: p.section.name,
            scene: scene.id,
            sound: scene.sound.id,
            atMs: countInMs + p.startMs,
            bar: p.bar,
            beatMs: quarterMs(p.bpm),
          },
        ];
  });
  return { due, countInMs, lengthMs: countInMs + line.lengthMs };
}

/** One press of somebody who practises: when, in ms from the first click, and which scene it called. */
export interface Called {
  atMs: number;
  scene: string;
}

/** How one change went. `offMs` is below 0 where it was early. */
export interface Hit {
  due: Due;
  offMs: number | null;
  verdict: 'on time' | 'early' | 'late' | 'missed';
  wrong: number;
}

/** How a whole practice went. */
export interface Score {
  hits: Hit[];
  onTime: number;
  meanOffMs: number | null;
  meanAbsMs: number | null;
  wrong: number;
  percent: number;
}

/** A change within this share of a beat counts as on time. */
export const ON_TIME_BEATS = 0.125;

/**
 * Scores presses against the changes that were due. A press belongs to the nearest due change that
 * calls its scene, at most half way to the one before or behind; presses of other scenes count as
 * wrong at the change they were nearest to.
 */
export function scorePractice(due: readonly Due[], presses: readonly Called[]): Score {
  const left = [...presses].sort((a, b) => a.atMs - b.atMs);
  const hits = due.map((d, i): Hit => {
    const from = i === 0 ? -Infinity : (entryAt(due, i - 1).atMs + d.atMs) / 2;
    const to = i === due.length - 1 ? Infinity : (d.atMs + entryAt(due, i + 1).atMs) / 2;
    const near = left.filter((p) => p.atMs >= from && p.atMs < to);
    const best = near
      .filter((p) => p.scene === d.scene)
      .sort((a, b) => Math.abs(a.atMs - d.atMs) - Math.abs(b.atMs - d.atMs))[0];
    const wrong = near.filter((p) => p.scene !== d.scene).length;
    if (!best) return { due: d, offMs: null, verdict: 'missed', wrong };
    const offMs = best.atMs - d.atMs;
    return {
      due: d,
      offMs,
      wrong,
      verdict:
        Math.abs(offMs) <= d.beatMs * ON_TIME_BEATS ? 'on time' : offMs < 0 ? 'early' : 'late',
    };
  });
  const played = hits.flatMap((h) => (h.offMs === null ? [] : [h.offMs]));
  const mean = (list: number[]) =>
    list.length ? list.reduce((a, b) => a + b, 0) / list.length : null;
  const onTime = hits.filter((h) => h.verdict === 'on time' && h.wrong === 0).length;
  return {
    hits,
    onTime,
    meanOffMs: mean(played),
    meanAbsMs: mean(played.map(Math.abs)),
    wrong: hits.reduce((n, h) => n + h.wrong, 0),
    percent: due.length ? Math.round((100 * onTime) / due.length) : 100,
  };
}
