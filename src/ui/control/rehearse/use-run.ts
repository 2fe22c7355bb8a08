'use client';
import { useMemo, useRef, useState } from 'react';
import { at as entryAt } from '../../../core/outcome';
import type { Song } from '../../../core/rig';
import {
  type Called,
  dueChanges,
  type Score,
  scorePractice,
  timelineOf,
} from '../../../core/songs';
import type { Due } from '../../../core/songs/practice';
import { useFrames } from '../../look/use-frames';
import { useDocument } from '../../store/use-rig';
import { type Beat } from './practice';

/** The beats of a song with its count-in, in ms from the first click; `one` marks the first of a bar. */
export function beatsOf(song: Song, countIn: number): { at: number; one: boolean; bar: number }[] {
  const line = timelineOf(song);
  const first = line.bars[0];
  if (!first) return [];
  const beats: { at: number; one: boolean; bar: number }[] = [];
  const put = (start: number, bar: number, count: number, ms: number) => {
    for (let i = 0; i < count; i++) beats.push({ at: start + i * ms, one: i === 0, bar });
  };
  const beat = (b: typeof first) => (60_000 / b.bpm) * (4 / b.meter.unit);
  const barMs = first.meter.beats * beat(first);
  for (let i = 0; i < countIn; i++) put(i * barMs, i - countIn + 1, first.meter.beats, beat(first));
  for (const b of line.bars) put(countIn * barMs + b.startMs, b.number, b.meter.beats, beat(b));
  return beats;
}

/** How long before a beat its click is handed to the audio clock, in ms. */
const AHEAD_MS = 60;

/** Clicks at the beats, once they are started; the browser's audio clock places each. */
function useClicks(beats: readonly Beat[]) {
  const sounding = useRef<{ audio: AudioContext; next: number } | null>(null);
  return {
    start: () => {
      if (typeof AudioContext !== 'undefined')
        sounding.current = { audio: new AudioContext(), next: 0 };
    },
    stop: () => {
      void sounding.current?.audio.close();
      sounding.current = null;
    },
    /** Sounds what is due `t` ms after the first. */
    sound: (t: number) => {
      const s = sounding.current;
      while (s && s.next < beats.length && entryAt(beats, s.next).at <= t + AHEAD_MS) {
        const beat = entryAt(beats, s.next++);
        clickAt(s.audio, s.audio.currentTime + Math.max(0, beat.at - t) / 1000, beat.one);
      }
    },
  };
}

/** One click at a time of the audio clock, in seconds; the first of a bar is higher. */
function clickAt(audio: AudioContext, when: number, isFirst: boolean): void {
  const [tone, gain] = [audio.createOscillator(), audio.createGain()];
  tone.frequency.value = isFirst ? 1600 : 1100;
  gain.gain.setValueAtTime(0.2, when);
  gain.gain.exponentialRampToValueAtTime(0.001, when + 0.05);
  tone.connect(gain).connect(audio.destination);
  tone.start(when);
  tone.stop(when + 0.06);
}

/** A song that runs: how far it is, what was pressed when, and the score once it has stopped. */
export function useRun(song: Song, countIn: number, click: boolean) {
  const rig = useDocument();
  const score = useMemo(() => dueChanges(rig, song, countIn), [rig, song, countIn]);
  const beats = useMemo(() => beatsOf(song, countIn), [song, countIn]);
  const clicks = useClicks(beats);
  const [running, setRunning] = useState<{ from: number } | null>(null);
  const [at, setAt] = useState(0);
  const [result, setResult] = useState<Score | null>(null);
  const presses = useRef<Called[]>([]);
  const stop = () => {
    setRunning(null);
    clicks.stop();
    setResult(scorePractice(score.due, presses.current));
  };
  const start = () => {
    presses.current = [];
    setResult(null);
    setAt(0);
    if (click) clicks.start();
    setRunning({ from: performance.now() });
  };
  useFrames(running !== null, () => {
    if (!running) return;
    const t = performance.now() - running.from;
    setAt(t);
    clicks.sound(t);
    if (t > score.lengthMs) stop();
  });
  /** Notes a press; how far off it was from the nearest change that it could be. */
  const press = (scene: string): { late: number; due: Due } | undefined => {
    const t = performance.now() - (running?.from ?? 0);
    presses.current.push({ atMs: t, scene });
    const [near] = score.due
      .filter((d) => d.scene === scene)
      .sort((a, b) => Math.abs(a.atMs - t) - Math.abs(b.atMs - t));
    return near && { late: t - near.atMs, due: near };
  };
  return { ...score, beats, running, at, result, start, stop, press };
}
