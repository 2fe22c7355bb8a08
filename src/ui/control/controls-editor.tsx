'use client';
import { sure, at as entryAt } from '../../core/outcome';
import {
  ActionIcon,
  Button,
  Group,
  MultiSelect,
  Select,
  Slider,
  Switch,
  TextInput,
  Tooltip,
} from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { useState } from 'react';
import { allControls, endsOfAssignment, stepsOf, valueAt } from '../../core/control';
import { kindOf, type Parameter } from '../../core/kinds';
import {
  type Assignment,
  type Control,
  type Curve,
  deviceOf,
  freshId,
  nameOf,
  type Rig,
  type SettingValue,
  settingWords,
} from '../../core/rig';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { movable } from './movable';

const TYPES: { value: Control['type']; label: string }[] = [
  { value: 'switch', label: 'switch' },
  { value: 'pedal', label: 'pedal' },
  { value: 'tap', label: 'tap' },
  { value: 'message', label: 'MIDI message' },
  { value: 'tempo', label: 'tempo' },
];
const CURVE_NAMES: Record<Curve, string> = {
  linear: 'linear',
  'equal-power': 'equal power',
  audio: 'audio',
  'reverse-audio': 'reverse audio',
};

/**
 * Controls and what each moves: assignments with their own ends and curve, in all sounds or some;
 * and where they stand in the chosen sound.
 */
export function ControlsEditor() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const controls = rig.controls ?? [];
  const own = allControls(rig).filter((c) => !controls.includes(c));
  const [chosen, setChosen] = useState<string | null>(null);
  const control = controls.find((c) => c.id === chosen) ?? controls[0];
  const add = (type: Control['type']) => {
    const id = freshId(
      type,
      controls.map((c) => c.id),
    );
    const name = `${type === 'switch' ? 'Switch' : 'Pedal'} ${controls.length + 1}`;
    if (
      edit({
        edit: 'addControl',
        control: { id, name, type, ...(type === 'switch' && { action: 'latching' }), assigns: [] },
      }).ok
    )
      setChosen(id);
  };
  return (
    <div className="scroll two-columns">
      <section>
        <h3 className="controls-editor-gap">Controls</h3>
        <table className="sheet-table" data-table="controls">
          <thead>
            <tr>
              <th>Name</th>
              <th>Type</th>
              <th>Moves</th>
            </tr>
          </thead>
          <tbody>
            {controls.map((c) => (
              <tr
                key={c.id}
                data-click
                data-control={c.id}
                aria-current={c === control}
                tabIndex={0}
                onClick={() => setChosen(c.id)}
                onKeyDown={(e) => e.key === 'Enter' && setChosen(c.id)}
              >
                <td>
                  <strong>{c.name}</strong>
                </td>
                <td>
                  {sure(TYPES.find((t) => t.value === c.type)).label}
                  {c.action ? `, ${c.action}` : ''}
                  {c.device && nameOf(rig, c.device) !== c.name ? (
                    <div className="faint common-text">on {nameOf(rig, c.device)}</div>
                  ) : null}
                </td>
                <td>{c.assigns.map((a) => nameOf(rig, a.device)).join(', ') || 'nothing yet'}</td>
              </tr>
            ))}
            {own.map((c) => (
              <tr key={c.id} className="faint">
                <td>{c.name}</td>
                <td>pedal</td>
                <td>itself</td>
              </tr>
            ))}
          </tbody>
        </table>
        {controls.length + own.length === 0 && (
          <div className="empty">
            Nothing is moved by a foot yet. Add a switch or a pedal, then say what it moves: one
            switch can bring one level up and another down.
          </div>
        )}
        <Group gap={6} mt={8}>
          <Button size="compact-sm" variant="default" onClick={() => add('switch')}>
            Add a switch
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => add('pedal')}>
            Add a pedal
          </Button>
        </Group>
      </section>
      {control ? (
        <OneControl key={control.id} control={control} />
      ) : (
        <section className="faint">
          Opposite ends on two levels make a swap (on a switch) or a crossfade (on a pedal). What a
          control reaches is under Reach and sweeps.
        </section>
      )}
    </div>
  );
}

