'use client';
import { Button, Group, NumberInput, Switch } from '@mantine/core';
import { type Dispatch, type SetStateAction, useMemo, useRef, useState } from 'react';
import type { Scene } from '../../../core/control/scene';
import type { Stage } from '../../../core/midi';
import { at as entryAt } from '../../../core/outcome';
import type { Song } from '../../../core/rig';
import {
  type Called,
  clockTime,
  COUNT_IN_BARS,
  dueChanges,
  ON_TIME_BEATS,
  type Score,
  scorePractice,
  sectionScene,
  timelineOf,
} from '../../../core/songs';
import type { Due } from '../../../core/songs/practice';
import type { Played } from '../../../core/songs/timeline';
import { fixed } from '../../../core/units';
import { useKeys } from '../../frame/use-keys';
import { useFrames } from '../../look/use-frames';
import { useDocument } from '../../store/use-rig';
import { PAD_KEYS } from './pad-keys';

/** The beats of a song with its count-in, in ms from the first click; `one` marks the first of a bar. */
function beatsOf(song: Song, countIn: number): { at: number; one: boolean; bar: number }[] {
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

type Beat = ReturnType<typeof beatsOf>[number];

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

/** The sounds that a song calls, each once, in the order of its sections. */
function usePads(song: Song): Scene[] {
  const rig = useDocument();
  return useMemo(
    () => [
      ...new Map(
        song.sections
          .map((s) => sectionScene(rig, song, s.id))
          .filter((s) => s !== undefined)
          .map((s) => [s.id, s]),
      ).values(),
    ],
    [rig, song],
  );
}

/** A song that runs: how far it is, what was pressed when, and the score once it has stopped. */
function useRun(song: Song, countIn: number, click: boolean) {
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
    const t = performance.now() - running!.from;
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

/**
 * A song's changes practised in time with feet or keys: count-in, bars, and how early or late each
 * change was called.
 */
export function Practice({ song, stage }: { song: Song; stage: Stage }) {
  const rig = useDocument();
  const [countIn, setCountIn] = useState(COUNT_IN_BARS);
  const [click, setClick] = useState(false);
  const [said, setSaid] = useState('');
  const run = useRun(song, countIn, click);
  const pads = usePads(song);
  const { running, stop, due, countInMs, at } = run;
  const name = (scene: Scene) =>
    rig.sounds.find((x) => x.id === scene.sound.id)?.name ?? scene.name;
  const start = () => {
    setSaid('');
    run.start();
  };
  const press = (i: number) => {
    const scene = pads[i];
    if (!running || !scene) return;
    const near = run.press(scene.id);
    setSaid(near ? pressWords(name(scene), near) : `${name(scene)} is not due`);
  };
  useKeys([
    [' ', () => (running ? stop() : start())],
    ...pads.slice(0, 9).map((_, i): [string, () => void] => [entryAt(PAD_KEYS, i), () => press(i)]),
  ]);
  const beat = run.beats.findLast((b) => b.at <= at);
  const coming = due.find((d) => d.atMs > at);
  return (
    <div className="rehearse" data-practice>
      <section>
        <PracticeHead {...{ running, stop, start, countIn, setCountIn, click, setClick }} />
        <Count
          {...{ running, beat, song, due, countInMs, coming, at }}
          lengthMs={run.lengthMs}
          beatNumber={beat ? run.beats.filter((b) => b.bar === beat.bar && b.at <= at).length : 0}
          section={timelineOf(song).sections.findLast((p) => countInMs + p.startMs <= at)}
        />
        <div className="pads">
          {pads.map((p, i) => (
            <button
              key={p.id}
              type="button"
              className="pad"
              data-pad={p.id}
              onClick={() => press(i)}
            >
              {i < 9 && <kbd>{PAD_KEYS[i]}</kbd>}
              {name(p)}
            </button>
          ))}
        </div>
        <p data-said>{said}</p>
        <p className="faint common-text-2">
          A change counts as on time within an eighth of a beat (
          {fixed((60_000 / song.bpm) * ON_TIME_BEATS, 0)} ms here). Play along with both hands: the
          keys are for the feet.{' '}
          {stage.orders.roots(pads[0] ?? entryAt(stage.orders.scenes, 0)).length === 0 &&
            'No sender calls these sounds yet; the presses are counted all the same.'}
        </p>
      </section>
      <Result {...{ due, running, coming, countInMs }} score={run.result} />
    </div>
  );
}

const pressWords = (name: string, { late, due }: { late: number; due: Due }): string =>
  `${name}: ${fixed(Math.abs(late), 0)} ms ${late < 0 ? 'early' : 'late'} for ${due.name}`;

/** The score once there is one; before that the changes that are due. */
function Result({
  score,
  due,
  running,
  coming,
  countInMs,
}: {
  score: Score | null;
  due: Due[];
  running: { from: number } | null;
  coming: Due | undefined;
  countInMs: number;
}) {
  return (
    <section>
      {score ? (
        <>
          <p
            role="status"
            className={`verdict ${score.percent === 100 ? 'right' : 'wrong'}`}
            data-score={score.percent}
          >
            <strong>
              {score.onTime} of {score.hits.length} on time
              {score.wrong
                ? `, ${score.wrong} wrong ${score.wrong === 1 ? 'press' : 'presses'}`
                : ''}
              .
            </strong>{' '}
            {score.meanAbsMs !== null &&
              `On average ${fixed(score.meanAbsMs, 0)} ms ` +
                `off, ${fixed(Math.abs(score.meanOffMs!), 0)} ` +
                `ms ${score.meanOffMs! < 0 ? 'early' : 'late'} on the whole.`}
          </p>
          <ScoreTable score={score} />
        </>
      ) : (
        <DueTable due={due} running={running} coming={coming} countInMs={countInMs} />
      )}
      {!due.length && (
        <div className="empty">
          This song calls one sound from beginning to end: there is nothing to change.
        </div>
      )}
    </section>
  );
}

/** The changes that the song asks for, in order. */
function DueTable({
  due,
  running,
  coming,
  countInMs,
}: {
  due: Due[];
  running: { from: number } | null;
  coming: Due | undefined;
  countInMs: number;
}) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="due">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Change</th>
          <th>To</th>
          <th>At</th>
        </tr>
      </thead>
      <tbody>
        {due.map((d) => (
          <tr key={d.section} aria-current={running !== null && coming === d}>
            <td>{d.bar}</td>
            <td>{d.name}</td>
            <td>{rig.sounds.find((s) => s.id === d.sound)?.name}</td>
            <td>{clockTime(d.atMs - countInMs)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Every change that was due, and how early or late it was called. */
function ScoreTable({ score }: { score: Score }) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="score">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Change</th>
          <th>To</th>
          <th>Off by</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {score.hits.map((h) => (
          <tr key={h.due.section} data-hit={h.due.section}>
            <td>{h.due.bar}</td>
            <td>{h.due.name}</td>
            <td>{rig.sounds.find((s) => s.id === h.due.sound)?.name}</td>
            <td>{h.offMs === null ? '–' : `${fixed(h.offMs, 0)} ms`}</td>
            <td>
              <strong>{h.verdict}</strong>
              {h.wrong ? `, ${h.wrong} wrong before` : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Bar and beat, the section that runs and the change that comes. */
function Count({
  running,
  beat,
  beatNumber,
  song,
  due,
  lengthMs,
  countInMs,
  section,
  coming,
  at,
}: {
  running: { from: number } | null;
  beat: { at: number; one: boolean; bar: number } | undefined;
  beatNumber: number;
  song: Song;
  due: Due[];
  lengthMs: number;
  countInMs: number;
  section: Played | undefined;
  coming: Due | undefined;
  at: number;
}) {
  const rig = useDocument();
  return (
    <div className="count" data-count aria-live="off">
      <span className="bar">
        {running && beat
          ? beat.bar <= 0
            ? `count-in ${beatNumber}`
            : `bar ${beat.bar}, beat ${beatNumber}`
          : `${song.title}, ${song.bpm} bpm, ${due.length} changes, ${clockTime(lengthMs - countInMs)}`}
      </span>
      <span>
        {running ? (section?.section.name ?? 'count-in') : ''}
        {running && coming
          ? ` · then ${coming.name} in ${fixed((coming.atMs - at) / 1000, 1)} ` +
            `s: ${rig.sounds.find((s) => s.id === coming.sound)?.name}`
          : ''}
      </span>
    </div>
  );
}

/** Start and stop, the count-in, and whether the click is heard. */
function PracticeHead({
  running,
  stop,
  start,
  countIn,
  setCountIn,
  click,
  setClick,
}: {
  running: { from: number } | null;
  stop: () => void;
  start: () => void;
  countIn: number;
  setCountIn: Dispatch<SetStateAction<number>>;
  click: boolean;
  setClick: Dispatch<SetStateAction<boolean>>;
}) {
  return (
    <Group gap={10} align="end">
      <Button size="sm" onClick={() => (running ? stop() : start())}>
        {running ? 'Stop and score' : 'Start (space)'}
      </Button>
      <NumberInput
        size="xs"
        w={120}
        label="Count-in, bars"
        min={0}
        max={8}
        value={countIn}
        disabled={running !== null}
        onChange={(v) => setCountIn(Number(v) || 0)}
      />
      <Switch
        size="xs"
        label="Audible click"
        checked={click}
        disabled={running !== null}
        onChange={(e) => setClick(e.currentTarget.checked)}
      />
    </Group>
  );
}
