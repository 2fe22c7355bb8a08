import { ActionIcon, Group, Select } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { kindOf } from '../../../core/kinds';
import { resolveState, settingOf } from '../../../core/rig/device-state';
import type { Device, State } from '../../../core/rig/schema';
import { Knob } from '../../signal/knob';
import { ProgramField } from './program-field';

/** How one device differs from the sounds: on or off, its program, its settings. */
export function DeviceDiffers({
  device,
  state,
  onChange: set,
  onGone,
}: {
  device: Device;
  state: State;
  onChange: (change: Partial<State>) => void;
  onGone: () => void;
}) {
  const kind = kindOf(device.kind);
  return (
    <div data-differs={device.id} className="differs-box">
      <Group gap={6}>
        <strong>{device.name}</strong>
        {!kind.alwaysOn && (
          <Select
            size="xs"
            w={118}
            aria-label={`${device.name} is`}
            data={[
              { value: 'as', label: 'as the sound' },
              { value: 'on', label: 'on' },
              { value: 'off', label: 'off' },
            ]}
            value={state.engaged === undefined ? 'as' : state.engaged ? 'on' : 'off'}
            allowDeselect={false}
            onChange={(v) => set({ engaged: v === 'as' ? undefined : v === 'on' })}
          />
        )}
        {kind.midi?.programs && device.host === undefined && (
          <ProgramField
            device={device}
            program={state.program}
            onChange={(program) => set({ program })}
          />
        )}
        <ActionIcon
          size="sm"
          variant="default"
          aria-label={`${device.name} as the sounds have it`}
          onClick={onGone}
        >
          <IconTrash size={13} />
        </ActionIcon>
      </Group>
      <OwnSettings device={device} state={state} onChange={set} />
    </div>
  );
}

function OwnSettings({
  device,
  state,
  onChange,
}: {
  device: Device;
  state: State;
  onChange: (change: Partial<State>) => void;
}) {
  const kind = kindOf(device.kind);
  const own = (p: string) => state.settings !== undefined && Object.hasOwn(state.settings, p);
  return (
    <div className="knobs">
      {kind.parameters.map((p) =>
        p.type === 'knob' ? (
          <Knob
            key={p.id}
            parameter={p}
            value={Number(settingOf(kind, device, state, p.id) ?? p.initial)}
            figure={(f) => resolveState(kind, device, state).figure(f)}
            own={own(p.id)}
            onChange={(v) => onChange({ settings: { ...state.settings, [p.id]: v } })}
          />
        ) : p.type === 'choice' ? (
          <Select
            key={p.id}
            size="xs"
            w={120}
            label={p.label}
            data={p.options}
            value={String(settingOf(kind, device, state, p.id))}
            allowDeselect={false}
            onChange={(v) => v && onChange({ settings: { ...state.settings, [p.id]: v } })}
          />
        ) : null,
      )}
    </div>
  );
}
