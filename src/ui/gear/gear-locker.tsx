'use client';
import { Button, Group, Switch, TextInput } from '@mantine/core';
import Link from 'next/link';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { fixed, howMany } from '../../core/units';
import { useLocker } from '../build/own-gear/locker-list';
import { askServer, problemText } from '../keep/ask-server';
import { save } from '../look/save-file';
import { SheetShelf } from './sheet-shelf';
import { type Exchanging, Substitute } from './substitute';
import { NewUnit, UnitTable } from './unit-table';
import type { LockerSheet, LockerUnit } from '../../core/rig';

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
  find,
  units: first,
  problem,
}: {
  /** What to look for first. */
  find: string;
  units: LockerUnit[];
  problem: string | null;
}) {
  const [units, setUnits] = useState(first);
  const [came, setCame] = useState(first);
  if (came !== first) {
    // Looked at anew by the page itself.
    setCame(first);
    setUnits(first);
  }
  const [said, setSaid] = useState<string | null>(null);
  const [wanted, setWanted] = useState(find);
  const [onlyTwice, setOnlyTwice] = useState(false);
  const [exchanging, setExchanging] = useState<Exchanging | null>(null);
  const locker = useLocker();
  const ask = async (path: string, method: 'GET' | 'PUT' | 'DELETE', body?: unknown) => {
    const reply = await askServer<{ units: LockerUnit[] }>(path, method, body);
    setSaid(reply.ok ? null : problemText(reply.problem));
    if (reply.ok) setUnits(reply.value.units);
    return reply.ok;
  };
  const put = async (u: LockerUnit, change: Partial<LockerUnit>) => {
    const { serial, name, owner, grams, value, notes, sheet } = { ...u, ...change };
    const done = await ask('/api/gear', 'PUT', { serial, name, owner, grams, value, notes, sheet });
    // Sheets tell which units are of them.
    if (done && 'sheet' in change) await locker.look();
    return done;
  };
  /** Looks at everything anew, and says what was done, or why it was not. */
  const lookAgain = async (words: string | null) => {
    await Promise.all([ask('/api/gear', 'GET'), locker.look()]);
    setSaid(words);
  };
  const sheets = locker.sheets ?? [];
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
      {shown.length > 0 && (
        <UnitTable
          shown={shown}
          acts={{
            sheets: sheets.flatMap(({ sheet: { id, name } }) => [{ id, name }]),
            put,
            remove: (u) => void ask(`/api/gear/${encodeURIComponent(u.serial)}`, 'DELETE'),
            exchange: (u) => setExchanging(unitExchange(u)),
            photographed: (trouble) => void lookAgain(trouble),
          }}
        />
      )}
      <NewUnit
        onAdd={(unit) => ask('/api/gear', 'PUT', unit)}
        taken={(serial) => units.some((u) => u.serial === serial)}
      />
      <p className="faint gear-locker-text-3">
        Where a unit is used follows from the serial numbers that rigs give under Build, Gear. A
        unit is double-booked on the dates on which two rigs play with it (Show, Calendar), and
        always where one rig uses it twice.
      </p>
      <SheetShelf
        wanted={wanted}
        locker={locker}
        onExchange={(held) => setExchanging(sheetExchange(held))}
        onSay={(words) => void lookAgain(words)}
      />
      {exchanging && (
        <Substitute
          what={exchanging}
          sheets={sheets}
          units={units}
          onClose={() => setExchanging(null)}
          onDone={(words) => {
            setExchanging(null);
            void lookAgain(words);
          }}
        />
      )}
    </main>
  );
}

/** A unit that is to be exchanged in the rigs that use it now. */
function unitExchange(u: LockerUnit): Exchanging {
  const rigs = new Map<string, Exchanging['rigs'][number]>();
  for (const { rig, rigName, archived } of u.uses)
    if (!archived) rigs.set(rig, { rig, rigName, devices: (rigs.get(rig)?.devices ?? 0) + 1 });
  const { serial } = u;
  return { of: { is: 'unit', serial }, name: `${u.name}, ${serial}`, rigs: [...rigs.values()] };
}

/** A sheet that is to be exchanged in the rigs that use it now. */
const sheetExchange = ({ sheet, uses }: LockerSheet): Exchanging => ({
  of: { is: 'sheet', id: sheet.id },
  name: sheet.name,
  rigs: uses.filter((u) => u.devices > 0 && !u.archived),
});

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
        <strong>{howMany(units.length, 'unit')}</strong>,{' '}
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
