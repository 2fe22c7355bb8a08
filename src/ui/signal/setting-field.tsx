'use client';
import { Select, Switch } from '@mantine/core';
import type { Parameter } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import type { Device, SettingValue } from '../../core/rig';
import { resolveState, settingOf } from '../../core/rig/device-state';
import type { State } from '../../core/rig/schema';
import { Knob } from './knob';
import { TextSetting } from './text-setting';

/** One setting of a device in a sound, as a knob, a choice, a switch or a line of text. */
export function SettingField({
  parameter: p,
  kind,
  device,
  state,
  hint,
  inPopover = false,
  onChange,
}: {
  parameter: Parameter;
  kind: Kind;
  device: Device;
  state: State | undefined;
  /** What a written setting is like, in words. */
  hint?: string;
  /** A list that opens stays within the popover, which would close otherwise. */
  inPopover?: boolean;
  /** `going`: what is going on, where a hand is still on it. */
  onChange: (value: SettingValue, going?: string) => void;
}) {
  const value = settingOf(kind, device, state, p.id) ?? p.initial;
  switch (p.type) {
    case 'knob':
      return (
        <Knob
          parameter={p}
          value={Number(value)}
          figure={(f) => resolveState(kind, device, state).figure(f)}
          own={state?.settings !== undefined && Object.hasOwn(state.settings, p.id)}
          onChange={onChange}
        />
      );
    case 'text':
      return <TextSetting parameter={p} value={String(value)} hint={hint} onCommit={onChange} />;
    case 'choice':
      return (
        <Select
          size="xs"
          label={p.label}
          data={p.options}
          value={String(value)}
          allowDeselect={false}
          comboboxProps={{ withinPortal: !inPopover }}
          onChange={(v) => v && onChange(v)}
        />
      );
    case 'switch':
      return (
        <Switch
          size="xs"
          label={p.label}
          checked={value === true}
          onChange={(e) => onChange(e.currentTarget.checked)}
        />
      );
  }
}
