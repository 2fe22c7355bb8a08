'use client';
import { Button, Group } from '@mantine/core';
import type { Dispatch, SetStateAction } from 'react';
import type { Scene } from '../../../core/control/scene';
import { kindOf } from '../../../core/kinds';
import {
  begin,
  type Change,
  hex,
  isOn,
  messageWords,
  type Rehearsal,
  type Stage,
  stepAll,
  stepOn,
} from '../../../core/midi';
import type { MidiDevice } from '../../../core/midi/setup';
import { isEngaged } from '../../../core/rig/device-state';
import { nameOf } from '../../../core/rig/find';
import type { Device, Rig } from '../../../core/rig/schema';
import { fixed } from '../../../core/units';
import { PAD_KEYS } from './pad-keys';
import type { Log, Stop } from './stops';

/** What a foot can reach, and what goes over the wires. */
export function FloorSide({
  stop,
  name,
  wanted,
  at,
  next,
  stops,
  setNow,
  rig,
  stage,
  setLog,
  app,
  press,
  pads,
  pedals,
  now,
  log,
}: {
  stop: Stop | undefined;
  name: (s: Scene) => string;
  wanted: Scene;
  at: number;
  next: (d: number) => void;
  stops: Stop[];
  setNow: Dispatch<SetStateAction<Rehearsal>>;
  rig: Rig;
  stage: Stage;
  setLog: Dispatch<SetStateAction<Log>>;
  app: MidiDevice | undefined;
  press: (scene: Scene, pressed?: string[]) => void;
  pads: Scene[];
  pedals: Device[];
  now: Rehearsal;
  log: Log;
}) {
  return (
    <section>
      <Cue
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
      />
      <h3>Foot controller</h3>
      <CallPads pads={pads} wanted={wanted} press={press} name={name} />
      <h3>Pedals and switches</h3>
      <div className="pads">
        {pedals.map((d) => {
          const on = isOn(rig, now, d.id);
          const should = isEngaged(kindOf(d.kind), d, wanted.sound.states[d.id]);
          return (
            <button
              key={d.id}
              type="button"
              className="pad small"
              data-step={d.id}
              data-lit={on}
              data-wrong={on !== should}
              aria-pressed={on}
              onClick={() => {
                setNow(stepOn(rig, now, d.id));
                setLog({
                  words: `Stepped on ${d.name}: it is ${on ? 'off' : 'on'} now.`,
                  change: null,
                });
              }}
            >
              {d.name}
              <span>{on ? 'on' : 'off'}</span>
            </button>
          );
        })}
      </div>
      <Button
        mt={6}
        size="compact-xs"
        variant="default"
        onClick={() => setNow(stepAll(rig, stage, now, wanted))}
      >
        Do every step that is on foot
      </Button>
      <h3>On the wire</h3>
      <p data-log className="floor-gap">
        {log.words}
      </p>
      {log.change && log.change.traffic.sent.length > 0 && (
        <WireLog change={log.change} rig={rig} />
      )}
    </section>
  );
}

/** What is wanted now, and the ways on. */
function Cue({
  stop,
  name,
  wanted,
  at,
  next,
  stops,
  setNow,
  rig,
  stage,
  setLog,
  app,
  press,
}: {
  stop: Stop | undefined;
  name: (s: Scene) => string;
  wanted: Scene;
  at: number;
  next: (d: number) => void;
  stops: Stop[];
  setNow: Dispatch<SetStateAction<Rehearsal>>;
  rig: Rig;
  stage: Stage;
  setLog: Dispatch<SetStateAction<Log>>;
  app: MidiDevice | undefined;
  press: (scene: Scene, pressed?: string[]) => void;
}) {
  return (
    <div className="cue-now" data-cue>
      {stop ? (
        <>
          <div className="faint">
            {stop.song.title} · {stop.song.bpm} bpm{stop.song.key ? ` · ${stop.song.key}` : ''}
          </div>
          <strong>{stop.name}</strong> <span>wants {name(wanted)}</span>
        </>
      ) : (
        <>
          <strong>{name(wanted)}</strong>
        </>
      )}
      <Group gap={6} mt={6}>
        <Button size="compact-sm" variant="default" disabled={at === 0} onClick={() => next(-1)}>
          Back
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={at >= stops.length - 1}
          onClick={() => next(1)}
        >
          Next section
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            setNow(begin(rig, stage, wanted));
            setLog({ words: 'Everything was set as it should stand.', change: null });
          }}
        >
          Set all as it should be
        </Button>
        {app && stop && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              press(wanted, [...new Set([app.device.id, ...stage.orders.roots(wanted)])])
            }
          >
            Send from {app.device.name}
          </Button>
        )}
      </Group>
    </div>
  );
}

/** The pads of the foot controller, one for each scene; the first nine have a key. */
function CallPads({
  pads,
  wanted,
  press,
  name,
}: {
  pads: Scene[];
  wanted: Scene;
  press: (scene: Scene, pressed?: string[]) => void;
  name: (s: Scene) => string;
}) {
  return (
    <div className="pads">
      {pads.map((p, i) => (
        <PedalPad key={p.id} p={p} wanted={wanted} press={press} i={i} name={name} />
      ))}
    </div>
  );
}

/** A pedal or switch that a foot steps on: whether it is on, and whether it should be. */
function PedalPad({
  p,
  wanted,
  press,
  i,
  name,
}: {
  p: Scene;
  wanted: Scene;
  press: (scene: Scene, pressed?: string[]) => void;
  i: number;
  name: (s: Scene) => string;
}) {
  return (
    <button
      type="button"
      className="pad"
      data-pad={p.id}
      data-wanted={p.id === wanted.id}
      onClick={() => press(p)}
    >
      {i < 9 && <kbd>{PAD_KEYS[i]}</kbd>}
      {name(p)}
    </button>
  );
}

/** The first messages of a change, byte by byte, as they went over the wires. */
function WireLog({ change, rig }: { change: Change; rig: Rig }) {
  return (
    <ul className="wirelog figures">
      {change.traffic.sent
        .filter((s) => s.message.type !== 'clock')
        .slice(0, 14)
        .map((s, i) => (
          <li key={i}>
            <code>{hex(s.bytes)}</code> {nameOf(rig, s.from)} to {nameOf(rig, s.to)}:{' '}
            {messageWords(s.message)}, {fixed(s.end, 2)} ms
          </li>
        ))}
    </ul>
  );
}
