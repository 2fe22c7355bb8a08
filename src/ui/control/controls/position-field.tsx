import { Group, Select, Switch, Slider } from '@mantine/core';
import type { Control, Sound } from '../../../core/rig/schema';
import { useRig } from '../../store/use-rig';

/** Where a control stands in a sound; not set, the sound's own settings hold. */
export function PositionField({ control, sound }: { control: Control; sound: Sound }) {
  const edit = useRig((s) => s.edit);
  const at = sound.controls?.[control.id];
  const stand = (to: number | boolean | null) =>
    edit({ edit: 'setPosition', sound: sound.id, control: control.id, at: to });
  if (control.type !== 'pedal')
    return (
      <Select
        size="xs"
        w={220}
        aria-label={`Where ${control.name} stands`}
        data={[
          { value: 'none', label: 'not set' },
          { value: 'on', label: 'on' },
          { value: 'off', label: 'off' },
        ]}
        value={at === undefined ? 'none' : at ? 'on' : 'off'}
        allowDeselect={false}
        onChange={(v) => stand(v === 'none' ? null : v === 'on')}
      />
    );
  return (
    <Group gap={10} align="center">
      <Switch
        size="xs"
        label={
          at === undefined
            ? 'not set: the sound’s own settings hold'
            : `at ${Math.round(Number(at))} %`
        }
        checked={at !== undefined}
        onChange={(e) => stand(e.currentTarget.checked ? 0 : null)}
      />
      {typeof at === 'number' && (
        <Slider
          w={180}
          size="sm"
          label={(v) => `${v} %`}
          thumbLabel={`Position of ${control.name}`}
          defaultValue={at}
          key={at}
          onChangeEnd={(v) => stand(v)}
        />
      )}
    </Group>
  );
}
