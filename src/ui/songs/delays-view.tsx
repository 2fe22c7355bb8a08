'use client';
import { Button, Group, NumberInput, Select } from '@mantine/core';
import { useRef, useState } from 'react';
import { kindOf } from '../../core/kinds';
import { sure } from '../../core/outcome';
import { deviceOf, nameOf, type Song, type TempoSetup } from '../../core/rig';
import type { Device } from '../../core/rig/schema';
import {
  type DelayTime,
  delayTimes,
  DIVISIONS,
  divisionTable,
  soundsIn,
  tablesOf,
  tapped,
  type Tapped,
  tempoDevices,
  withStoredTime,
} from '../../core/songs';
import { fixed } from '../../core/units';
import { useKeys } from '../frame/use-keys';
import { useDocument, useRig } from '../store/use-rig';

const WAYS = [
  { value: 'program', label: 'stored in a program' },
  { value: 'clock', label: 'follows clock' },
  { value: 'tap', label: 'tapped' },
];
const NOTES = Object.keys(DIVISIONS).map((d) => ({ value: d, label: d }));

/**
 * Delay and modulation times of every song, per device the way it is set; what a time off by a
 * little does against the click; a tap that tells its spread.
 */
export function DelaysView() {
  const rig = useDocument();
  const [taps, setTaps] = useState<Tapped | undefined>();
  const devices = tempoDevices(rig);
  if (!devices.length)
    return (
      <div className="empty common-gap-2">
        Nothing in this rig has a time that fits a tempo: no delay, no modulation.
      </div>
    );
  const songs = rig.songs ?? [];
  return (
    <div className="scroll common-box">
      <Ways devices={devices.map((d) => d.id)} />
      {songs.length > 0 ? (
        <table className="sheet-table figures delays-view-gap" data-table="delays">
          <thead>
            <tr>
              <th>Song</th>
              <th>Device</th>
              <th>Note value</th>
              <th>Should be</th>
              <th>Knob at</th>
              <th>Will be</th>
              <th>Off by</th>
              <th>Against the click</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {songs.flatMap((song) =>
              devices
                .filter(
                  (d) =>
                    (d.tempo || kindOf(d.kind).tempo!.is === 'delay') && soundsIn(rig, song, d),
                )
                .flatMap((d) =>
                  delayTimes(rig, song, d, taps).map((t, i, { length }) => (
                    <TimeRow
                      key={`${song.id} ${d.id} ${t.setting} ${t.bar}`}
                      song={song}
                      time={t}
                      first={i === 0}
                      alone={length === tablesOf(d).length}
                    />
                  )),
                ),
            )}
          </tbody>
        </table>
      ) : (
        <div className="empty common-gap-6">
          No songs yet: their tempos give the times here. The table below takes any tempo.
        </div>
      )}
      <div className="delays-view-columns">
        <Table />
        <Tap onTapped={setTaps} taps={taps} />
      </div>
      <p className="faint common-text-2">
        Quarter note: 60000 / bpm. An echo that is e ms off slips k·e ms by its kth repeat; over
        about 20 ms against a click the ear hears it, unless it has died away by then (40 dB under
        the first). How much each repeat keeps is read from the repeats knob, from none to all (a
        simplification).
      </p>
    </div>
  );
}

/** What a time of a box is called on it. */
const labelOfTime = (device: Device, setting: string): string =>
  kindOf(device.kind).parameters.find((p) => p.id === setting)?.label ?? setting;

