'use client';
import { Popover } from '@mantine/core';
import { walkOrder } from '../../core/walk';
import { kindOf, type Parameter } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import type { Outcome } from '../../core/outcome';
import type { Device, SettingValue, Sound } from '../../core/rig';
import { isEngaged, settingOf, stateIn } from '../../core/rig/device-state';
import type { Rig, State } from '../../core/rig/schema';
import { clockHour } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';
import { SettingField } from '../signal/setting-field';

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
          <CellKnobs kind={kind} device={device} state={state} set={set} />
        </Popover>
      )}
    </td>
  );
}

/** The settings of the device in this sound. */
function CellKnobs({
  kind,
  device,
  state,
  set,
}: {
  kind: Kind;
  device: Device;
  state: State | undefined;
  set: (setting: string, v: SettingValue) => Outcome<Rig>;
}) {
  return (
    <Popover.Dropdown>
      <div className="knobs matrix-cell-width">
        {kind.parameters.map((p) => (
          <SettingField
            key={p.id}
            parameter={p}
            kind={kind}
            device={device}
            state={state}
            inPopover
            onChange={(v) => set(p.id, v)}
          />
        ))}
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
