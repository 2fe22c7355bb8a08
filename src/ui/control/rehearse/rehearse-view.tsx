'use client';
import { Group, Select, Switch } from '@mantine/core';
import { type Dispatch, type SetStateAction, useCallback, useMemo, useState } from 'react';
import {
  begin,
  call,
  midiDevices,
  recovery,
  type Rehearsal,
  setStage,
  soundNow,
  type Stage,
  steppable,
  whatIsOff,
} from '../../../core/midi';
import { at as entryAt, sure } from '../../../core/outcome';
import { nameOf, type Rig } from '../../../core/rig';
import { allScenes, type Scene, sceneOf, sectionScene } from '../../../core/songs';
import { fixed } from '../../../core/units';
import { useKeys } from '../../frame/use-keys';
import { useAnswer } from '../../look/use-answer';
import { useDocument } from '../../store/use-rig';
import { FloorSide } from './floor-side';
import { HowItStands } from './how-it-stands';
import { PAD_KEYS } from './pad-keys';
import { Practice } from './practice';
import { type Log, type Stop, stopsOf } from './stops';

/**
 * A set played through on stand-ins: the floor to step on, the messages, what every device does and
 * shows, what is heard where, and how to get right again.
 */
export function RehearseView() {
  const rig = useDocument();
  const stage = useMemo(() => setStage(rig, allScenes(rig)), [rig]);
  const [setId, setSetId] = useState<string | null>(rig.sets?.[0]?.id ?? null);
  const stops = useMemo(() => stopsOf(rig, setId), [rig, setId]);
  const [at, setAt] = useState(0);
  const [practising, setPractising] = useState(false);
  const stop = stops[Math.min(at, stops.length - 1)];
  const plain = rig.sounds[0] && sceneOf(rig, rig.sounds[0]);
  const wanted = stop?.scene ?? plain;
  if (!wanted) return <div className="empty common-gap-2">Add a sound first.</div>;
  return (
    <div className="scroll bus-view-box">
      <WhatToPlay
        setId={setId}
        setSetId={setSetId}
        setAt={setAt}
        stops={stops}
        stop={stop}
        practising={practising}
        setPractising={setPractising}
      />
      {practising && stop ? (
        <Practice key={stop.song.id} song={stop.song} stage={stage} />
      ) : (
        <Floor
          key={`${setId}`}
          rig={rig}
          stage={stage}
          stops={stops}
          at={Math.min(at, Math.max(0, stops.length - 1))}
          onAt={setAt}
          plain={plain!}
        />
      )}
    </div>
  );
}

/** Which set, which song, and whether the changes are practised in time. */
function WhatToPlay({
  setId,
  setSetId,
  setAt,
  stops,
  stop,
  practising,
  setPractising,
}: {
  setId: string | null;
  setSetId: Dispatch<SetStateAction<string | null>>;
  setAt: Dispatch<SetStateAction<number>>;
  stops: Stop[];
  stop: Stop | undefined;
  practising: boolean;
  setPractising: Dispatch<SetStateAction<boolean>>;
}) {
  const rig = useDocument();
  return (
    <Group gap={10} align="end" mb={6}>
      <Select
        size="xs"
        w={220}
        label="Set"
        data={[
          ...(rig.sets ?? []).map((s) => ({ value: s.id, label: s.name })),
          { value: '', label: 'all songs, as they are listed' },
        ]}
        value={setId ?? ''}
        allowDeselect={false}
        onChange={(v) => {
          setSetId(v || null);
          setAt(0);
        }}
      />
      {stops.length > 0 && (
        <Select
          size="xs"
          w={210}
          label="Song"
          searchable
          data={[
            ...new Map(
              stops.map((s) => [s.song.id, { value: s.song.id, label: s.song.title }]),
            ).values(),
          ]}
          value={stop!.song.id}
          allowDeselect={false}
          onChange={(v) =>
            setAt(
              Math.max(
                0,
                stops.findIndex((s) => s.song.id === v),
              ),
            )
          }
        />
      )}
      <Switch
        size="xs"
        label="Practise the changes of this song in time"
        checked={practising}
        disabled={!stop}
        onChange={(e) => setPractising(e.currentTarget.checked)}
      />
    </Group>
  );
}

