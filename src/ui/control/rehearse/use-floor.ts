import { useCallback, useMemo, useState } from 'react';
import {
  begin,
  call,
  midiDevices,
  recovery,
  type Rehearsal,
  type Stage,
  stepAll,
  steppable,
  stepOn,
  whatIsOff,
} from '../../../core/midi';
import { at as entryAt, sure } from '../../../core/outcome';
import { type Device, nameOf, type Rig } from '../../../core/rig';
import { type Scene, sectionScene } from '../../../core/songs';
import { allOf, fixed } from '../../../core/units';
import type { Log, Stop } from './stops';

interface Given {
  rig: Rig;
  stage: Stage;
  stops: Stop[];
  at: number;
  onAt: (n: number) => void;
  plain: Scene;
}

/** The simulated stage as it stands, and what a foot can do on it. */
export type Floor = ReturnType<typeof useFloor>;

/** Plays a set through on stand-ins: what is wanted at each stop, what was stepped on, what is off. */
export function useFloor({ rig, stage, stops, at, onAt, plain }: Given) {
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
  const say = (words: string) => setLog({ words, change: null });
  const [held, setHeld] = useState(false);
  const press = useCallback(
    (scene: Scene, pressed?: string[]) => {
      const done = call(stage, now, scene, pressed, { held });
      setNow(done.now);
      setCalled(scene);
      const by = allOf(done.change.pressed.map((p) => nameOf(rig, p)));
      const how = held ? 'called with a long press' : 'called';
      const words = by
        ? `${scene.name} ${how} on ${by}: all in place after ${fixed(done.change.doneMs, 1)} ms.`
        : `${scene.name}: no sender tells anything for it; step on what differs.`;
      setLog({ words, change: done.change });
    },
    [now, rig, stage, held],
  );
  const name = (s: Scene) => rig.sounds.find((x) => x.id === s.sound.id)?.name ?? s.name;
  return {
    rig,
    stage,
    stops,
    at,
    stop,
    wanted,
    now,
    called,
    log,
    name,
    press,
    held,
    setHeld,
    /** Whether any message waits for a long press. */
    canHold: rig.sounds.some((s) => s.sends?.some((x) => x.when === 'long')),
    pads: useMemo(() => padsOf(rig, stage, stop), [rig, stage, stop]),
    pedals: steppable(rig).filter(
      (d) => !midiDevices(rig).has(d.id) || !sure(midiDevices(rig).get(d.id)).commands,
    ),
    off: whatIsOff(rig, stage, now, wanted),
    steps: recovery(rig, stage, now, wanted),
    /** Goes some stops on, or back. */
    next: (by: number) => {
      const to = Math.min(stops.length - 1, Math.max(0, at + by));
      if (to === at) return;
      onAt(to);
      const there = entryAt(stops, to);
      say(`Now ${there.song.title}, ${there.name}: it wants ${name(there.scene)}.`);
    },
    step: (d: Device, isOn: boolean) => {
      setNow(stepOn(rig, now, d.id));
      say(`Stepped on ${d.name}: it is ${isOn ? 'off' : 'on'} now.`);
    },
    stepAll: () => setNow(stepAll(rig, stage, now, wanted)),
    setRight: () => {
      setNow(begin(rig, stage, wanted));
      say('Everything was set as it should stand.');
    },
  };
}

/** What can be called: the sounds of the song's sections, or all sounds. */
function padsOf(rig: Rig, stage: Stage, stop: Stop | undefined): Scene[] {
  const scenes = stop
    ? stop.song.sections.flatMap((s) => sectionScene(rig, stop.song, s.id) ?? [])
    : stage.orders.scenes.filter((s) => rig.sounds.some((x) => x.id === s.id));
  return [...new Map(scenes.map((s) => [s.id, s])).values()];
}
