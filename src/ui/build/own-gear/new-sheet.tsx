'use client';
import { Button, Group, Modal } from '@mantine/core';
import { useMemo, useRef, useState } from 'react';
import { type Kind, KINDS } from '../../../core/kinds';
import { boxAround, problemLines, readSheet, type Sheet, sheetOfKind } from '../../../core/rig';
import { TypedList } from '../../look/typed-list';
import { FileField, NotRead, type Wrong } from '../../look/read-file';
import { LockerList } from './locker-list';

type Way = 'changes' | 'parts' | 'examples' | 'locker';

const TITLES: Record<Way, string> = {
  changes: 'Which kind is it nearest to?',
  parts: 'What is the first thing in the box?',
  examples: 'Examples to begin from',
  locker: 'Sheets of the locker',
};

/** Ways to begin a sheet: a kind with changes, a box of parts, an example, the locker, a file. */
export function NewSheet({ onTake }: { onTake: (sheet: Sheet) => void }) {
  const [way, setWay] = useState<Way | null>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const take = (sheet: Sheet) => {
    setWay(null);
    onTake(sheet);
  };
  return (
    <>
      <Group gap={6} mb={8}>
        <Button size="xs" onClick={() => setWay('parts')}>
          Several in one box …
        </Button>
        <Button size="xs" variant="default" onClick={() => setWay('changes')}>
          A kind with changes …
        </Button>
        <Button size="xs" variant="default" onClick={() => setWay('examples')}>
          Examples …
        </Button>
        <Button size="xs" variant="default" onClick={() => setWay('locker')}>
          From the locker …
        </Button>
        <Button size="xs" variant="default" onClick={() => file.current?.click()}>
          From a file …
        </Button>
      </Group>
      <FileField
        field={file}
        accept=".json"
        onFile={(f) =>
          void f.text().then((text) => {
            const read = readSheet(text);
            if (read.ok) take(read.value);
            else setWrong({ file: f.name, lines: problemLines(read.problems) });
          })
        }
      />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
      <Modal
        opened={way !== null}
        onClose={() => setWay(null)}
        title={way && TITLES[way]}
        size="xl"
        centered
      >
        {(way === 'changes' || way === 'parts') && (
          <ChooseKind
            fits={(k) => way === 'changes' || !k.hosts}
            onPick={(k) =>
              take(
                way === 'changes'
                  ? sheetOfKind(k.id, k.name, k.id)
                  : boxAround('box', 'New box', k.id),
              )
            }
          />
        )}
        {way === 'examples' && <Examples onPick={take} />}
        {way === 'locker' && <LockerList onPick={take} />}
      </Modal>
    </>
  );
}

/** Chooses one of the kinds that ship, by typing. */
export function ChooseKind({
  fits,
  onPick,
}: {
  fits: (k: Kind) => boolean;
  onPick: (k: Kind) => void;
}) {
  const items = useMemo(
    () =>
      KINDS.filter(fits).map((kind) => ({
        ...{
          kind,
          id: kind.id,
          name: `${kind.name} ${kind.family} ${kind.job}`,
          words: kind.about,
        },
        shown: (
          <>
            <strong>{kind.name}</strong> <span className="common-text-2 faint">{kind.family}</span>
          </>
        ),
      })),
    [fits],
  );
  return (
    <TypedList
      label="Find a kind"
      list="Kinds"
      placeholder="Type to find: drive, delay, isolated …"
      nothing="No kind is called that. Try a shorter word."
      items={items}
      attribute="data-kind"
      onPick={({ kind }) => onPick(kind)}
    />
  );
}

/** The sheets that ship; fetched when they are asked for. */
function Examples({ onPick }: { onPick: (sheet: Sheet) => void }) {
  const [sheets, setSheets] = useState<readonly Sheet[] | null>(null);
  if (!sheets) {
    void import('../../../core/demo/example-sheets').then((m) => setSheets(m.EXAMPLE_SHEETS));
    return <p>Opening the examples …</p>;
  }
  return <SheetList sheets={sheets} onPick={onPick} />;
}

/** Sheets to choose from, by typing. */
export function SheetList({
  sheets,
  onPick,
}: {
  sheets: readonly Sheet[];
  onPick: (sheet: Sheet) => void;
}) {
  const items = useMemo(
    () =>
      sheets.map((sheet) => ({
        ...{
          sheet,
          id: sheet.id,
          name: `${sheet.name} ${sheet.maker ?? ''}`,
          words: sheet.about ?? '',
        },
        shown: (
          <>
            <strong>{sheet.name}</strong>{' '}
            <span className="common-text-2 faint">
              {[sheet.maker, sheet.about].filter(Boolean).join(': ')}
            </span>
          </>
        ),
      })),
    [sheets],
  );
  return (
    <TypedList
      label="Find a sheet"
      list="Sheets"
      placeholder="Type to find: drive, head, delay …"
      nothing="No sheet is called that. Try a shorter word."
      items={items}
      attribute="data-example"
      onPick={({ sheet }) => onPick(sheet)}
    />
  );
}
