import { Modal } from '@mantine/core';
import type { RefObject } from 'react';

/** The field behind a button that reads a file; the same file can be read again. */
export function FileField({
  field,
  accept,
  onFile,
}: {
  field: RefObject<HTMLInputElement | null>;
  accept: string;
  onFile: (file: File) => void;
}) {
  return (
    <input
      ref={field}
      type="file"
      hidden
      data-read
      accept={accept}
      onChange={(e) => {
        const file = e.currentTarget.files?.[0];
        e.currentTarget.value = '';
        if (file) onFile(file);
      }}
    />
  );
}

/** A file that was not read, and why, line by line. */
export interface Wrong {
  file: string;
  lines: string[];
}

/** Lines that are shown; more are counted. */
const SHOWN = 40;

/** Why a file was not read, with its rows. */
export function NotRead({ wrong, onClose }: { wrong: Wrong | null; onClose: () => void }) {
  const lines = wrong?.lines ?? [];
  return (
    <Modal
      opened={wrong !== null}
      onClose={onClose}
      title={`${wrong?.file ?? ''} was not read`}
      size="lg"
    >
      <p>Nothing was taken from it. Put these right and read it again:</p>
      <ul data-list="problems">
        {lines.slice(0, SHOWN).map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
      {lines.length > SHOWN && <p>and {lines.length - SHOWN} more.</p>}
    </Modal>
  );
}
