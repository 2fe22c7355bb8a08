import { ActionIcon, Group, Select, Tooltip } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { kindOf } from '../../../core/kinds';
import type { Control } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import { useDocument, useRig } from '../../store/use-rig';
import { TYPES } from './control-words';

interface Change {
  control: Control;
  onChange: (change: Partial<Control>) => void;
}

/** What a control is: its name, type, action and the device it sits on. */
export function ControlHead({ control, onChange: set }: Change) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const places = rig.devices.filter(
    (d) =>
      kindOf(d.kind).switches ||
      kindOf(d.kind).jacks.some((j) => j.gives || j.reads) ||
      kindOf(d.kind).hosts,
  );
  return (
    <Group gap={8} align="end">
      <CommitText label="Name" needed value={control.name} onCommit={(name) => set({ name })} />
      <Select
        size="xs"
        w={130}
        label="Type"
        data={TYPES}
        value={control.type}
        allowDeselect={false}
        onChange={(v) => v && set({ type: v })}
      />
      {control.type !== 'pedal' && (
        <Select
          size="xs"
          w={120}
          label="Action"
          data={['momentary', 'latching']}
          value={control.action ?? null}
          placeholder="not said"
          onChange={(v) => set({ action: (v as Control['action']) ?? undefined })}
        />
      )}
      <Select
        searchable
        size="xs"
        w={170}
        label="Sits on"
        clearable
        data={places.map((d) => ({ value: d.id, label: d.name }))}
        value={control.device ?? null}
        onChange={(v) => set({ device: v ?? undefined })}
      />
      <Tooltip label="Remove (can be undone)">
        <ActionIcon
          variant="default"
          aria-label={`Remove ${control.name}`}
          onClick={() => edit({ edit: 'removeControl', control: control.id })}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </Tooltip>
    </Group>
  );
}

/** The part of a pedal's travel that counts. */
export function TravelFields({ control, onChange: set }: Change) {
  return (
    <Group gap={8} mt={6}>
      <CommitNumber
        w={130}
        label="Travel counts from, %"
        min={0}
        max={99}
        value={control.travel?.from ?? 0}
        onCommit={(v) => set({ travel: { from: v ?? 0, to: control.travel?.to ?? 100 } })}
      />
      <CommitNumber
        w={130}
        label="to, %"
        min={1}
        max={100}
        value={control.travel?.to ?? 100}
        onCommit={(v) => set({ travel: { from: control.travel?.from ?? 0, to: v ?? 100 } })}
      />
    </Group>
  );
}
