import { Button, Select } from '@mantine/core';
import { sure } from '../../../core/outcome';
import { deviceOf, nameOf, type Song } from '../../../core/rig';
import type { Device } from '../../../core/rig/schema';
import { type DelayTime, tablesOf, withStoredTime } from '../../../core/songs';
import { fixed } from '../../../core/units';
import { useDocument, useRig } from '../../store/use-rig';
import { labelOfTime, NOTES } from './names';

/** One time of a device in a part of a song. */
export function TimeRow({
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
      {slip.downDb !== null && slip.downDb > 0.05 ? `, ${fixed(slip.downDb, 0)} dB down` : ''}
    </strong>
  );
}

/** Whether a right time could be stored that is not stored yet. */
export const canBeKept = ({ way, gets, wanted, inRange, how }: DelayTime): boolean =>
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
