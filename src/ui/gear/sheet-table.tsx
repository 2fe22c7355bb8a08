'use client';
import { Button, Group } from '@mantine/core';
import { useRef, useState } from 'react';
import { problemLines } from '../../core/rig';
import type { LockerSheet } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { FileField, NotRead, type Wrong } from '../look/read-file';
import { save } from '../look/save-file';

/** Simple sheets as a table, out and in: a file with anything wrong in it is refused whole, with its rows. */
export function SheetTable({
  sheets,
  onSay,
}: {
  sheets: readonly LockerSheet[];
  onSay: (words: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const write = async () => {
    const { sheetsToCsv } = await import('../../core/formats');
    save('sheets.csv', sheetsToCsv(sheets.map((s) => s.sheet)), 'text/csv;charset=utf-8');
  };
  const take = async (file: File) => {
    const { sheetsFromCsv } = await import('../../core/formats');
    const read = sheetsFromCsv(
      await file.text(),
      sheets.map((s) => s.sheet),
    );
    if (!read.ok) return setWrong({ file: file.name, lines: problemLines(read.problems) });
    const failed: string[] = [];
    for (const sheet of read.value) {
      const base = sheets.find((s) => s.sheet.id === sheet.id)?.version ?? null;
      const reply = await askServer('/api/sheets', 'PUT', { sheet, base });
      if (!reply.ok) failed.push(`${sheet.name}: ${problemText(reply.problem)}`);
    }
    const put = read.value.length - failed.length;
    onSay([`${put} of ${read.value.length} sheets came from ${file.name}.`, ...failed].join(' '));
  };
  return (
    <Group gap={8} my={6}>
      <Button size="xs" variant="default" onClick={() => void write()}>
        Sheets as CSV
      </Button>
      <Button size="xs" variant="default" onClick={() => input.current?.click()}>
        Read sheets from CSV …
      </Button>
      <FileField field={input} accept=".csv,.txt" onFile={(file) => void take(file)} />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </Group>
  );
}
