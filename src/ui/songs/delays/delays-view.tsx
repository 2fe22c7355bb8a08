'use client';
import { sure } from '../../../core/outcome';
import { Button } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import type { Device, Song } from '../../../core/rig';
import {
  type DelayTime,
  delayTimes,
  soundsIn,
  tablesOf,
  type Tapped,
  tempoDevices,
  withStoredTime,
} from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { AnyTempo } from './any-tempo';
import { Tap } from './tap';
import { canBeKept, TimeRow } from './time-row';
import { Ways } from './ways';
import { howMany } from '../../../core/units';

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
  const rows = songs.flatMap((song) =>
    devices
      .filter(
        (d) => (d.tempo || sure(kindOf(d.kind).tempo).is === 'delay') && soundsIn(rig, song, d),
      )
      .flatMap((d) =>
        delayTimes(rig, song, d, taps).map((time, i, { length }) => ({
          song,
          device: d,
          time,
          first: i === 0,
          alone: length === tablesOf(d).length,
        })),
      ),
  );
  const wanting = rows.filter(
    ({ alone, time }) => (alone || time.sections.length > 0) && canBeKept(time),
  );
  return (
    <div className="scroll common-box">
      <Ways devices={devices.map((d) => d.id)} />
      {wanting.length > 1 && <KeepAll times={wanting} />}
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
            {rows.map(({ song, time, first, alone }) => (
              <TimeRow
                key={`${song.id} ${time.device} ${time.setting} ${time.bar}`}
                {...{ song, time, first, alone }}
              />
            ))}
          </tbody>
        </table>
      ) : (
        <div className="empty common-gap-6">
          No songs yet: their tempos give the times here. The table below takes any tempo.
        </div>
      )}
      <div className="delays-view-columns">
        <AnyTempo />
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

/** Stores every right time that is not stored yet, as one step. */
function KeepAll({
  times,
}: {
  times: readonly { song: Song; device: Device; time: DelayTime; alone: boolean }[];
}) {
  const edit = useRig((s) => s.edit);
  const keep = () => {
    const songs = new Map<string, Song>();
    for (const { song, device, time, alone } of times) {
      const now = songs.get(song.id) ?? song;
      const sections = alone ? undefined : time.sections;
      songs.set(song.id, withStoredTime(now, device, time.knob, sections, time.setting));
    }
    edit(
      [...songs.values()].map((song) => ({ edit: 'setSong', song })),
      `kept ${howMany(times.length, 'time')} for ${howMany(songs.size, 'song')}`,
    );
  };
  return (
    <Button size="compact-sm" variant="default" mb={6} onClick={keep}>
      Keep all {times.length} times
    </Button>
  );
}
