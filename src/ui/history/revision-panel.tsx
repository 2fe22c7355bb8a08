import { Button, Select } from '@mantine/core';
import { useEffect, useState } from 'react';
import { compareRigs } from '../../core/changes';
import { cutText, learnSheets, type Rig } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { CommitText } from '../look/commit-text';
import { useDocument, useRig } from '../store/use-rig';
import type { Revision } from './use-revisions';

/** The document of a revision; nothing while it is fetched, or a problem in words. */
function useRevisionDocument(number: number | null): Rig | string | undefined {
  const id = useDocument().id;
  const [found, setFound] = useState<{ number: number; document: Rig | string } | null>(null);
  useEffect(() => {
    if (number === null) return;
    let wanted = true;
    void askServer<Rig>(`/api/rigs/${id}/revisions/${number}`).then((reply) => {
      if (reply.ok) learnSheets(reply.value.sheets);
      const document = reply.ok ? reply.value : problemText(reply.problem);
      if (wanted) setFound({ number, document });
    });
    return () => {
      wanted = false;
    };
  }, [id, number]);
  return found?.number === number ? found.document : undefined;
}

/** One revision: its name, what changed between it and now or another one, and the way back to it. */
export function RevisionPanel({
  row,
  rows,
  onName,
}: {
  row: Revision;
  rows: readonly Revision[];
  onName: (name: string | null) => Promise<void>;
}) {
  const rig = useDocument();
  const [against, setAgainst] = useState<string | null>(null);
  const one = useRevisionDocument(row.number);
  const other = useRevisionDocument(against === null ? null : Number(against));
  const two = against === null ? rig : other;
  if (typeof one === 'string') return <p role="alert">{one}</p>;
  if (typeof two === 'string') return <p role="alert">{two}</p>;
  const lines = one && two && compareRigs(one, two);
  return (
    <>
      <h2>
        Since revision {row.number}
        {against === null ? '' : `, up to revision ${against}`}
      </h2>
      <CommitText
        label="Name of this revision"
        placeholder="such as “as played in the harbour”"
        value={row.name ?? undefined}
        onCommit={(name) => void onName(name ?? null)}
      />
      <Select
        size="xs"
        mt={6}
        mb={6}
        label="Compared with"
        clearable
        searchable
        placeholder="now"
        value={against}
        onChange={setAgainst}
        data={rows
          .filter((r) => r.number !== row.number)
          .map((r) => ({
            value: String(r.number),
            label: `${r.number} ${r.name ?? cutText(r.words, 40)}`,
          }))}
      />
      {!lines ? (
        <p className="faint">Loading …</p>
      ) : lines.length ? (
        <ul data-list="changes">
          {lines.map((l, i) => (
            <li key={i}>{l}</li>
          ))}
        </ul>
      ) : (
        <p>{against === null ? 'Nothing has changed since.' : 'Nothing differs.'}</p>
      )}
      {one && against === null && (
        <GoBack number={row.number} document={one} same={!lines?.length} />
      )}
    </>
  );
}

function GoBack({ number, document, same }: { number: number; document: Rig; same: boolean }) {
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  return (
    <>
      <Button
        disabled={same}
        onClick={() =>
          edit({ edit: 'replaceRig', rig: document }, `went back to revision ${number}`).ok &&
          setNotice(
            `This is revision ${number} again, saved as a new one. Undo brings back what was.`,
          )
        }
      >
        Go back to revision {number}
      </Button>
      <p className="faint small-print">Going back makes a new revision; none is ever lost.</p>
    </>
  );
}