/** The simulated stage: what is wanted now, and everything a foot can reach. */
function Floor({
  rig,
  stage,
  stops,
  at,
  onAt,
  plain,
}: {
  rig: Rig;
  stage: Stage;
  stops: Stop[];
  at: number;
  onAt: (n: number) => void;
  plain: Scene;
}) {
  const stop = stops[at];
  const wanted = stop?.scene ?? plain;
  const [now, setNow] = useState<Rehearsal>(() => begin(rig, stage, wanted));
  const [called, setCalled] = useState(wanted);
  const [log, setLog] = useState<Log>({
    words: 'Everything stands as it should. Step to the next section, then press what it takes.',
    change: null,
  });
  // A rig that was edited meanwhile has other devices: start again from how it should stand.
  const [of, setOf] = useState(stage);
  if (of !== stage) {
    setOf(stage);
    setNow(begin(rig, stage, wanted));
  }
  const pads = useMemo(() => {
    const scenes = stop
      ? stop.song.sections
          .map((s) => sectionScene(rig, stop.song, s.id))
          .filter((s) => s !== undefined)
      : stage.orders.scenes.filter((s) => rig.sounds.some((x) => x.id === s.id));
    return [...new Map(scenes.map((s) => [s.id, s])).values()];
  }, [rig, stage, stop]);
  const pedals = steppable(rig).filter(
    (d) => !midiDevices(rig).has(d.id) || !sure(midiDevices(rig).get(d.id)).commands,
  );
  const press = useCallback(
    (scene: Scene, pressed?: string[]) => {
      const done = call(stage, now, scene, pressed);
      setNow(done.now);
      setCalled(scene);
      setLog({
        words: done.change.pressed.length
          ? `${scene.name} called ` +
            `on ${done.change.pressed.map((p) => nameOf(rig, p)).join(' and ')}: all in place ` +
            `after ${fixed(done.change.doneMs, 1)} ms.`
          : `${scene.name}: no sender tells anything for it; step on what differs.`,
        change: done.change,
      });
    },
    [now, rig, stage],
  );
  const off = whatIsOff(rig, stage, now, wanted);
  const steps = recovery(rig, stage, now, wanted);
  const heard = useAnswer('heard', { sound: soundNow(now, wanted) });
  const app = [...midiDevices(rig).values()].find(
    (m) =>
      m.kind.id === 'set-list-app' || (m.commands && m.kind.jacks.some((j) => j.usb === 'host')),
  );
  const name = (s: Scene) => rig.sounds.find((x) => x.id === s.sound.id)?.name ?? s.name;
  const next = (d: number) => {
    const to = Math.min(stops.length - 1, Math.max(0, at + d));
    if (to === at) return;
    onAt(to);
    const next = entryAt(stops, to);
    setLog({
      words: `Now ${next.song.title}, ${next.name}: it wants ${name(next.scene)}.`,
      change: null,
    });
  };
  useKeys([
    ['ArrowRight', () => next(1)],
    ['ArrowLeft', () => next(-1)],
    ...pads.slice(0, 9).map((p, i): [string, () => void] => [entryAt(PAD_KEYS, i), () => press(p)]),
  ]);
  return (
    <div className="rehearse" data-rehearse>
      <FloorSide
        stop={stop}
        name={name}
        wanted={wanted}
        at={at}
        next={next}
        stops={stops}
        setNow={setNow}
        rig={rig}
        stage={stage}
        setLog={setLog}
        app={app}
        press={press}
        pads={pads}
        pedals={pedals}
        now={now}
        log={log}
      />
      <HowItStands
        off={off}
        name={name}
        wanted={wanted}
        steps={steps}
        now={now}
        rig={rig}
        stage={stage}
        stop={stop}
        called={called}
        heard={heard}
      />
    </div>
  );
}
