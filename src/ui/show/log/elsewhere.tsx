import { useState } from 'react';
import type { Rig } from '../../../core/rig';
import type { Line } from '../../../core/show/book';
import { askServer } from '../../keep/ask-server';

/** Lines about the same unit in other rigs, by its serial number; asked for when they are wanted. */
export function ElsewhereLines({ rig, device }: { rig: Rig; device: string }) {
  const serial = rig.devices.find((d) => d.id === device)?.gear?.serial;
  const [said, setSaid] = useState<string[] | null>(null);
  if (!serial) return null;
  const ask = async () => {
    const reply = await askServer<{ lines: { rig: string; rigName: string; line: Line }[] }>(
      `/api/log?serial=${encodeURIComponent(serial)}`,
    );
    if (!reply.ok) return setSaid([reply.problem.title]);
    const others = reply.value.lines.filter((l) => l.rig !== rig.id);
    setSaid(
      others.length
        ? others.map((l) => `${l.line.at.slice(0, 10)} ${l.rigName}: ${l.line.text}`)
        : ['nothing in other rigs'],
    );
  };
  return (
    <>
      {' '}
      <button type="button" className="linklike" onClick={() => void ask()}>
        {serial} in other rigs
      </button>
      {said?.map((s) => (
        <div key={s} className="faint small-print">
          {s}
        </div>
      ))}
    </>
  );
}
