'use client';
import { Button, Checkbox, Group } from '@mantine/core';
import { kindOf } from '../../../core/kinds';
import { type Change, hex, isOn, messageWords, midiDevices } from '../../../core/midi';
import { isEngaged } from '../../../core/rig/device-state';
import { nameOf } from '../../../core/rig/find';
import type { Rig } from '../../../core/rig/schema';
import { fixed } from '../../../core/units';
import { Pads } from './pads';
import type { Floor } from './use-floor';

/** What a foot can reach, and what goes over the wires. */
export function FloorSide({ floor }: { floor: Floor }) {
  const { log } = floor;
  return (
    <section>
      <Cue floor={floor} />
      <h3>Foot controller</h3>
      <CallPads floor={floor} />
      <h3>Pedals and switches</h3>
      <Pedals floor={floor} />
      <Button mt={6} size="compact-xs" variant="default" onClick={floor.stepAll}>
        Do every step that is on foot
      </Button>
      <h3>On the wire</h3>
      <p data-log className="floor-gap">
        {log.words}
      </p>
      {log.change && log.change.traffic.sent.length > 0 && (
        <WireLog change={log.change} rig={floor.rig} />
      )}
    </section>
  );
}

/** The pedals and switches that a foot steps on: whether each is on, and whether it should be. */
function Pedals({ floor: { rig, pedals, now, wanted, step } }: { floor: Floor }) {
  return (
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
            onClick={() => step(d, on)}
          >
            {d.name}
            <span>{on ? 'on' : 'off'}</span>
          </button>
        );
      })}
    </div>
  );
}

/** What is wanted now, and the ways on. */
function Cue({ floor }: { floor: Floor }) {
  const { stop, wanted, stage, at, stops, rig } = floor;
  const app = [...midiDevices(rig).values()].find(
    (m) =>
      m.kind.id === 'set-list-app' || (m.commands && m.kind.jacks.some((j) => j.usb === 'host')),
  );
  return (
    <div className="cue-now" data-cue>
      {stop ? (
        <>
          <div className="faint">
            {stop.song.title} · {stop.song.bpm} bpm{stop.song.key ? ` · ${stop.song.key}` : ''}
          </div>
          <strong>{stop.name}</strong> <span>wants {floor.name(wanted)}</span>
        </>
      ) : (
        <strong>{floor.name(wanted)}</strong>
      )}
      <Group gap={6} mt={6}>
        <Button
          size="compact-sm"
          variant="default"
          disabled={at === 0}
          onClick={() => floor.next(-1)}
        >
          Back
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={at >= stops.length - 1}
          onClick={() => floor.next(1)}
        >
          Next section
        </Button>
        <Button size="compact-sm" variant="default" onClick={floor.setRight}>
          Set all as it should be
        </Button>
        {app && stop && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              floor.press(wanted, [...new Set([app.device.id, ...stage.orders.roots(wanted)])])
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
  floor: { pads, wanted, press, name, held, setHeld, canHold },
}: {
  floor: Floor;
}) {
  return (
    <>
      {canHold && (
        <Checkbox
          size="xs"
          mb={6}
          label="The foot stays down: a long press"
          checked={held}
          onChange={(e) => setHeld(e.currentTarget.checked)}
        />
      )}
      <Pads pads={pads} name={name} wanted={wanted} onPress={(p) => press(p)} />
    </>
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
