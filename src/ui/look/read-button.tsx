'use client';
import { Button } from '@mantine/core';
import { useRef, useState } from 'react';
import { type Edit, type Outcome, problemLines, type Rig } from '../../core/rig';
import { useDocument, useRig } from '../store/use-rig';
import { FileField, NotRead, type Wrong } from './read-file';

/** Reads a list from a CSV file as one step; a file with anything wrong in it is refused whole, with its rows. */
export function ReadButton({
  label,
  things,
  read,
  size = 'xs',
}: {
  label: string;
  things: string;
  size?: 'xs' | 'compact-xs';
  read: (rig: Rig, text: string) => Promise<Outcome<Edit[]>>;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const take = async (file: File) => {
    const taken = await file
      .text()
      .then((text) => read(rig, text))
      .catch((e: unknown): Outcome<Edit[]> => ({
        ok: false,
        problems: [{ where: '', what: e instanceof Error ? e.message : String(e) }],
      }));
    if (!taken.ok) return setWrong({ file: file.name, lines: problemLines(taken.problems) });
    if (!taken.value.length) return setNotice(`${file.name} says nothing that is not so already.`);
    if (edit(taken.value, `read ${things} from ${file.name}`).ok)
      setNotice(`Read ${things} from ${file.name}. It can be undone.`);
  };
  return (
    <>
      <Button size={size} variant="default" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <FileField field={input} accept=".csv,.txt" onFile={(file) => void take(file)} />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </>
  );
}
