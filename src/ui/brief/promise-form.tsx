'use client';
import { Button, Group, Select } from '@mantine/core';
import { useState } from 'react';
import {
  type Field,
  fieldsOf,
  freshId,
  PROMISE_TYPES,
  promiseSchema,
  type PromiseType,
  promiseWords,
} from '../../core/rig';
import { useDocument, useRig } from '../store/use-rig';
import { PromiseField, type PromiseValues } from './promise-field';

const SENTENCES = Object.values(PROMISE_TYPES).map((t) => ({ value: t.type, label: t.sentence }));

const startOf = (type: PromiseType): PromiseValues =>
  Object.fromEntries(
    Object.entries(fieldsOf(type)).flatMap(([name, f]) =>
      f.number ? [[name, f.number.start]] : [],
    ),
  );

/** Whether a value says anything: an empty list of sounds means all of them. */
const isGiven = (field: Field, value: unknown): boolean =>
  value !== undefined && !(field.asks === 'sounds' && Array.isArray(value) && value.length === 0);

/** A promise put together from a short list: choose the sentence, then fill in its places. */
export function PromiseForm({ onDone }: { onDone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [type, setType] = useState<PromiseType>('hears');
  const [values, setValues] = useState<PromiseValues>(startOf('hears'));
  const fields = fieldsOf(type);
  const id = freshId(
    type,
    (rig.promises ?? []).map((p) => p.id),
  );
  const given = Object.entries(fields).filter(([name, f]) => isGiven(f, values[name]));
  const made = promiseSchema.safeParse({
    id,
    type,
    ...Object.fromEntries(given.map(([name]) => [name, values[name]])),
  });
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
        data={SENTENCES}
        value={type}
        allowDeselect={false}
        onChange={(v) => {
          if (v === null) return;
          setType(v);
          setValues(startOf(v));
        }}
        data-autofocus
      />
      <div className="promise-fields">
        {Object.entries(fields).map(([name, field]) => (
          <PromiseField
            key={name}
            name={name}
            field={field}
            values={values}
            set={(change) => setValues({ ...values, ...change })}
          />
        ))}
      </div>
      <p className="promise-sentence" data-sentence>
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
