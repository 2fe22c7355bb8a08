import { Select } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { isEngaged } from '../../../core/rig/device-state';
import { nameOf } from '../../../core/rig/find';
import type { Song, State } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';
import { DeviceDiffers } from './device-differs';

/** What differs from the sounds in this song, or in one section of it: devices on or off, knobs by the clock. */
export function Differs({ song }: { song: Song }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [where, setWhere] = useState<string>('song');
  const section = song.sections.find((s) => s.id === where);
  const states = (section ? section.states : song.states) ?? {};
  const save = (next: Record<string, State>) =>
    edit({
      edit: 'setSong',
      song: section
        ? {
            ...song,
            sections: song.sections.map((s) => (s === section ? { ...s, states: next } : s)),
          }
        : { ...song, states: next },
    });
  const set = (device: string, change: Partial<State>) =>
    save({ ...states, [device]: { ...states[device], ...change } });
  return (
    <>
      <h3 className="differs-gap">
        What differs{' '}
        <Select
          searchable
          size="xs"
          w={190}
          className="program-map-view-select"
          aria-label="Where it differs"
          data={[
            { value: 'song', label: 'in the whole song' },
            ...song.sections.map((s) => ({ value: s.id, label: `in ${s.name}` })),
          ]}
          value={section ? where : 'song'}
          allowDeselect={false}
          onChange={(v) => v && setWhere(v)}
        />
      </h3>
      {Object.keys(states).length === 0 && (
        <p className="faint differs-text">Nothing: the sounds are played as they are.</p>
      )}
      <div className="differs-row">
        {Object.entries(states).map(([id, state]) => {
          const device = rig.devices.find((d) => d.id === id);
          return device ? (
            <DeviceDiffers
              key={id}
              device={device}
              state={state}
              onChange={(change) => set(id, change)}
              onGone={() =>
                save(Object.fromEntries(Object.entries(states).filter(([k]) => k !== id)))
              }
            />
          ) : null;
        })}
      </div>
      <AddDiffering states={states} onAdd={set} />
    </>
  );
}

function AddDiffering({
  states,
  onAdd: set,
}: {
  states: Record<string, State>;
  onAdd: (device: string, state: State) => void;
}) {
  const rig = useDocument();
  return (
    <Select
      mt={6}
      size="xs"
      w={250}
      searchable
      placeholder="Add a device that differs …"
      aria-label="Add a device that differs"
      value={null}
      data={rig.devices
        .filter(
          (d) =>
            !Object.hasOwn(states, d.id) &&
            (!kindOf(d.kind).alwaysOn || kindOf(d.kind).parameters.length),
        )
        .map((d) => ({ value: d.id, label: nameOf(rig, d.id) }))}
      onChange={(v) => {
        const device = rig.devices.find((d) => d.id === v);
        if (device)
          set(
            device.id,
            kindOf(device.kind).alwaysOn
              ? { settings: {} }
              : { engaged: isEngaged(kindOf(device.kind), device) },
          );
      }}
    />
  );
}
