'use client';
import { ActionIcon, Button, Group, Modal, Tooltip } from '@mantine/core';
import { IconCamera } from '@tabler/icons-react';
import { useRef, useState } from 'react';
import type { Photograph } from '../../core/rig';
import { askServer, problemText, type ServerProblem } from '../keep/ask-server';
import { FileField } from '../look/read-file';

/** The longest side of a photograph that is kept, in pixels, and how well it is drawn. */
const LONGEST = 1280;
const QUALITY = 0.82;
/** How high it is in a list, in pixels. */
const SMALL = 36;

/** A picture as a small JPEG; nothing where the browser cannot read it. */
async function small(file: File): Promise<Blob | null> {
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture) return null;
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
}

/** Sends a photograph of a thing; what went wrong, in words. */
async function send(is: 'unit' | 'sheet', id: string, file: File): Promise<string | null> {
  const body = await small(file);
  if (!body) return `${file.name} is no picture that this browser can read.`;
  try {
    const response = await fetch(`/api/photographs?${new URLSearchParams({ is, id }).toString()}`, {
      method: 'POST',
      headers: { 'content-type': body.type },
      body,
      signal: AbortSignal.timeout(30_000),
    });
    return response.ok ? null : problemText((await response.json()) as ServerProblem);
  } catch {
    return `The server cannot be reached: ${file.name} was not kept. Add it again when it is back.`;
  }
}

/** The photographs of a unit or a sheet, small; one that is pressed is shown large. */
export function Photographs({
  is,
  id,
  name,
  photographs,
  onChange,
}: {
  is: 'unit' | 'sheet';
  id: string;
  name: string;
  photographs: readonly Photograph[];
  /** Something was added or removed, or why it was not. */
  onChange: (problem: string | null) => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  const [open, setOpen] = useState<string | null>(null);
  const remove = async (photograph: string) => {
    const reply = await askServer(`/api/photographs/${photograph}`, 'DELETE');
    setOpen(null);
    onChange(reply.ok ? null : problemText(reply.problem));
  };
  return (
    <div className="photographs">
      {photographs.map((p, n) => (
        <button
          key={p.id}
          type="button"
          className="photograph"
          aria-label={`Photograph ${n + 1} of ${name}`}
          onClick={() => setOpen(p.id)}
        >
          <img
            src={`/api/photographs/${p.id}`}
            alt=""
            height={SMALL}
            width={Math.min(2 * SMALL, Math.round((SMALL * p.width) / p.height))}
          />
        </button>
      ))}
      <Tooltip label="Add a photograph">
        <ActionIcon
          size="md"
          variant="default"
          aria-label={`Add a photograph of ${name}`}
          onClick={() => field.current?.click()}
        >
          <IconCamera size={16} />
        </ActionIcon>
      </Tooltip>
      <FileField
        field={field}
        accept="image/*"
        onFile={(file) => void send(is, id, file).then(onChange)}
      />
      <Modal opened={open !== null} onClose={() => setOpen(null)} size="xl" title={name}>
        {open && <img className="photograph-large" src={`/api/photographs/${open}`} alt={name} />}
        <Group mt={12}>
          <Button size="xs" variant="default" onClick={() => open && void remove(open)}>
            Remove this photograph
          </Button>
          <Button size="xs" ml="auto" onClick={() => setOpen(null)}>
            Done
          </Button>
        </Group>
      </Modal>
    </div>
  );
}
