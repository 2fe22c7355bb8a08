'use client';
import { Popover } from '@mantine/core';
import { isEngaged, kindOf, resolveState, settingOf, stateIn } from '../../core/kinds';
import { type Device, type Sound, walkOrder } from '../../core/rig';
import { clockHour } from '../../core/units';
import { Knob } from '../signal/knob';
import { useDocument, useRig } from '../store/use-rig';

/** Devices by sounds: what is engaged where, and where the knobs stand. */
export function SoundMatrix() {
  const rig = useDocument();
  const current = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const order = walkOrder(rig);
  const rank = (d: Device) => (order.includes(d.id) ? order.indexOf(d.id) : order.length);
  const rows = [...rig.devices].sort((a, b) => rank(a) - rank(b)).filter((d) => !kindOf(d.kind).alwaysOn || kindOf(d.kind).parameters.length > 0);
  return (
    <div className="scroll">
      <table className="sheet-table matrix">
        <thead>
          <tr>
            <th>Device</th>
            {rig.sounds.map((s) => <th key={s.id} className={s.id === current ? 'now' : ''} style={{ cursor: 'pointer' }} onClick={() => setSound(s.id)}>{s.name}</th>)}
          </tr>
        </thead>
        <tbody>
          {rows.map((d) => (
            <tr key={d.id}>
              <td style={{ whiteSpace: 'nowrap' }}><strong>{d.name}</strong><div className="faint" style={{ fontSize: 11 }}>{kindOf(d.kind).name}</div></td>
              {rig.sounds.map((s) => <MatrixCell key={s.id} device={d} sound={s} now={s.id === current} />)}
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
  const words = kind.alwaysOn ? 'always' : on ? (kind.stateWords?.on ?? 'on') : (kind.stateWords?.off ?? 'off');
  const knobs = kind.parameters.filter((p) => p.type === 'knob');
  const value = (id: string) => Number(settingOf(kind, device, state, id) ?? 0);
  const reading = knobs.map((p) => (p.unit ? `${value(p.id)} ${p.unit}` : clockHour(value(p.id)).replace(" o'clock", '').replace('half past ', '') + (clockHour(value(p.id)).startsWith('half') ? '½' : ''))).join(' · ');
  return (
    <td className={`state${now ? ' now' : ''}`} data-cell={`${device.id} ${sound.id}`}>
      <button type="button" className="sheet-cell" data-on={on && !kind.alwaysOn} disabled={kind.alwaysOn} aria-label={`${device.name} in ${sound.name}: ${words}`} onClick={() => edit({ edit: 'setEngaged', device: device.id, sound: sound.id, engaged: !on })}>{words}</button>
      {knobs.length > 0 && (
        <Popover position="bottom" withinPortal>
          <Popover.Target>
            <button type="button" className="figures faint" title={knobs.map((p) => p.label).join(' · ')} aria-label={`Knobs of ${device.name} in ${sound.name}: ${reading}`} style={{ display: 'block', width: '100%', border: 0, background: 'none', fontSize: 11, minHeight: 24, cursor: 'pointer', fontWeight: state?.settings ? 700 : 400, color: state?.settings ? 'var(--ink)' : undefined }}>{reading}</button>
          </Popover.Target>
          <Popover.Dropdown>
            <div className="knobs" style={{ maxWidth: 300 }}>
              {knobs.map((p) => (
                <Knob key={p.id} parameter={p} value={value(p.id)} figure={resolveState(kind, device, state).figure} own={state?.settings !== undefined && Object.hasOwn(state.settings, p.id)} onChange={(v) => edit({ edit: 'setSetting', device: device.id, sound: sound.id, setting: p.id, value: v })} />
              ))}
            </div>
          </Popover.Dropdown>
        </Popover>
      )}
    </td>
  );
}
