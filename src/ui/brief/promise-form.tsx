'use client';
import { Button, Group, MultiSelect, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import { allControls } from '../../core/control';
import { kindOf } from '../../core/kinds';
import { freshId, nameOf, promiseSchema, promiseWords, type PromiseType } from '../../core/rig';
import { sourcesOf } from '../../core/walk';
import { useDocument, useRig } from '../store/use-rig';
import { PROMISE_WORDS } from './words';

/** What each promise needs to be told, in the order of its sentence. */
type Field =
  | 'pedal'
  | 'destination'
  | 'destinations'
  | 'source'
  | 'control'
  | 'sounds'
  | 'mutes'
  | 'from'
  | 'to'
  | 'db'
  | 'ms'
  | 'device'
  | 'actions'
  | 'solos'
  | 'soloDb';
const FIELDS: Record<PromiseType, Field[]> = {
  hears: ['destination', 'source', 'sounds'],
  'never-hears': ['destination', 'source', 'sounds'],
  'moves-only': ['control', 'destinations', 'sounds'],
  'control-moves-only': ['pedal', 'destinations', 'sounds'],
  stereo: ['destination', 'sounds'],
  'levels-within': ['destination', 'db', 'sounds', 'solos', 'soloDb'],
  'tuner-hears': ['source', 'sounds'],
  'muted-silent': ['mutes'],
  'tails-survive': ['from', 'to'],
  'one-press': ['from', 'to'],
  'no-tube-unloaded': [],
  'noise-under': ['destination', 'db', 'sounds'],
  'latency-under': ['destination', 'ms', 'sounds'],
  survives: ['device', 'destination', 'actions', 'sounds'],
};
const START = { db: 3, ms: 10, actions: 2, soloDb: 4 };

interface Values {
  pedal?: string;
  destination?: string;
  destinations?: string[];
  source?: string;
  control?: string;
  sounds?: string[];
  from?: string;
  to?: string;
  db?: number;
  ms?: number;
  device?: string;
  actions?: number;
  solos?: string[];
  soloDb?: number;
}

/** A promise put together from a short list: choose the sentence, then fill in its places. */
export function PromiseForm({ onDone }: { onDone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [type, setType] = useState<PromiseType>('hears');
  const [values, setValues] = useState<Values>(START);
  const set = (change: Values) => setValues({ ...values, ...change });
  const destinations = rig.devices
    .filter((d) => kindOf(d.kind).destination)
    .map((d) => ({ value: d.id, label: d.name }));
  const sources = sourcesOf(rig).map((id) => ({ value: id, label: nameOf(rig, id) }));
  const sounds = rig.sounds.map((s) => ({ value: s.id, label: s.name }));
  const controls = rig.devices
    .map((d) => ({
      group: `${d.name} (${d.id})`,
      items: kindOf(d.kind)
        .parameters.filter((p) => p.type !== 'text')
        .map((p) => ({ value: `${d.id} ${p.id}`, label: `${p.label} of ${d.name}` })),
    }))
    .filter((g) => g.items.length);
  const [device, setting] = values.control?.split(' ') ?? [];
  const given = {
    ...values,
    ...(type === 'moves-only' && { device, setting }),
    ...(type === 'control-moves-only' && { control: values.pedal }),
    ...(values.sounds?.length ? {} : { sounds: undefined }),
  };
  const made = promiseSchema.safeParse({
    id: freshId(
      type,
      (rig.promises ?? []).map((p) => p.id),
    ),
    type,
    ...Object.fromEntries(
      Object.entries(given).filter(([key, v]) => v !== undefined && wanted(type).has(key)),
    ),
  });
  const one = (field: Field) => {
    switch (field) {
      case 'destination':
        return (
          <Select
            key={field}
            size="xs"
            label="Destination"
            data={destinations}
            value={values.destination ?? null}
            onChange={(v) => set({ destination: v ?? undefined })}
          />
        );
      case 'destinations':
        return (
          <MultiSelect
            key={field}
            size="xs"
            label="moves only"
            data={destinations}
            value={values.destinations ?? []}
            onChange={(v) => set({ destinations: v })}
          />
        );
      case 'source':
        return (
          <Select
            key={field}
            size="xs"
            label="Source"
            data={sources}
            value={values.source ?? null}
            onChange={(v) => set({ source: v ?? undefined })}
          />
        );
      case 'control':
        return (
          <Select
            key={field}
            size="xs"
            label="Control"
            searchable
            data={controls}
            value={values.control ?? null}
            onChange={(v) => set({ control: v ?? undefined })}
          />
        );
      case 'pedal':
        return (
          <Select
            key={field}
            size="xs"
            label="Pedal or switch"
            data={allControls(rig).map((c) => ({ value: c.id, label: c.name }))}
            value={values.pedal ?? null}
            onChange={(v) => set({ pedal: v ?? undefined })}
          />
        );
      case 'device':
        return (
          <Select
            key={field}
            size="xs"
            label="If this dies"
            searchable
            data={rig.devices.map((d) => ({ value: d.id, label: d.name }))}
            value={values.device ?? null}
            onChange={(v) => set({ device: v ?? undefined })}
          />
        );
      case 'sounds':
        return (
          <MultiSelect
            key={field}
            size="xs"
            label="In these sounds"
            placeholder={values.sounds?.length ? '' : 'every sound'}
            data={sounds}
            value={values.sounds ?? []}
            onChange={(v) => set({ sounds: v })}
          />
        );
      case 'mutes':
        return (
          <MultiSelect
            key={field}
            size="xs"
            label="Sounds that mute"
            data={sounds}
            value={values.sounds ?? []}
            onChange={(v) => set({ sounds: v })}
          />
        );
      case 'solos':
        return (
          <MultiSelect
            key={field}
            size="xs"
            label="Solos among them"
            data={sounds}
            value={values.solos ?? []}
            onChange={(v) => set({ solos: v })}
          />
        );
      case 'from':
        return (
          <Select
            key={field}
            size="xs"
            label="From the sound"
            data={sounds}
            value={values.from ?? null}
            onChange={(v) => set({ from: v ?? undefined })}
          />
        );
      case 'to':
        return (
          <Select
            key={field}
            size="xs"
            label="To the sound"
            data={sounds}
            value={values.to ?? null}
            onChange={(v) => set({ to: v ?? undefined })}
          />
        );
      case 'db':
        return (
          <NumberInput
            key={field}
            size="xs"
            label={type === 'noise-under' ? 'Over, dB' : 'Within, dB'}
            min={0.5}
            max={type === 'noise-under' ? 140 : 60}
            value={values.db}
            onChange={(v) => set({ db: Number(v) })}
          />
        );
      case 'soloDb':
        return (
          <NumberInput
            key={field}
            size="xs"
            label="Solos over them by, dB"
            min={0}
            max={40}
            value={values.soloDb}
            onChange={(v) => set({ soloDb: Number(v) })}
          />
        );
      case 'ms':
        return (
          <NumberInput
            key={field}
            size="xs"
            label="Under, ms"
            min={0.5}
            max={1000}
            value={values.ms}
            onChange={(v) => set({ ms: Number(v) })}
          />
        );
      case 'actions':
        return (
          <NumberInput
            key={field}
            size="xs"
            label="Within actions"
            description="a press, or a plug pulled and put elsewhere"
            min={0}
            max={5}
            value={values.actions}
            onChange={(v) => set({ actions: Number(v) })}
          />
        );
    }
  };
  return (
    <form
      className="promise-form"
      onSubmit={(e) => {
        e.preventDefault();
        if (made.success && edit({ edit: 'addPromise', promise: made.data }).ok) onDone();
      }}
    >
      <Select
        size="xs"
        label="What is promised"
        data={Object.entries(PROMISE_WORDS).map(([value, label]) => ({ value, label }))}
        value={type}
        allowDeselect={false}
        onChange={(v) => {
          setType(v as PromiseType);
          setValues({ ...START, ...(v === 'noise-under' && { db: 50 }) });
        }}
        data-autofocus
      />
      <div className="promise-fields">{FIELDS[type].map(one)}</div>
      <p style={{ fontSize: 14, margin: '6px 0' }} data-sentence>
        {made.success ? (
          `${promiseWords(rig, made.data).replace(/^./, (c) => c.toUpperCase())}.`
        ) : (
          <span className="faint">Fill in the places; the sentence appears here.</span>
        )}
      </p>
      <Group gap={8}>
        <Button size="xs" type="submit" disabled={!made.success}>
          Promise this
        </Button>
        <Button size="xs" variant="default" onClick={onDone}>
          Cancel
        </Button>
      </Group>
    </form>
  );
}

/** Which values a promise of a type takes. */
const wanted = (type: PromiseType): Set<string> =>
  new Set(
    FIELDS[type].flatMap((f) =>
      f === 'control'
        ? ['device', 'setting']
        : f === 'pedal'
          ? ['control']
          : f === 'mutes'
            ? ['sounds']
            : [f],
    ),
  );
