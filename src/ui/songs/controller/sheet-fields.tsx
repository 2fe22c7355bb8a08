import { Checkbox, Group, Select } from '@mantine/core';
import type { Candidate } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { FieldsRow } from './fields-row';

interface Sheets {
  candidates: Candidate[];
  onChange: (candidate: Candidate, change: Partial<Candidate>) => void;
}

/** What the sheets of the candidates say, as fields. */
export function SheetFields(sheets: Sheets) {
  return (
    <>
      <WhatItDoes {...sheets} />
      <WhatItTakes {...sheets} />
    </>
  );
}

function WhatItDoes(sheets: Sheets) {
  return (
    <>
      <FootRows {...sheets} />
      <YesNoRow {...sheets} />
      <SendsRow {...sheets} />
      <DisplayRow {...sheets} />
    </>
  );
}

/** What a foot finds on it: switches, pedals, jacks for more of them. */
function FootRows({ candidates, onChange: set }: Sheets) {
  return (
    <>
      <FieldsRow
        label="Switches"
        each={candidates}
        cell={(c) => (
          <CommitNumber
            w={80}
            aria-label={`Switches of ${c.name}`}
            min={0}
            max={64}
            allowDecimal={false}
            value={c.switches}
            onCommit={(v) => set(c, { switches: v ?? 0 })}
          />
        )}
      />
      <FieldsRow
        label="Pedals built in, jacks for more"
        each={candidates}
        cell={(c) => (
          <Group gap={4} wrap="nowrap">
            <CommitNumber
              w={64}
              aria-label={`Pedals of ${c.name}`}
              min={0}
              max={8}
              allowDecimal={false}
              value={c.pedals}
              onCommit={(v) => set(c, { pedals: v ?? 0 })}
            />
            <CommitNumber
              w={64}
              aria-label={`Pedal jacks of ${c.name}`}
              min={0}
              max={16}
              allowDecimal={false}
              value={c.pedalJacks}
              onCommit={(v) => set(c, { pedalJacks: v ?? 0 })}
            />
          </Group>
        )}
      />
    </>
  );
}

/** What a sheet answers with yes or no. */
function YesNoRow({ candidates, onChange: set }: Sheets) {
  return (
    <FieldsRow
      label="Toe switch, quiet, soft floors, editor (? is not said)"
      each={candidates}
      cell={(c) => (
        <Group gap={8}>
          {YES_NO.map(([field, label]) => (
            <Checkbox
              key={field}
              size="xs"
              label={c[field] === undefined ? `${label} ?` : label}
              checked={c[field] ?? false}
              onChange={() => set(c, { [field]: !c[field] })}
            />
          ))}
        </Group>
      )}
    />
  );
}

/** The sorts of messages that it sends. */
function SendsRow({ candidates, onChange: set }: Sheets) {
  return (
    <FieldsRow
      label="Sends"
      each={candidates}
      cell={(c) => (
        <Group gap={8}>
          {SENDS.map((s) => (
            <Checkbox
              key={s}
              size="xs"
              label={s}
              checked={c.sends.includes(s)}
              onChange={(e) =>
                set(c, {
                  sends: e.currentTarget.checked ? [...c.sends, s] : c.sends.filter((x) => x !== s),
                })
              }
            />
          ))}
        </Group>
      )}
    />
  );
}

/** What it shows: what it hears back, and how its switches are labelled. */
function DisplayRow({ candidates, onChange: set }: Sheets) {
  return (
    <FieldsRow
      label="Hears back, labels, letters"
      each={candidates}
      cell={(c) => (
        <Group gap={6} wrap="nowrap">
          <Checkbox
            size="xs"
            aria-label={`${c.name} hears back`}
            checked={c.twoWay ?? false}
            onChange={(e) => set(c, { twoWay: e.currentTarget.checked })}
          />
          <Select
            size="xs"
            w={84}
            aria-label={`Labels of ${c.name}`}
            data={['screen', 'tape']}
            value={c.labels ?? null}
            placeholder="?"
            onChange={(v) => set(c, { labels: (v as Candidate['labels']) ?? undefined })}
          />
          <CommitNumber
            w={62}
            aria-label={`Letters of ${c.name}`}
            min={0}
            max={80}
            value={c.letters}
            onCommit={(letters) => set(c, { letters })}
          />
        </Group>
      )}
    />
  );
}

function WhatItTakes({ candidates, onChange: set }: Sheets) {
  return (
    <>
      <FieldsRow
        label="Power, grams, price"
        each={candidates}
        cell={(c) => (
          <Group gap={4} wrap="nowrap">
            <Select
              size="xs"
              w={80}
              aria-label={`Power of ${c.name}`}
              data={['usb', 'mains', '9 V', 'battery']}
              value={c.power ?? null}
              placeholder="?"
              onChange={(v) => set(c, { power: (v as Candidate['power']) ?? undefined })}
            />
            <CommitNumber
              w={76}
              aria-label={`Grams of ${c.name}`}
              min={0}
              value={c.grams}
              onCommit={(grams) => set(c, { grams })}
            />
            <CommitNumber
              w={70}
              aria-label={`Price of ${c.name}`}
              min={0}
              value={c.price}
              onCommit={(price) => set(c, { price })}
            />
          </Group>
        )}
      />
      <FieldsRow
        label="Wide and deep, mm"
        each={candidates}
        cell={(c) => (
          <Group gap={4} wrap="nowrap">
            <CommitNumber
              w={72}
              aria-label={`Width of ${c.name}`}
              min={0}
              value={c.widthMm}
              onCommit={(widthMm) => set(c, { widthMm })}
            />
            <CommitNumber
              w={72}
              aria-label={`Depth of ${c.name}`}
              min={0}
              value={c.depthMm}
              onCommit={(depthMm) => set(c, { depthMm })}
            />
          </Group>
        )}
      />
    </>
  );
}

const YES_NO = [
  ['toeSwitch', 'toe'],
  ['quiet', 'quiet'],
  ['softFloor', 'carpet'],
  ['editor', 'editor'],
] as const;
const SENDS = ['program', 'control', 'clock', 'bend', 'pressure'] as const;
