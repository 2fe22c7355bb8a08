import { Checkbox, Group, MultiSelect } from '@mantine/core';
import type { ControllerWants } from '../../../core/rig/control-schema';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';

const YES_NO = [
  ['toeSwitch', 'toe switch'],
  ['quiet', 'quiet switches'],
  ['softFloor', 'stands on soft floors'],
  ['editor', 'edited on a screen'],
] as const;

const NUMBERS = [
  ['widthMm', 'Wide, mm at most'],
  ['depthMm', 'Deep, mm at most'],
  ['grams', 'Grams at most'],
  ['price', 'Price at most'],
] as const;

/** What a controller must have besides what the rig needs of it. Each candidate is held against it, too. */
export function Wants() {
  const wants = useDocument().controllerWants ?? {};
  const edit = useRig((s) => s.edit);
  const set = (change: Partial<ControllerWants>) =>
    edit({ edit: 'setControllerWants', wants: { ...wants, ...change } });
  return (
    <>
      <h3>What you want besides</h3>
      <Group gap={10} mt={6} align="end" className="no-print" data-wants>
        {YES_NO.map(([field, label]) => (
          <Checkbox
            key={field}
            size="xs"
            label={label}
            checked={wants[field] ?? false}
            onChange={(e) => set({ [field]: e.currentTarget.checked || undefined })}
          />
        ))}
        <MultiSelect
          size="xs"
          w={200}
          label="Runs on any of"
          data={['usb', 'mains', '9 V', 'battery']}
          value={wants.power ?? []}
          onChange={(power) => set({ power: power.length ? power : undefined })}
        />
        {NUMBERS.map(([field, label]) => (
          <CommitNumber
            key={field}
            w={110}
            label={label}
            min={0}
            value={wants[field]}
            onCommit={(v) => set({ [field]: v })}
          />
        ))}
      </Group>
    </>
  );
}
