import { useState } from 'react';
import type { LabelKind, Paper } from '../../core/formats';
import { save } from '../look/save-file';
import { useDocument, useRevision, useRig } from '../store/use-rig';

/** Has the server print what is on the screen as a PDF, and gives it to the person; what goes wrong is said. */
export function usePrinting() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const revision = useRevision();
  const setNotice = useRig((s) => s.setNotice);
  const [printing, setPrinting] = useState(false);
  const print = async (what: {
    paper: Paper;
    parts: string[];
    labels: LabelKind[];
    address?: string;
  }) => {
    setPrinting(true);
    try {
      const answer = await fetch(`/api/rigs/${rig.id}/book`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          ...what,
          rig,
          ...units,
          revision,
          date: new Date().toISOString().slice(0, 10),
        }),
      });
      if (!answer.ok) {
        const said = (await answer.json().catch(() => ({}))) as { title?: string; detail?: string };
        return setNotice(
          `The PDF was not made. ${said.title ?? `The server answered ${answer.status}.`} ${said.detail ?? ''}`,
        );
      }
      save(
        `${rig.id}-${what.parts.length ? 'book' : 'labels'}.pdf`,
        await answer.blob(),
        'application/pdf',
      );
    } catch {
      setNotice(
        'The PDF was not made: the server cannot be reached. Print from the browser meanwhile.',
      );
    } finally {
      setPrinting(false);
    }
  };
  return { print, printing };
}
