'use client';
import { Button, Group, Select } from '@mantine/core';
import { useRef, useState } from 'react';
import { BANK_SELECTS, type BankSelect } from '../../../core/kinds';
import { type ChangedKind, kindOfSheet, problemLines, type Sheet } from '../../../core/rig';
import { howMany } from '../../../core/units';
import { FileField, NotRead, type Wrong } from '../../look/read-file';
import { fileName, save } from '../../look/save-file';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import { TakeOut } from '../../look/take-out';
import type { Change } from './sheet-editor';

const CLOCKS = [
  { value: 'can', label: 'can follow one' },
  { value: 'wants', label: 'wants one' },
  { value: 'leads', label: 'sends one' },
] as const;
const PASSES = [
  { value: 'none', label: 'not at all' },
  { value: 'hardware', label: 'by its thru, at once' },
  { value: 'software', label: 'by its out, later' },
  { value: 'merged', label: 'by its out, with its own' },
] as const;

/** Something that is told of the box, or left as it is with what is inside. */
function Told<V extends string>({
  label,
  data,
  value,
  onTell,
}: {
  label: string;
  data: readonly { value: V; label: string }[];
  value: V | undefined;
  onTell: (value: V | undefined) => void;
}) {
  return (
    <Select
      size="xs"
      w={190}
      label={label}
      clearable
      placeholder="as what is inside"
      data={data}
      value={value ?? null}
      onChange={(v) => onTell(data.find((x) => x.value === v)?.value)}
    />
  );
}

/** How the box is called by MIDI: its programs with their names, and which control changes move what. */
export function SheetMessages({ sheet, onChange }: { sheet: Sheet; onChange: Change }) {
  const put = (fields: Partial<ChangedKind>) => onChange({ ...sheet, ...fields } as Sheet);
  const kind = kindOfSheet(sheet);
  const midi = sheet.midi ?? {};
  const programs = midi.programs ?? { count: 128, bank: 'none' as BankSelect, from: 0 as const };
  const setPrograms = (fields: Partial<typeof programs>) =>
    put({ midi: { ...midi, programs: { ...programs, ...fields } } });
  const names = sheet.programs ?? [];
  const free = Array.from({ length: names.length + 1 }, (_, i) => i).find(
    (n) => !names.some((p) => p.number === n),
  );
  return (
    <details>
      <summary>
        <strong>Messages and programs</strong>{' '}
        <span className="faint">
          {kind.midi?.programs ? howMany(kind.midi.programs.count, 'program') : 'no programs'},{' '}
          {names.length} named
        </span>
      </summary>
      <Group gap={8} align="end" mb={6}>
        <CommitNumber
          w={100}
          label="Programs"
          min={1}
          max={16_384}
          value={midi.programs?.count}
          onCommit={(count) =>
            count === undefined
              ? put({ midi: { ...midi, programs: undefined } })
              : setPrograms({ count })
          }
        />
        <Select
          size="xs"
          w={110}
          label="Bank select"
          allowDeselect={false}
          data={[...BANK_SELECTS]}
          value={programs.bank}
          onChange={(v) => setPrograms({ bank: BANK_SELECTS.find((b) => b === v) ?? 'none' })}
        />
        <Select
          size="xs"
          w={110}
          label="Counts from"
          allowDeselect={false}
          data={['0', '1']}
          value={String(programs.from)}
          onChange={(v) => setPrograms({ from: v === '1' ? 1 : 0 })}
        />
        <Told
          label="Clock"
          data={CLOCKS}
          value={midi.clock}
          onTell={(clock) => put({ midi: { ...midi, clock } })}
        />
        <Told
          label="Passes messages on"
          data={PASSES}
          value={midi.thru}
          onTell={(thru) => put({ midi: { ...midi, thru } })}
        />
      </Group>
      <ul className="own-gear-links" data-list="sheet-programs">
        {names.map((p) => (
          <li key={p.number}>
            <Group gap={6}>
              <span className="figures own-gear-number">{p.number}</span>
              <CommitText
                w={200}
                needed
                maxLength={120}
                aria-label={`Name of program ${p.number}`}
                value={p.name}
                onCommit={(name = p.name) =>
                  put({
                    programs: names.map((x) => (x.number === p.number ? { ...x, name } : x)),
                  })
                }
              />
              <TakeOut
                what={`Forget program ${p.number}`}
                onClick={() => put({ programs: names.filter((x) => x.number !== p.number) })}
              />
            </Group>
          </li>
        ))}
      </ul>
      <ProgramsFile sheet={sheet} onRead={(read) => put({ programs: read })} />
      <Button
        size="compact-xs"
        variant="default"
        onClick={() =>
          put({ programs: [...names, { number: free ?? 0, name: `Program ${free ?? 0}` }] })
        }
      >
        Name another program
      </Button>
    </details>
  );
}

/** The named programs as a table, and read from one: a table with anything wrong in it is refused whole. */
function ProgramsFile({
  sheet,
  onRead,
}: {
  sheet: Sheet;
  onRead: (programs: NonNullable<Sheet['programs']>) => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const take = async (file: File) => {
    const { programsFromCsv } = await import('../../../core/formats');
    const read = programsFromCsv(await file.text());
    if (read.ok) onRead(read.value);
    else setWrong({ file: file.name, lines: problemLines(read.problems) });
  };
  const write = async () => {
    const { programsToCsv } = await import('../../../core/formats');
    save(
      `${fileName(sheet.name, 'programs')}.csv`,
      programsToCsv(sheet.programs ?? []),
      'text/csv;charset=utf-8',
    );
  };
  return (
    <Group gap={6} mb={6}>
      <Button size="compact-xs" variant="default" onClick={() => field.current?.click()}>
        Read programs from CSV …
      </Button>
      {sheet.programs?.length ? (
        <Button size="compact-xs" variant="default" onClick={() => void write()}>
          Programs as CSV
        </Button>
      ) : null}
      <FileField field={field} accept=".csv,.txt" onFile={(file) => void take(file)} />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </Group>
  );
}
