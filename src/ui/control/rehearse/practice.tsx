'use client';
import { Button, Group, NumberInput, Switch } from '@mantine/core';
import { type Dispatch, type SetStateAction, useMemo, useState } from 'react';
import type { Scene } from '../../../core/control/scene';
import type { Stage } from '../../../core/midi';
import { at as entryAt } from '../../../core/outcome';
import type { Song } from '../../../core/rig';
import {
  clockTime,
  COUNT_IN_BARS,
  ON_TIME_BEATS,
  sectionScene,
  timelineOf,
} from '../../../core/songs';
import type { Due } from '../../../core/songs/practice';
import type { Played } from '../../../core/songs/timeline';
import { fixed, howMany } from '../../../core/units';
import { useKeys } from '../../frame/use-keys';
import { useDocument } from '../../store/use-rig';
import { PAD_KEYS } from './pad-keys';
import { Pads } from './pads';
import { beatsOf, useRun } from './use-run';
import { pressWords, Result } from './results';

export type Beat = ReturnType<typeof beatsOf>[number];

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
        <Pads pads={pads} name={name} onPress={(_, i) => press(i)} />
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
          : `${song.title}, ${song.bpm} bpm, ${howMany(due.length, 'change')}, ${clockTime(lengthMs - countInMs)}`}
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
