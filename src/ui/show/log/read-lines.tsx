import { Button } from '@mantine/core';
import { useRef, useState } from 'react';
import { linesFromCsv } from '../../../core/formats/log-csv';
import { problemLines } from '../../../core/rig';
import { FileField, NotRead, type Wrong } from '../../look/read-file';
import { useDocument, useRig } from '../../store/use-rig';
import { newId } from '../new-id';
import { useBook } from '../use-book';
import { howMany } from '../../../core/units';

/** Reads lines of a logbook from a table; a file with anything wrong in it is refused whole. */
export function ReadLines() {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const setNotice = useRig((s) => s.setNotice);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const take = async (file: File) => {
    const read = linesFromCsv(rig, await file.text());
    if (!read.ok) return setWrong({ file: file.name, lines: problemLines(read.problems) });
    for (const line of read.value) put('line', newId(), line);
    setNotice(`Read ${howMany(read.value.length, 'line')} from ${file.name}.`);
  };
  return (
    <>
      <Button size="compact-sm" variant="default" onClick={() => input.current?.click()}>
        From CSV
      </Button>
      <FileField field={input} accept=".csv,.txt" onFile={(file) => void take(file)} />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </>
  );
}