function OneControl({ control }: { control: Control }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const set = (change: Partial<Control>) =>
    edit({ edit: 'setControl', control: { ...control, ...change } });
  const setAssign = (a: Assignment, change: Partial<Assignment>) =>
    set({ assigns: control.assigns.map((x) => (x === a ? { ...x, ...change } : x)) });
  const places = rig.devices.filter(
    (d) =>
      kindOf(d.kind).switches ||
      kindOf(d.kind).jacks.some((j) => j.gives || j.reads) ||
      kindOf(d.kind).hosts,
  );
  const at = sound?.controls?.[control.id];
  const add = (device: string) => {
    const setting = movable(rig, device)[0]?.value;
    if (setting)
      set({
        assigns: [
          ...control.assigns,
          {
            id: freshId(
              `${device}-${setting}`,
              control.assigns.map((a) => a.id),
            ),
            device,
            setting,
          },
        ],
      });
  };
  return (
    <section data-editor="control">
      <Group gap={8} align="end">
        <TextInput
          size="xs"
          label="Name"
          key={control.name}
          defaultValue={control.name}
          onBlur={(e) =>
            e.currentTarget.value.trim() &&
            e.currentTarget.value !== control.name &&
            set({ name: e.currentTarget.value.trim() })
          }
        />
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
      {control.type === 'pedal' && (
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
      )}
      <h3>In {sound?.name ?? 'this sound'}</h3>
      {control.type === 'pedal' ? (
        <Group gap={10} align="center">
          <Switch
            size="xs"
            label={
              at === undefined
                ? 'not set: the sound’s own settings hold'
                : `at ${Math.round(Number(at))} %`
            }
            checked={at !== undefined}
            onChange={(e) =>
              sound &&
              edit({
                edit: 'setPosition',
                sound: sound.id,
                control: control.id,
                at: e.currentTarget.checked ? 0 : null,
              })
            }
          />
          {typeof at === 'number' && (
            <Slider
              w={180}
              size="sm"
              label={(v) => `${v} %`}
              thumbLabel={`Position of ${control.name}`}
              defaultValue={at}
              key={at}
              onChangeEnd={(v) =>
                sound && edit({ edit: 'setPosition', sound: sound.id, control: control.id, at: v })
              }
            />
          )}
        </Group>
      ) : (
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
          onChange={(v) =>
            sound &&
            edit({
              edit: 'setPosition',
              sound: sound.id,
              control: control.id,
              at: v === 'none' ? null : v === 'on',
            })
          }
        />
      )}
      <h3>Moves</h3>
      <table className="sheet-table" data-table="assignments">
        <thead>
          <tr>
            <th>Device</th>
            <th>Setting</th>
            <th>{control.type === 'pedal' ? 'Heel' : 'Off'}</th>
            <th>{control.type === 'pedal' ? 'Toe' : 'On'}</th>
            {control.type === 'pedal' && <th>Curve</th>}
            <th>In</th>
            <th>CC</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {control.assigns.map((a) => {
            const device = deviceOf(rig, a.device);
            const p = device && kindOf(device.kind).parameters.find((x) => x.id === a.setting);
            const steps = device ? stepsOf(rig, control, device.id) : 0;
            const [low, high] = endsOfAssignment(rig, a);
            return (
              <tr key={a.id} data-assignment={a.id}>
                <td>
                  <Select
                    size="xs"
                    w={136}
                    searchable
                    aria-label="Device"
                    data={rig.devices
                      .filter((d) => movable(rig, d.id).length)
                      .map((d) => ({ value: d.id, label: d.name }))}
                    value={a.device}
                    allowDeselect={false}
                    onChange={(v) =>
                      v &&
                      setAssign(a, {
                        device: v,
                        setting: entryAt(movable(rig, v), 0).value,
                        min: undefined,
                        max: undefined,
                        on: undefined,
                        off: undefined,
                      })
                    }
                  />
                </td>
                <td>
                  <Select
                    size="xs"
                    w={126}
                    aria-label="Setting"
                    data={movable(rig, a.device)}
                    value={a.setting}
                    allowDeselect={false}
                    onChange={(v) =>
                      v &&
                      setAssign(a, {
                        setting: v,
                        min: undefined,
                        max: undefined,
                        on: undefined,
                        off: undefined,
                      })
                    }
                  />
                </td>
                {control.type === 'pedal' && p?.type === 'knob' ? (
                  <>
                    <td>
                      <CommitNumber
                        w={66}
                        aria-label="Value at the heel"
                        min={p.min}
                        max={p.max}
                        step={0.5}
                        value={low}
                        onCommit={(v) => setAssign(a, { min: v })}
                      />
                    </td>
                    <td>
                      <CommitNumber
                        w={66}
                        aria-label="Value at the toe"
                        min={p.min}
                        max={p.max}
                        step={0.5}
                        value={high}
                        onCommit={(v) => setAssign(a, { max: v })}
                      />
                    </td>
                  </>
                ) : (
                  <>
                    <td>
                      <ValueField
                        parameter={p}
                        label="Value when off"
                        value={a.off ?? valueAt(rig, control, a, false)}
                        onChange={(v) => setAssign(a, { off: v })}
                      />
                    </td>
                    <td>
                      <ValueField
                        parameter={p}
                        label="Value when on"
                        value={a.on ?? valueAt(rig, control, a, true)}
                        onChange={(v) => setAssign(a, { on: v })}
                      />
                    </td>
                  </>
                )}
                {control.type === 'pedal' && (
                  <td>
                    <Select
                      size="xs"
                      w={104}
                      aria-label="Curve"
                      data={Object.entries(CURVE_NAMES).map(([value, label]) => ({ value, label }))}
                      value={a.curve ?? 'linear'}
                      allowDeselect={false}
                      onChange={(v) => v && setAssign(a, { curve: v as Curve })}
                    />
                  </td>
                )}
                <td>
                  <MultiSelect
                    size="xs"
                    w={132}
                    aria-label="Sounds it holds in"
                    placeholder={a.sounds?.length ? '' : 'every sound'}
                    data={rig.sounds.map((s) => ({ value: s.id, label: s.name }))}
                    value={a.sounds ?? []}
                    onChange={(v) => setAssign(a, { sounds: v.length ? v : undefined })}
                  />
                </td>
                <td>
                  <CommitNumber
                    w={64}
                    aria-label="Control change"
                    min={0}
                    max={127}
                    allowDecimal={false}
                    placeholder="–"
                    value={a.cc}
                    onCommit={(v) => setAssign(a, { cc: v })}
                  />
                  {steps === 128 && <span className="faint common-text">128 steps</span>}
                </td>
                <td>
                  <Tooltip label="Take out">
                    <ActionIcon
                      size="sm"
                      variant="default"
                      aria-label={`Take ${nameOf(rig, a.device)} out of ${control.name}`}
                      onClick={() => set({ assigns: control.assigns.filter((x) => x !== a) })}
                    >
                      <IconTrash size={14} />
                    </ActionIcon>
                  </Tooltip>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Select
        mt={8}
        size="xs"
        w={260}
        searchable
        placeholder="Add something that it moves …"
        aria-label="Add a device that it moves"
        data={rig.devices
          .filter((d) => movable(rig, d.id).length)
          .map((d) => ({ value: d.id, label: d.name }))}
        value={null}
        onChange={(v) => v && add(v)}
      />
      {control.assigns.length > 0 && (
        <p className="faint common-text-2">
          {(control.type === 'pedal' ? [0, 50, 100] : [false, true])
            .map(
              (x) =>
                (typeof x === 'number' ? `${x} %` : x ? 'on' : 'off') +
                ': ' +
                control.assigns
                  .map(
                    (a) => `${nameOf(rig, a.device)} ${words(rig, a, valueAt(rig, control, a, x))}`,
                  )
                  .join(', '),
            )
            .join(' · ')}
        </p>
      )}
    </section>
  );
}

const words = (rig: Rig, a: Assignment, value: SettingValue): string =>
  a.setting === 'engaged'
    ? value
      ? 'engaged'
      : 'bypassed'
    : settingWords(
        deviceOf(rig, a.device)?.kind,
        a.setting,
        typeof value === 'number' ? Number(value.toFixed(1)) : value,
      );

function ValueField({
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