/** How each device takes its time. */
function Ways({ devices }: { devices: string[] }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <div className="ways-row">
      {devices.map((id) => {
        const d = sure(deviceOf(rig, id));
        const table = kindOf(d.kind).tempo!;
        const set = (change: Partial<TempoSetup>) =>
          edit({
            edit: 'setTempo',
            device: id,
            tempo: {
              way: d.tempo?.way ?? 'program',
              division: d.tempo?.division ?? 'quarter',
              ...(d.tempo?.more && { more: d.tempo.more }),
              ...change,
            },
          });
        return (
          <div key={id} data-way-of={id} className="ways-row-2">
            <Select
              size="xs"
              w={160}
              label={d.name}
              data={WAYS.filter(
                (w) => w.value !== 'clock' || kindOf(d.kind).midi?.clock || d.host !== undefined,
              )}
              placeholder="not chosen"
              value={d.tempo?.way ?? null}
              onChange={(v) => v && set({ way: v as TempoSetup['way'] })}
            />
            <Select
              size="xs"
              w={140}
              aria-label={`Note value of ${d.name}`}
              data={NOTES}
              value={d.tempo?.division ?? 'quarter'}
              allowDeselect={false}
              onChange={(v) => v && set({ division: v })}
            />
            {tablesOf(d)
              .slice(1)
              .map(({ setting }) => (
                <Select
                  key={setting}
                  size="xs"
                  w={140}
                  label={labelOfTime(d, setting)}
                  data={NOTES}
                  value={d.tempo?.more?.[setting] ?? d.tempo?.division ?? 'quarter'}
                  allowDeselect={false}
                  onChange={(v) => v && set({ more: { ...d.tempo?.more, [setting]: v } })}
                />
              ))}
            {table.is === 'rate' && <span className="faint common-text">a cycle</span>}
          </div>
        );
      })}
    </div>
  );
}

function TimeRow({
  song,
  time,
  first,
  alone,
}: {
  song: Song;
  time: DelayTime;
  first: boolean;
  alone: boolean;
}) {
  const rig = useDocument();
  const device = sure(deviceOf(rig, time.device));
  const unit = time.is === 'delay' ? 'ms' : 'Hz';
  return (
    <tr
      data-time={
        `${song.id} ${time.device} ${time.bar}` +
        (time.setting === tablesOf(device)[0]?.setting ? '' : ` ${time.setting}`)
      }
    >
      <td>
        {first ? <strong>{song.title}</strong> : ''}
        <div className="faint common-text">
          {time.bpm} bpm{time.bar > 1 ? ` from bar ${time.bar}` : ''}
          {time.sections.length < song.sections.length &&
            `, ${song.sections
              .filter((s) => time.sections.includes(s.id))
              .map((s) => s.name)
              .join(', ')}`}
        </div>
      </td>
      <td>
        {nameOf(rig, time.device)}
        {tablesOf(device).length > 1 && (
          <div className="faint common-text">{labelOfTime(device, time.setting)}</div>
        )}
      </td>
      <WayCell first={first} device={device} song={song} time={time} />
      <td>
        <strong>
          {fixed(time.wanted, 2)} {unit}
        </strong>
      </td>
      <td>
        {time.hour}
        <span className="faint"> ({fixed(time.knob, 1)})</span>
      </td>
      <td>
        {fixed(time.gets, 2)} {unit}
        <div className="faint common-text">{time.how}</div>
      </td>
      <td>
        {fixed(time.gets - time.wanted, 2)} {unit}
      </td>
      <td>
        <AgainstClick time={time} />
      </td>
      <td>
        {(alone || time.sections.length > 0) && canBeKept(time) && (
          <KeepTime song={song} device={device} time={time} alone={alone} />
        )}
      </td>
    </tr>
  );
}

/** How a time runs against the click: with it, or heard off it from which repeat. */
function AgainstClick({ time: { is, inRange, instead, slip } }: { time: DelayTime }) {
  if (!inRange) return <strong>out of its range{instead ? `; a ${instead} fits` : ''}</strong>;
  if (is === 'rate') return '–';
  if (slip.repeat === null) return 'stays with it';
  if (!slip.heard) return `repeat ${slip.repeat} slips, inaudible by then`;
  return (
    <strong>
      heard from repeat {slip.repeat}
      {slip.downDb! > 0.05 ? `, ${fixed(slip.downDb!, 0)} dB down` : ''}
    </strong>
  );
}

/** Whether a right time could be stored that is not stored yet. */
const canBeKept = ({ way, gets, wanted, inRange, how }: DelayTime): boolean =>
  way === 'program' && inRange && Math.abs(gets - wanted) > 0.5e-9 && !how.startsWith('stored');

