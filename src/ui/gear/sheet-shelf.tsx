'use client';
import { ActionIcon, Button } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import Link from 'next/link';
import { sheetDifferences } from '../../core/changes';
import { type Sheet, writeSheet } from '../../core/rig';
import type { useLocker } from '../build/own-gear/locker-list';
import type { LockerSheet } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { fileName, save } from '../look/save-file';
import { SheetTable } from './sheet-table';
import { Photographs } from './photographs';

/** The sheets of the locker: what each is, which rigs hold a copy, whether two say the same. */
export function SheetShelf({
  wanted,
  locker: { sheets, unread, problem },
  onExchange,
  onSay,
}: {
  wanted: string;
  locker: ReturnType<typeof useLocker>;
  onExchange: (held: LockerSheet) => void;
  /** Something was done, or why it was not. */
  onSay: (words: string | null) => void;
}) {
  const remove = async (id: string) => {
    const reply = await askServer(`/api/sheets/${encodeURIComponent(id)}`, 'DELETE');
    onSay(reply.ok ? null : problemText(reply.problem));
  };
  const shown = (sheets ?? []).filter(({ sheet }) => isWanted(sheet, wanted));
  return (
    <section aria-label="Sheets">
      <h2 className="gear-locker-text">
        Sheets{' '}
        <span className="faint gear-locker-text-2">
          what devices of your own are, for every rig to take
        </span>
      </h2>
      <SheetTable sheets={sheets ?? []} onSay={onSay} />
      {problem && (
        <div role="alert" className="verdict wrong">
          {problem}
        </div>
      )}
      {unread.map((u) => (
        <div key={u.id} role="alert" className="verdict wrong" data-unread={u.id}>
          The sheet {u.name} cannot be read by this version: {u.why}. It stays in the locker as it
          is, and rigs keep their copies.
        </div>
      ))}
      {sheets?.length === 0 && (
        <div className="empty">
          No sheets yet. Write one under Build, Own gear in a rig, and put it into the locker there.
        </div>
      )}
      {shown.length > 0 && (
        <table className="sheet-table figures" data-table="sheets">
          <thead>
            <tr>
              <th>Sheet</th>
              <th>What it is</th>
              <th>Version</th>
              <th>Rigs with a copy</th>
              <th>Units</th>
              <th>Photographs</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {shown.map((s) => (
              <SheetRow
                key={s.sheet.id}
                held={s}
                twin={twinOf(s.sheet, sheets ?? [])}
                onExchange={() => onExchange(s)}
                onPhotograph={onSay}
                onRemove={() => void remove(s.sheet.id)}
              />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

const isWanted = (s: Sheet, wanted: string): boolean =>
  [s.name, s.maker, s.model, s.about].some((t) => t?.toLowerCase().includes(wanted.toLowerCase()));

/** Another sheet that says the same but for its name and id, where there is one. */
function twinOf(sheet: Sheet, all: readonly LockerSheet[]): string | undefined {
  return all.find(
    (o) =>
      o.sheet.id !== sheet.id &&
      sheetDifferences({ ...o.sheet, id: sheet.id, name: sheet.name }, sheet).length === 0,
  )?.sheet.name;
}

function SheetRow({
  held: { sheet, version, uses, units, photographs },
  twin,
  onExchange,
  onPhotograph,
  onRemove,
}: {
  held: LockerSheet;
  twin: string | undefined;
  onExchange: () => void;
  onPhotograph: (problem: string | null) => void;
  onRemove: () => void;
}) {
  return (
    <tr data-sheet={sheet.id}>
      <td>
        <strong>{sheet.name}</strong>
        {sheet.maker && <div className="faint common-text">{sheet.maker}</div>}
        {twin !== undefined && (
          <div>
            <strong className="over">says the same as {twin}</strong>
          </div>
        )}
      </td>
      <td>{sheet.about}</td>
      <td>{version}</td>
      <td>
        {uses.length === 0 && <span className="faint">none</span>}
        {uses.map((u) => (
          <div key={u.rig}>
            <Link href={`/rigs/${u.rig}/build?part=own`} className="common-text-4">
              {u.rigName}
            </Link>
            {u.devices ? `: ${u.devices}` : ', not used'}
            {u.isSame ? '' : ', says otherwise'}
            {u.archived ? ' (archived)' : ''}
          </div>
        ))}
      </td>
      <td>{units.join(', ')}</td>
      <td>
        <Photographs
          is="sheet"
          id={sheet.id}
          name={sheet.name}
          photographs={photographs}
          onChange={onPhotograph}
        />
      </td>
      <td>
        <div className="gear-acts">
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`${sheet.name} as a file`}
            onClick={() =>
              save(`${fileName(sheet.name)}.sheet.json`, writeSheet(sheet), 'application/json')
            }
          >
            As a file
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Exchange ${sheet.name} in every rig`}
            onClick={onExchange}
          >
            Exchange …
          </Button>
          <ActionIcon
            size="md"
            variant="subtle"
            aria-label={`Take ${sheet.name} out of the locker`}
            onClick={onRemove}
          >
            <IconX size={14} />
          </ActionIcon>
        </div>
      </td>
    </tr>
  );
}
