'use client';
import { Button, Group, Modal } from '@mantine/core';
import { useRef, useState } from 'react';
import { boxAround, problemLines, readSheet, type Sheet, sheetOfKind } from '../../../core/rig';
import { FileField, NotRead, type Wrong } from '../../look/read-file';
import { KINDS } from '../../../core/kinds';
import { KindList } from '../../look/kind-list';
import { SheetList } from './choose';
import { PARTS } from './parts-table';
import { LockerList } from './locker-list';

type Way = 'changes' | 'parts' | 'examples' | 'locker';

const TITLES: Record<Way, string> = {
  changes: 'Which kind is it nearest to?',
  parts: 'What is the first thing in the box?',
  examples: 'Examples to begin from',
  locker: 'Sheets of the locker',
};

/** An id that no other sheet has, in whichever rig: in the locker they stand side by side. */
const newId = () => `sheet-${crypto.randomUUID().slice(0, 8)}`;

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
          <KindList
            kinds={way === 'changes' ? KINDS : PARTS}
            onPick={(k) =>
              take(
                way === 'changes'
                  ? sheetOfKind(newId(), k.name, k.id)
                  : boxAround(newId(), 'New box', k.id),
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

/** The sheets that ship; fetched when they are asked for. */
function Examples({ onPick }: { onPick: (sheet: Sheet) => void }) {
  const [sheets, setSheets] = useState<readonly Sheet[] | null>(null);
  if (!sheets) {
    void import('../../../core/demo/example-sheets').then((m) => setSheets(m.EXAMPLE_SHEETS));
    return <p>Opening the examples …</p>;
  }
  return <SheetList sheets={sheets} onPick={onPick} />;
}
