import { Select, Switch } from '@mantine/core';
import type { Parameter } from '../../../core/kinds/kind';
import type { SettingValue } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';

/** A field for a setting's value: a number, one of its choices, or on and off. */
export function ValueField({
  parameter,
  label,
  value,
  onChange,
}: {
  parameter: Parameter | undefined;
  label: string;
  value: SettingValue;
  onChange: (v: SettingValue) => void;
}) {
  if (parameter?.type === 'knob')
    return (
      <CommitNumber
        w={76}
        aria-label={label}
        min={parameter.min}
        max={parameter.max}
        step={0.5}
        value={typeof value === 'number' ? value : parameter.initial}
        onCommit={(v) => v !== undefined && onChange(v)}
      />
    );
  if (parameter?.type === 'choice')
    return (
      <Select
        size="xs"
        w={100}
        aria-label={label}
        data={parameter.options}
        value={typeof value === 'string' ? value : parameter.initial}
        allowDeselect={false}
        onChange={(v) => v && onChange(v)}
      />
    );
  return (
    <Switch
      size="xs"
      aria-label={label}
      checked={value === true}
      onChange={(e) => onChange(e.currentTarget.checked)}
    />
  );
}
