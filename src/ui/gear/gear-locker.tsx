'use client';
import { ActionIcon, Button, Group, Switch, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import Link from 'next/link';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { fixed } from '../../core/units';
import { askServer, problemText } from '../keep/ask-server';
import { CommitNumber } from '../look/commit-number';
import { save } from '../look/save-file';
import { CommitText } from '../look/commit-text';
import { SheetShelf } from './sheet-shelf';

export interface LockerUnit {
  serial: string;
  name: string;
  owner: string;
  grams: number | null;
  value: number | null;
  notes: string;
  uses: { rig: string; rigName: string; device: string; deviceName: string; archived: boolean }[];
  doubleBooked: boolean;
}

/** Whether a unit is what was searched for, by its number, name, owner or a rig that uses it. */
const isWanted = (u: LockerUnit, wanted: string): boolean =>
  [u.serial, u.name, u.owner, ...u.uses.map((x) => x.rigName)].some((t) =>
    t.toLowerCase().includes(wanted.toLowerCase()),
  );

/** Writes all units as a table. The writer is fetched when it is needed. */
async function writeLocker(units: readonly LockerUnit[]): Promise<void> {
  const { toCsv } = await import('../../core/formats');
  const head = [
    'serial',
    'name',
    'owner',
    'weight g',
    'value',
    'used in',
    'double-booked',
    'notes',
  ];
  const rows = units.map((u) => [
    ...[u.serial, u.name, u.owner, u.grams, u.value],
    u.uses.map((x) => `${x.rigName}: ${x.deviceName}`).join('; '),
    u.doubleBooked ? 'yes' : 'no',
    u.notes,
  ]);
  save('gear-locker.csv', toCsv(head, rows), 'text/csv;charset=utf-8');
}

/**
 * Every unit with a serial number across all rigs: whose, what it weighs and is worth, where it is
 * used now, and what is promised twice.
 */
export function GearLocker({
  units: first,
  problem,
}: {
  units: LockerUnit[];
  problem: string | null;
}) {
  const [units, setUnits] = useState(first);
  const [said, setSaid] = useState<string | null>(null);
  const [wanted, setWanted] = useState('');
  const [onlyTwice, setOnlyTwice] = useState(false);
  const ask = async (path: string, method: 'PUT' | 'DELETE', body?: unknown) => {
    const reply = await askServer<{ units: LockerUnit[] }>(path, method, body);
    setSaid(reply.ok ? null : problemText(reply.problem));
    if (reply.ok) setUnits(reply.value.units);
    return reply.ok;
  };
  const put = (u: LockerUnit, change: Partial<LockerUnit>) => {
    const { serial, name, owner, grams, value, notes } = { ...u, ...change };
    return ask('/api/gear', 'PUT', { serial, name, owner, grams, value, notes });
  };
  const shown = units.filter((u) => (!onlyTwice || u.doubleBooked) && isWanted(u, wanted));
  const twice = units.filter((u) => u.doubleBooked);
  return (
    <main className="page" data-place="locker">
      <PageHead onWrite={() => void writeLocker(units).catch((e: unknown) => setSaid(String(e)))} />
      {problem && (
        <div role="alert" className="empty">
          {problem}
        </div>
      )}
      {said && (
        <div role="alert" className="verdict wrong gear-locker-gap">
          {said}{' '}
          <Button size="compact-xs" variant="default" onClick={() => setSaid(null)}>
            Close
          </Button>
        </div>
      )}
      <LockerHead
        wanted={wanted}
        setWanted={setWanted}
        onlyTwice={onlyTwice}
        setOnlyTwice={setOnlyTwice}
        units={units}
        twice={twice}
      />
      {shown.length === 0 && !problem && (
        <div className="empty">
          {units.length
            ? 'Nothing of that.'
            : 'No unit has a serial number yet. Write them under Build, Gear in a rig, or add a unit here.'}
        </div>
      )}
      {shown.length > 0 && <UnitTable shown={shown} put={put} ask={ask} />}
      <NewUnit
        onAdd={(unit) => ask('/api/gear', 'PUT', unit)}
        taken={(serial) => units.some((u) => u.serial === serial)}
      />
      <p className="faint gear-locker-text-3">
        Where a unit is used follows from the serial numbers that rigs give under Build, Gear. A
        unit in two rigs that are not archived is double-booked: one of the two has to play without
        it.
      </p>
      <SheetShelf wanted={wanted} />
    </main>
  );
}

/** What the page is, and where it leads. */
function PageHead({ onWrite }: { onWrite: () => void }) {
  return (
    <Group justify="space-between" mb={10}>
      <h1 className="gear-locker-text">
        Gear locker{' '}
        <span className="faint gear-locker-text-2">
          every unit with a serial number, across all rigs
        </span>
      </h1>
      <Group gap={8}>
        <Button variant="default" onClick={onWrite}>
          As CSV
        </Button>
        <Button component={Link} href="/" variant="default">
          Rigs
        </Button>
      </Group>
    </Group>
  );
}

/** The units, one a row. */
function UnitTable({
  shown,
  put,
  ask,
}: {
  shown: LockerUnit[];
  put: (u: LockerUnit, change: Partial<LockerUnit>) => Promise<boolean>;
  ask: (path: string, method: 'PUT' | 'DELETE', body?: unknown) => Promise<boolean>;
}) {
  return (
    <table className="sheet-table figures" data-table="locker">
      <thead>
        <tr>
          <th>Serial number</th>
          <th>Unit</th>
          <th>Owner</th>
          <th>Weight, g</th>
          <th>Value</th>
          <th>Used now in</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {shown.map((u) => (
          <UnitRow key={u.serial} u={u} put={put} ask={ask} />
        ))}
      </tbody>
    </table>
  );
}

/** What to look for, and the sums over all units. */
function LockerHead({
  wanted,
  setWanted,
  onlyTwice,
  setOnlyTwice,
  units,
  twice,
}: {
  wanted: string;
  setWanted: Dispatch<SetStateAction<string>>;
  onlyTwice: boolean;
  setOnlyTwice: Dispatch<SetStateAction<boolean>>;
  units: LockerUnit[];
  twice: LockerUnit[];
}) {
  return (
    <Group gap={10} mb={8}>
      <TextInput
        size="xs"
        w={240}
        placeholder="find by number, name, owner, rig"
        aria-label="Find"
        value={wanted}
        onChange={(e) => setWanted(e.currentTarget.value)}
      />
      <Switch
        size="xs"
        label="only what is double-booked"
        checked={onlyTwice}
        onChange={(e) => setOnlyTwice(e.currentTarget.checked)}
      />
      <span className="figures small-print" data-locker-sum>
        <strong>{units.length} units</strong>,{' '}
        {fixed(units.reduce((s, u) => s + (u.grams ?? 0), 0) / 1000)} kg weighed, worth{' '}
        {Math.round(units.reduce((s, u) => s + (u.value ?? 0), 0))};{' '}
        {twice.length ? (
          <strong className="over">double-booked: {twice.map((u) => u.serial).join(', ')}</strong>
        ) : (
          'nothing is double-booked'
        )}
      </span>
    </Group>
  );
}

/** One unit: what it is, whose, what it weighs and is worth, and where it is used now. */
function UnitRow({
  u,
  put,
  ask,
}: {
  u: LockerUnit;
  put: (u: LockerUnit, change: Partial<LockerUnit>) => Promise<boolean>;
  ask: (path: string, method: 'PUT' | 'DELETE', body?: unknown) => Promise<boolean>;
}) {
  return (
    <tr data-unit={u.serial}>
      <td>
        <span className="display">{u.serial}</span>
        {u.doubleBooked && (
          <div>
            <strong className="over">double-booked</strong>
          </div>
        )}
      </td>
      <td>
        <Field
          label={`Name of ${u.serial}`}
          value={u.name}
          wide={190}
          onCommit={(name) => name && void put(u, { name })}
        />
      </td>
      <td>
        <Field
          label={`Owner of ${u.serial}`}
          value={u.owner}
          wide={150}
          onCommit={(owner) => void put(u, { owner })}
        />
      </td>
      <td>
        <CommitNumber
          w={96}
          aria-label={`Weight of ${u.serial}`}
          min={0}
          max={1e6}
          value={u.grams ?? undefined}
          onCommit={(v) => void put(u, { grams: v ?? null })}
        />
      </td>
      <td>
        <CommitNumber
          w={96}
          aria-label={`Value of ${u.serial}`}
          min={0}
          max={1e9}
          value={u.value ?? undefined}
          onCommit={(v) => void put(u, { value: v ?? null })}
        />
      </td>
      <td>
        {u.uses.length ? (
          u.uses.map((x) => (
            <div key={`${x.rig} ${x.device}`}>
              <Link href={`/rigs/${x.rig}/build?part=gear`} className="common-text-4">
                {x.rigName}
              </Link>
              : {x.deviceName}
              {x.archived ? ' (archived)' : ''}
            </div>
          ))
        ) : (
          <span className="faint">in the locker</span>
        )}
      </td>
      <td>
        {u.uses.length === 0 && (
          <ActionIcon
            size="sm"
            variant="subtle"
            aria-label={`Take ${u.serial} out of the locker`}
            onClick={() => void ask(`/api/gear/${encodeURIComponent(u.serial)}`, 'DELETE')}
          >
            <IconX size={14} />
          </ActionIcon>
        )}
      </td>
    </tr>
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

function NewUnit({
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