/** Stores the right time, for the song or for the part. */
function KeepTime({
  song,
  device,
  time,
  alone,
}: {
  song: Song;
  device: Device;
  time: DelayTime;
  alone: boolean;
}) {
  const edit = useRig((s) => s.edit);
  const unit = time.is === 'delay' ? 'ms' : 'Hz';
  const keep = () => {
    const sections = alone ? undefined : time.sections;
    edit(
      {
        edit: 'setSong',
        song: withStoredTime(song, device, time.knob, sections, time.setting),
      },
      `kept ${fixed(time.wanted, 0)} ${unit} on ${device.name} for ${song.title}`,
    );
  };
  return (
    <Button size="compact-xs" variant="default" onClick={keep}>
      {alone ? 'Keep it for this song' : 'Keep it for this part'}
    </Button>
  );
}

/** How the time reaches the device. */
function WayCell({
  first,
  device,
  song,
  time,
}: {
  first: boolean;
  device: Device;
  song: Song;
  time: DelayTime;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <td>
      {first ? (
        <Select
          size="xs"
          w={140}
          aria-label={`Note value of ${device.name} in ${song.title}`}
          data={NOTES}
          value={time.division}
          allowDeselect={false}
          onChange={(v) =>
            v &&
            edit({
              edit: 'setSong',
              song: { ...song, divisions: { ...song.divisions, [time.device]: v } },
            })
          }
        />
      ) : (
        time.division
      )}
    </td>
  );
}

/** All note values at any tempo. */
function Table() {
  const [bpm, setBpm] = useState<number | string>(96);
  const ok = Number(bpm) >= 20 && Number(bpm) <= 400;
  return (
    <section>
      <Group gap={8} align="end">
        <NumberInput
          size="xs"
          w={120}
          label="Any tempo, bpm"
          min={20}
          max={400}
          value={bpm}
          onChange={setBpm}
        />
        {!ok && <span role="alert">20 to 400 bpm</span>}
      </Group>
      {ok && (
        <table className="sheet-table numbers figures" data-table="divisions">
          <thead>
            <tr>
              <th>Note</th>
              <th>Delay</th>
              <th>One cycle in it</th>
            </tr>
          </thead>
          <tbody>
            {divisionTable(Number(bpm)).map((d) => (
              <tr key={d.division} data-division={d.division}>
                <td>{d.division}</td>
                <td>{fixed(d.ms, 2)} ms</td>
                <td>{fixed(d.hz, 2)} Hz</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** A pause after which tapping begins anew, in ms. */
const PAUSE_MS = 2500;

/** Taps a tempo and tells how steady the foot was; what it measured is used for devices that are tapped. */
function Tap({
  onTapped,
  taps,
}: {
  onTapped: (t: Tapped | undefined) => void;
  taps: Tapped | undefined;
}) {
  const times = useRef<number[]>([]);
  const tap = () => {
    const now = performance.now();
    times.current =
      now - (times.current.at(-1) ?? -Infinity) > PAUSE_MS
        ? [now]
        : [...times.current, now].slice(-16);
    onTapped(tapped(times.current));
  };
  useKeys([['t', tap]]);
  return (
    <section data-tap>
      <Group gap={8} align="end">
        <Button size="md" onClick={tap}>
          Tap (T)
        </Button>
        <Button
          size="xs"
          variant="default"
          disabled={!taps}
          onClick={() => {
            times.current = [];
            onTapped(undefined);
          }}
        >
          Forget it
        </Button>
      </Group>
      {taps ? (
        <dl className="pairs tap-width">
          <dt>Presses</dt>
          <dd>{taps.presses}</dd>
          <dt>Mean interval</dt>
          <dd>
            {fixed(taps.meanMs, 1)} ms, {fixed(taps.bpm, 1)} bpm
          </dd>
          <dt>Spread</dt>
          <dd>
            {taps.spreadMs === null ? 'unknown of two presses' : `± ${fixed(taps.spreadMs, 1)} ms`}
          </dd>
          <dt>The mean may be off by</dt>
          <dd>
            {taps.errorMs === null ? 'unknown; tap once more' : `${fixed(taps.errorMs, 1)} ms`}
          </dd>
        </dl>
      ) : (
        <p className="faint small-print">
          Tap at least twice, as you would on stage. Until then, tapped devices are judged with a
          typical foot.
        </p>
      )}
    </section>
  );
}
