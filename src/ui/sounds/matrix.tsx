'use client';
import { Popover, Select, Switch } from '@mantine/core';
import { walkOrder } from '../../core/changes';
import { kindOf, type Parameter } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import type { Outcome } from '../../core/outcome';
import type { Device, SettingValue, Sound } from '../../core/rig';
import { isEngaged, resolveState, settingOf, stateIn } from '../../core/rig/device-state';
import type { Rig, State } from '../../core/rig/schema';
import { clockHour } from '../../core/units';
import { Knob } from '../signal/knob';
import { TextSetting } from '../signal/text-setting';
import { useDocument, useRig } from '../store/use-rig';

/** Devices by sounds: what is engaged where, and where the knobs stand. */
export function SoundMatrix() {
  const rig = useDocument();
  const current = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const order = walkOrder(rig);
  const rank = (d: Device) => (order.includes(d.id) ? order.indexOf(d.id) : order.length);
  const rows = [...rig.devices]
    .sort((a, b) => rank(a) - rank(b))
    .filter((d) => !kindOf(d.kind).alwaysOn || kindOf(d.kind).parameters.length > 0);
  return (
    <div className="scroll">
      <table className="sheet-table matrix">
        <thead>
          <tr>
            <th>Device</th>
            {rig.sounds.map((s) => (
              <th
                key={s.id}
                className={`${s.id === current ? 'now' : ''} sound-matrix-th`}

                onClick={() => setSound(s.id)}
              >
                {s.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((d) => (
            <tr key={d.id}>
              <td className="one-line">
                <strong>{d.name}</strong>
                <div className="faint common-text">{kindOf(d.kind).name}</div>
              </td>
              {rig.sounds.map((s) => (
                <MatrixCell key={s.id} device={d} sound={s} now={s.id === current} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function MatrixCell({ device, sound, now }: { device: Device; sound: Sound; now: boolean }) {
  const edit = useRig((s) => s.edit);
  const kind = kindOf(device.kind);
  const state = stateIn(sound, device.id);
  const on = isEngaged(kind, device, state);
  const words = kind.alwaysOn
    ? 'always'
    : on
      ? (kind.stateWords?.on ?? 'on')
      : (kind.stateWords?.off ?? 'off');
  const value = (id: string) => settingOf(kind, device, state, id);
  const reading = kind.parameters
    .map((p) => short(p, value(p.id)))
    .filter(Boolean)
    .join(' · ');
  const set = (setting: string, v: SettingValue) =>
    edit({ edit: 'setSetting', device: device.id, sound: sound.id, setting, value: v });
  return (
    <td className={`state${now ? ' now' : ''}`} data-cell={`${device.id} ${sound.id}`}>
      <button
        type="button"
        className="sheet-cell"
        data-on={on && !kind.alwaysOn}
        disabled={kind.alwaysOn}
        aria-label={`${device.name} in ${sound.name}: ${words}`}
        onClick={() =>
          edit({ edit: 'setEngaged', device: device.id, sound: sound.id, engaged: !on })
        }
      >
        {words}
      </button>
      {kind.parameters.length > 0 && (
        <Popover position="bottom" withinPortal>
          <Popover.Target>
            <button
              type="button"
              className="figures faint matrix-cell-box"
              title={kind.parameters.map((p) => p.label).join(' · ')}
              aria-label={`Settings of ${device.name} in ${sound.name}: ${reading}`}
              style={{
                fontWeight: state?.settings ? 700 : 400,
                color: state?.settings ? 'var(--ink)' : undefined,
              }}
            >
              {reading || 'set …'}
            </button>
          </Popover.Target>
          <CellKnobs kind={kind} value={value} device={device} state={state} set={set} />
        </Popover>
      )}
    </td>
  );
}

/** The settings of the device in this sound. */
function CellKnobs({
  kind,
  value,
  device,
  state,
  set,
}: {
  kind: Kind;
  value: (id: string) => SettingValue | undefined;
  device: Device;
  state: State | undefined;
  set: (setting: string, v: SettingValue) => Outcome<Rig>;
}) {
  return (
    <Popover.Dropdown>
      <div className="knobs matrix-cell-width">
        {kind.parameters.map((p) => {
          if (p.type === 'knob')
            return (
              <Knob
                key={p.id}
                parameter={p}
                value={Number(value(p.id) ?? 0)}
                figure={(f) => resolveState(kind, device, state).figure(f)}
                own={state?.settings !== undefined && Object.hasOwn(state.settings, p.id)}
                onChange={(v) => set(p.id, v)}
              />
            );
          if (p.type === 'text')
            return (
              <TextSetting
                key={p.id}
                parameter={p}
                value={String(value(p.id) ?? '')}
                onCommit={(v) => set(p.id, v)}
              />
            );
          if (p.type === 'choice')
            return (
              <Select
                key={p.id}
                size="xs"
                label={p.label}
                data={p.options}
                value={String(value(p.id))}
                allowDeselect={false}
                comboboxProps={{ withinPortal: false }}
                onChange={(v) => v && set(p.id, v)}
              />
            );
          return (
            <Switch
              key={p.id}
              size="xs"
              label={p.label}
              checked={value(p.id) === true}
              onChange={(e) => set(p.id, e.currentTarget.checked)}
            />
          );
        })}
      </div>
    </Popover.Dropdown>
  );
}

/**
 * A setting in as few letters as will do: knobs by clock hour, choices by their word, switches only
 * where they are on.
 */
function short(p: Parameter, value: SettingValue | undefined): string {
  if (p.type === 'knob') {
    if (p.unit !== undefined) return `${Number(value ?? 0)} ${p.unit}`.trim();
    const hour = clockHour(Number(value ?? 0));
    return (
      hour.replace(" o'clock", '').replace('half past ', '') + (hour.startsWith('half') ? '½' : '')
    );
  }
  if (p.type === 'choice') return p.options.find((o) => o.value === value)?.label ?? '';
  if (p.type === 'text') return String(value ?? '');
  return value === true && value !== p.initial ? p.label.toLowerCase() : '';
}
