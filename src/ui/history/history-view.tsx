'use client';
import { Button } from '@mantine/core';
import { useCallback, useEffect, useState } from 'react';
import { compareRigs } from '../../core/changes';
import { type Rig } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { useDocument, useRig } from '../store/use-rig';

interface Row {
  number: number;
  basedOn: number | null;
  words: string;
  savedAt: string;
}

/** Every revision of the rig: when, what was done, what changed between it and now, and the way back. */
export function HistoryView() {
  const rig = useDocument();
  const save = useRig((s) => s.save.state);
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  const [rows, setRows] = useState<Row[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [picked, setPicked] = useState<{ number: number; document: Rig } | null>(null);
  const load = useCallback(async () => {
    const reply = await askServer<Row[]>(`/api/rigs/${rig.id}/revisions`);
    if (reply.ok) setRows(reply.value);
    setProblem(reply.ok ? null : problemText(reply.problem));
  }, [rig.id]);
  useEffect(() => {
    if (save === 'saved') void load();
  }, [load, save]);
  const pick = async (number: number) => {
    const reply = await askServer<Rig>(`/api/rigs/${rig.id}/revisions/${number}`);
    if (reply.ok) setPicked({ number, document: reply.value });
    else setProblem(problemText(reply.problem));
  };
  const lines = picked ? compareRigs(picked.document, rig) : [];
  return (
    <div className="history-view-columns">
      <div className="scroll history-view-box">
        {problem && (
          <p role="alert">
            {problem}{' '}
            <Button size="compact-xs" onClick={() => void load()}>
              Try again
            </Button>
          </p>
        )}
        {!rows && !problem && <p className="faint">Loading …</p>}
        {rows && (
          <table className="sheet-table" data-table="revisions">
            <thead>
              <tr>
                <th>Revision</th>
                <th>Saved</th>
                <th>What was done</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr
                  key={r.number}
                  data-click
                  aria-current={picked?.number === r.number}
                  tabIndex={0}
                  onClick={() => void pick(r.number)}
                  onKeyDown={(e) => e.key === 'Enter' && void pick(r.number)}
                >
                  <td className="figures">{r.number}</td>
                  <td className="figures one-line">
                    {new Date(r.savedAt).toLocaleString('en-GB')}
                  </td>
                  <td>{r.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      <aside className="signal-side side-body history-view-aside">
        {picked ? (
          <>
            <h2>Since revision {picked.number}</h2>
            {lines.length ? (
              <ul data-list="changes">
                {lines.map((l, i) => (
                  <li key={i}>{l}</li>
                ))}
              </ul>
            ) : (
              <p>Nothing has changed since.</p>
            )}
            <Button
              disabled={!lines.length}
              onClick={() =>
                edit(
                  { edit: 'replaceRig', rig: picked.document },
                  `went back to revision ${picked.number}`,
                ).ok &&
                setNotice(
                  `This is revision ${picked.number} again, saved as a new one. Undo brings back what was.`,
                )
              }
            >
              Go back to revision {picked.number}
            </Button>
            <p className="faint small-print">Going back makes a new revision; none is ever lost.</p>
          </>
        ) : (
          <p className="faint">Choose a revision to see what has changed since.</p>
        )}
      </aside>
    </div>
  );
}
