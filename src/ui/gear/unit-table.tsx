'use client';
import { ActionIcon, Button, Select, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import Link from 'next/link';
import { useState } from 'react';
import type { LockerUnit } from '../../core/rig';
import { CommitNumber } from '../look/commit-number';
import { CommitText } from '../look/commit-text';
import { Photographs } from './photographs';

/** What a person can do to a unit. */
interface Acts {
  /** The sheets that can say what it is. */
  sheets: readonly { id: string; name: string }[];
  put: (u: LockerUnit, change: Partial<LockerUnit>) => Promise<boolean>;
  remove: (u: LockerUnit) => void;
  exchange: (u: LockerUnit) => void;
  /** Its photographs changed, or why they did not. */
  photographed: (problem: string | null) => void;
}

/** The units, one a row. */
export function UnitTable({ shown, acts }: { shown: readonly LockerUnit[]; acts: Acts }) {
  return (
    <table className="sheet-table phone-cards figures" data-table="locker">
      <thead>
        <tr>
          <th>Serial number</th>
          <th>Unit</th>
          <th>Owner</th>
          <th>Weight, g</th>
          <th>Value</th>
          <th>Sheet</th>
          <th>Used now in</th>
          <th>Photographs</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {shown.map((u) => (
          <UnitRow key={u.serial} u={u} acts={acts} />
        ))}
      </tbody>
    </table>
  );
}

/** One unit: what it is, whose, what it weighs and is worth, and where it is used now. */
function UnitRow({ u, acts }: { u: LockerUnit; acts: Acts }) {
  const { put } = acts;
  return (
    <tr data-unit={u.serial}>
      <td>
        <span className="display gear-serial">{u.serial}</span>
        {u.doubleBooked && (
          <div>
            <strong className="over">
              double-booked{u.clashes.length > 0 && ` on ${u.clashes.join(', ')}`}
            </strong>
          </div>
        )}
      </td>
      <td data-called="Unit">
        <Field
          label={`Name of ${u.serial}`}
          value={u.name}
          wide={150}
          onCommit={(name) => name && void put(u, { name })}
        />
      </td>
      <td data-called="Owner">
        <Field
          label={`Owner of ${u.serial}`}
          value={u.owner}
          wide={124}
          onCommit={(owner) => void put(u, { owner })}
        />
      </td>
      <td data-called="Weight, g">
        <CommitNumber
          w={82}
          aria-label={`Weight of ${u.serial}`}
          min={0}
          max={1e6}
          value={u.grams ?? undefined}
          onCommit={(v) => void put(u, { grams: v ?? null })}
        />
      </td>
      <td data-called="Value">
        <CommitNumber
          w={82}
          aria-label={`Value of ${u.serial}`}
          min={0}
          max={1e9}
          value={u.value ?? undefined}
          onCommit={(v) => void put(u, { value: v ?? null })}
        />
      </td>
      <td data-called="Sheet">
        <Select
          size="xs"
          w={124}
          searchable
          clearable
          aria-label={`Sheet of ${u.serial}`}
          placeholder="none"
          data={acts.sheets.map((s) => ({ value: s.id, label: s.name }))}
          value={u.sheet}
          onChange={(sheet) => void put(u, { sheet })}
        />
      </td>
      <td data-called="Used now in">
        <Uses uses={u.uses} />
      </td>
      <td data-called="Photographs">
        <Photographs
          is="unit"
          id={u.serial}
          name={`${u.name}, ${u.serial}`}
          photographs={u.photographs}
          onChange={acts.photographed}
        />
      </td>
      <td>
        {u.uses.length === 0 ? (
          <ActionIcon
            size="md"
            variant="subtle"
            aria-label={`Take ${u.serial} out of the locker`}
            onClick={() => acts.remove(u)}
          >
            <IconX size={14} />
          </ActionIcon>
        ) : (
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Exchange … ${u.serial}`}
            onClick={() => acts.exchange(u)}
          >
            Exchange …
          </Button>
        )}
      </td>
    </tr>
  );
}

/** Where a unit is used: in rigs that are in use line by line, in those that are put away when asked for. */
function Uses({ uses }: { uses: LockerUnit['uses'] }) {
  const [now, then] = [uses.filter((x) => !x.archived), uses.filter((x) => x.archived)];
  const line = (x: LockerUnit['uses'][number]) => (
    <div key={`${x.rig} ${x.device}`}>
      <Link href={`/rigs/${x.rig}/build?part=gear`} className="common-text-4">
        {x.rigName}
      </Link>
      : {x.deviceName}
    </div>
  );
  return (
    <>
      {now.map(line)}
      {!now.length && <span className="faint">in the locker</span>}
      {then.length > 0 && (
        <details>
          <summary>{`in ${then.length} archived ${then.length === 1 ? 'rig' : 'rigs'}`}</summary>
          {then.map(line)}
        </details>
      )}
    </>
  );
}

function Field({
  label,
  value,
  wide,
  onCommit,
}: {
  label: string;
  value: string;
  wide: number;
  onCommit: (v: string) => void;
}) {
  return (
    <CommitText
      w={wide}
      aria-label={label}
      maxLength={120}
      value={value}
      onCommit={(v = '') => onCommit(v)}
    />
  );
}

/** A unit that is put into the locker by hand. */
export function NewUnit({
  onAdd,
  taken,
}: {
  onAdd: (unit: object) => Promise<boolean>;
  taken: (serial: string) => boolean;
}) {
  const [serial, setSerial] = useState('');
  const [name, setName] = useState('');
  const again = taken(serial.trim());
  return (
    <form
      className="new-unit-row"
      onSubmit={(e) => {
        e.preventDefault();
        if (!serial.trim() || !name.trim() || again) return;
        void onAdd({ serial: serial.trim(), name: name.trim() }).then((ok) => {
          if (ok) {
            setSerial('');
            setName('');
          }
        });
      }}
    >
      <TextInput
        size="xs"
        label="Serial number"
        maxLength={120}
        value={serial}
        error={again ? 'it is in the locker already' : undefined}
        onChange={(e) => setSerial(e.currentTarget.value)}
      />
      <TextInput
        size="xs"
        label="What it is"
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button size="xs" type="submit" disabled={!serial.trim() || !name.trim() || again}>
        Add a unit
      </Button>
    </form>
  );
}
