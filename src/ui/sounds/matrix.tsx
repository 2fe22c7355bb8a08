'use client';
import { Popover } from '@mantine/core';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { walkOrder } from '../../core/walk';
import { kindOf, type Parameter } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import type { Outcome } from '../../core/outcome';
import type { Device, SettingValue, Sound } from '../../core/rig';
import { isEngaged, settingOf, stateIn } from '../../core/rig/device-state';
import type { Rig, State } from '../../core/rig/schema';
import { asSet, clockHour } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';
import { SettingField } from '../signal/setting-field';

/** Devices by sounds: what is engaged where, and where the knobs stand. */
export function SoundMatrix() {
  const rig = useDocument();
  const current = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const [painting, setPainting] = useState<Painting | null>(null);
  useEffect(() => {
    const stop = () => setPainting(null);
    window.addEventListener('pointerup', stop);
    return () => window.removeEventListener('pointerup', stop);
  }, []);
  const order = walkOrder(rig);
  const rank = (d: Device) => (order.includes(d.id) ? order.indexOf(d.id) : order.length);
  const rows = [...rig.devices]
    .sort((a, b) => rank(a) - rank(b))
    .filter((d) => !kindOf(d.kind).alwaysOn || kindOf(d.kind).parameters.length > 0);
  const first = rows.find((d) => !kindOf(d.kind).alwaysOn) ?? rows[0];
  return (
    <div className="scroll">
      <p className="faint small-print matrix-hint">
        Arrow keys go from cell to cell, Space turns one on or off; draw over several to turn them
        all.
      </p>
      {/* A grid is one stop of the Tab key; arrows go about in it. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
      <table
        className="sheet-table matrix"
        onKeyDown={goAbout}
        onPointerDown={() => setPainting(null)}
      >
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
                <MatrixCell
                  key={s.id}
                  device={d}
                  sound={s}
                  now={s.id === current}
                  isFirst={d === first && s === rig.sounds[0]}
                  painting={painting}
                  onPaint={setPainting}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A hand that draws over cells: what it turns them to, and the name of the one step that this is. */
interface Painting {
  engaged: boolean;
  going: string;
}

const WAYS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Arrow keys go from cell to cell, past those that cannot be turned; the others come with Tab again. */
function goAbout(event: KeyboardEvent<HTMLTableElement>): void {
  const way = WAYS[event.key];
  const at = (event.target as HTMLElement).closest<HTMLTableCellElement>('td[data-cell]');
  const row = at?.parentElement as HTMLTableRowElement | null;
  const body = row?.parentElement as HTMLTableSectionElement | null;
  if (!way || !at || !row || !body) return;
  event.preventDefault();
  let [r, c] = [row.sectionRowIndex, at.cellIndex];
  for (;;) {
    [r, c] = [r + way[0], c + way[1]];
    const cell = body.rows[r]?.cells[c];
    if (!cell?.dataset.cell) return;
    const button = cell.querySelector<HTMLButtonElement>('button:enabled');
    if (!button) continue;
    for (const b of event.currentTarget.querySelectorAll<HTMLElement>('td button')) b.tabIndex = -1;
    for (const b of cell.querySelectorAll<HTMLElement>('button')) b.tabIndex = 0;
    return button.focus();
  }
}

function MatrixCell({
  device,
  sound,
  now,
  isFirst,
  painting,
  onPaint,
}: {
  device: Device;
  sound: Sound;
  now: boolean;
  /** Where Tab comes in. */
  isFirst: boolean;
  painting: Painting | null;
  onPaint: (painting: Painting) => void;
}) {
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
  const turn = (engaged: boolean, going?: string) =>
    edit({ edit: 'setEngaged', device: device.id, sound: sound.id, engaged }, undefined, going);
  return (
    <td className={`state${now ? ' now' : ''}`} data-cell={`${device.id} ${sound.id}`}>
      <button
        type="button"
        className="sheet-cell"
        data-on={on && !kind.alwaysOn}
        disabled={kind.alwaysOn}
        tabIndex={isFirst ? 0 : -1}
        aria-label={`${device.name} in ${sound.name}: ${words}`}
        onPointerDown={(e) => {
          e.stopPropagation();
          e.currentTarget.releasePointerCapture(e.pointerId);
          const begun = { engaged: !on, going: `painting ${e.timeStamp}` };
          onPaint(begun);
          turn(begun.engaged, begun.going);
        }}
        onPointerEnter={() =>
          painting && painting.engaged !== on && turn(painting.engaged, painting.going)
        }
        onClick={(e) => e.detail === 0 && turn(!on)}
      >
        {words}
      </button>
      {kind.parameters.length > 0 && (
        <Popover position="bottom" withinPortal>
          <Popover.Target>
            <button
              type="button"
              tabIndex={isFirst ? 0 : -1}
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
    if (p.unit !== undefined) return asSet(Number(value ?? 0), p.unit);
    const hour = clockHour(Number(value ?? 0));
    return (
      hour.replace(" o'clock", '').replace('half past ', '') + (hour.startsWith('half') ? '½' : '')
    );
  }
  if (p.type === 'choice') return p.options.find((o) => o.value === value)?.label ?? '';
  if (p.type === 'text') return String(value ?? '');
  return value === true && value !== p.initial ? p.label.toLowerCase() : '';
}
