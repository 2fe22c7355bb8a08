import { MultiSelect, NumberInput, Select } from '@mantine/core';
import { allControls } from '../../core/control';
import { kindOf } from '../../core/kinds';
import { type Asks, type Field, fieldSchema, nameOf, type Rig } from '../../core/rig';
import { sourcesOf } from '../../core/walk';
import { useDocument } from '../store/use-rig';

/** What was chosen so far, by the names of a promise's fields. */
export type PromiseValues = Record<string, string | string[] | number | undefined>;

interface Option {
  value: string;
  label: string;
}

const named = (things: readonly { id: string; name: string }[]): Option[] =>
  things.map(({ id, name }) => ({ value: id, label: name }));

/** Settings of all devices in groups; a value names the device and the setting. */
const settingsOf = (rig: Rig) =>
  rig.devices
    .map((d) => ({
      group: `${d.name} (${d.id})`,
      items: kindOf(d.kind)
        .parameters.filter((p) => p.type !== 'text')
        .map((p) => ({ value: `${d.id} ${p.id}`, label: `${p.label} of ${d.name}` })),
    }))
    .filter((g) => g.items.length);

/** What there is to choose from, for each way to ask. */
const CHOICES: Partial<Record<Asks, (rig: Rig) => Option[]>> = {
  destination: (rig) => named(rig.devices.filter((d) => kindOf(d.kind).destination)),
  destinations: (rig) => named(rig.devices.filter((d) => kindOf(d.kind).destination)),
  source: (rig) => sourcesOf(rig).map((id) => ({ value: id, label: nameOf(rig, id) })),
  side: () => [
    { value: 'left', label: 'left' },
    { value: 'right', label: 'right' },
  ],
  weighting: () => [{ value: 'loudness', label: 'loudness of a note' }],
  device: (rig) => named(rig.devices),
  control: (rig) => named(allControls(rig)),
  sound: (rig) => named(rig.sounds),
  sounds: (rig) => named(rig.sounds),
};

/** What holds where nothing was chosen. */
const LEFT_OUT: Partial<Record<Asks, string>> = {
  side: 'both sides',
  weighting: 'level at 1 kHz',
};

/** Whether a destination was chosen that has two inputs to choose from. */
const hasTwoSides = (rig: Rig, destination: PromiseValues[string]): boolean => {
  const device = rig.devices.find((d) => d.id === destination);
  return (device && kindOf(device.kind).destination?.jacks.length === 2) ?? false;
};

/** Asks for one place in a promise's sentence. */
export function PromiseField({
  name,
  field,
  values,
  set,
}: {
  name: string;
  field: Field;
  values: PromiseValues;
  set: (change: PromiseValues) => void;
}) {
  const rig = useDocument();
  const { asks, label } = field;
  const value = values[name];
  // The device of a setting is chosen with the setting.
  if (asks === 'device of a setting') return null;
  if (asks === 'side' && value === undefined && !hasTwoSides(rig, values.destination)) return null;
  if (asks === 'setting')
    return (
      <Select
        size="xs"
        label={label}
        searchable
        data={settingsOf(rig)}
        value={typeof value === 'string' ? `${String(values.device)} ${value}` : null}
        onChange={(v) => {
          const [device, setting] = v?.split(' ') ?? [];
          set({ device, [name]: setting });
        }}
      />
    );
  if (asks === 'number')
    return (
      <NumberInput
        size="xs"
        label={label}
        description={field.number?.hint}
        min={field.number?.min}
        max={field.number?.max}
        value={typeof value === 'number' ? value : undefined}
        onChange={(v) => set({ [name]: Number(v) })}
      />
    );
  const data = CHOICES[asks]?.(rig) ?? [];
  if (asks === 'sounds' || asks === 'destinations') {
    const chosen = Array.isArray(value) ? value : [];
    const isAll = name === 'sounds' && fieldSchema(field).safeParse(undefined).success;
    return (
      <MultiSelect
        searchable
        size="xs"
        label={label}
        placeholder={isAll && !chosen.length ? 'every sound' : ''}
        data={data}
        value={chosen}
        onChange={(v) => set({ [name]: v })}
      />
    );
  }
  const isOptional = fieldSchema(field).safeParse(undefined).success;
  return (
    <Select
      size="xs"
      label={label}
      searchable={asks === 'device'}
      clearable={isOptional}
      placeholder={isOptional ? (LEFT_OUT[asks] ?? 'each') : undefined}
      data={data}
      value={typeof value === 'string' ? value : null}
      onChange={(v) => set({ [name]: v ?? undefined })}
    />
  );
}
