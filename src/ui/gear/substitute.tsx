'use client';
import { Button, Checkbox, Group, Modal, Select } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Outcomes } from '../../core/report';
import { kindIdOf, learnSheets, type Rig, type Sheet, substitution } from '../../core/rig';
import type { LockerSheet } from '../build/own-gear/locker-list';
import { askServer, problemText } from '../keep/ask-server';
import { CANCELLED, propose } from '../../worker';

/** What an exchange would do to one rig: tried on a copy, or why it could not be. */
type Tried =
  | { is: 'trying' }
  | { is: 'tried'; outcome: Outcomes; identity: string }
  | { is: 'not'; why: string };

/** Another sheet in the place of one, in every rig that uses it: tried in each before it is done. */
export function Substitute({
  held,
  others,
  onClose,
  onDone,
}: {
  held: LockerSheet;
  others: readonly Sheet[];
  onClose: () => void;
  /** What was done, in words. */
  onDone: (words: string) => void;
}) {
  const { sheet } = held;
  const rigs = held.uses.filter((u) => u.devices > 0 && !u.archived);
  const [by, setBy] = useState<Sheet | null>(null);
  const [tried, setTried] = useState<Record<string, Tried>>({});
  const [left, setLeft] = useState<readonly string[]>([]);
  const ids = rigs.map((r) => r.rig).join(' ');
  useEffect(() => {
    if (!by) return undefined;
    let stop: () => void = () => undefined;
    let gone = false;
    const put = (rig: string, t: Tried) => !gone && setTried((now) => ({ ...now, [rig]: t }));
    void (async () => {
      for (const id of ids.split(' ').filter(Boolean)) {
        put(id, { is: 'trying' });
        const reply = await askServer<{ rig: Rig; identity: string }>(`/api/rigs/${id}`);
        if (gone) return;
        if (!reply.ok) {
          put(id, { is: 'not', why: problemText(reply.problem) });
          continue;
        }
        const { rig, identity } = reply.value;
        learnSheets([...(rig.sheets ?? []), by]);
        const working = propose(
          'outcome',
          { rig, edits: substitution(rig, sheet.id, by) },
          () => {},
        );
        stop = working.cancel;
        await working.answer.then(
          (outcome) => put(id, { is: 'tried', outcome, identity }),
          (e: Error) => e.message !== CANCELLED && put(id, { is: 'not', why: e.message }),
        );
      }
    })();
    return () => {
      gone = true;
      stop();
    };
  }, [by, ids, sheet.id]);
  const chosen = rigs.filter((r) => !left.includes(r.rig) && tried[r.rig]?.is === 'tried');
  const exchange = async () => {
    if (!by) return;
    const failed: string[] = [];
    for (const r of chosen) {
      const now = tried[r.rig];
      if (now?.is !== 'tried') continue;
      const body = { of: sheet.id, by: by.id, tried: now.identity, kind: kindIdOf(by) };
      const reply = await askServer(`/api/rigs/${r.rig}/substitute`, 'POST', body);
      if (!reply.ok) failed.push(`${r.rigName}: ${problemText(reply.problem)}`);
    }
    const done = chosen.length - failed.length;
    onDone(
      [
        `${by.name} stands in the place of ${sheet.name} in ${done} of ${chosen.length} rigs; ` +
          'each has it as a revision of its own.',
        ...failed,
      ].join(' '),
    );
  };
  return (
    <Modal opened onClose={onClose} size="xl" title={`Another in the place of ${sheet.name}`}>
      <Select
        size="xs"
        searchable
        label="What takes its place"
        data={others.map((s) => ({ value: s.id, label: s.name }))}
        value={by?.id ?? null}
        onChange={(id) => {
          setTried({});
          setBy(others.find((s) => s.id === id) ?? null);
        }}
      />
      {rigs.length === 0 && <p>No rig that is not archived uses it.</p>}
      {by &&
        rigs.map((r) => (
          <div key={r.rig} data-exchange={r.rig} className="exchange-row">
            <Checkbox
              size="xs"
              label={`${r.rigName}: ${r.devices}`}
              checked={!left.includes(r.rig)}
              onChange={(e) =>
                setLeft(
                  e.currentTarget.checked ? left.filter((x) => x !== r.rig) : [...left, r.rig],
                )
              }
            />
            <TriedWords tried={tried[r.rig]} />
          </div>
        ))}
      <Group mt={12}>
        <Button size="xs" disabled={!chosen.length} onClick={() => void exchange()}>
          Exchange it in {chosen.length} {chosen.length === 1 ? 'rig' : 'rigs'}
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          Leave everything as it is
        </Button>
      </Group>
    </Modal>
  );
}

/** What came of the exchange on a copy: what is worse, and what else is different. */
function TriedWords({ tried }: { tried: Tried | undefined }) {
  if (!tried || tried.is === 'trying') return <p className="faint">Tried on a copy …</p>;
  if (tried.is === 'not') return <p>It could not be tried: {tried.why}</p>;
  const { breaks, costs } = tried.outcome;
  return (
    <ul className="exchange-words">
      {breaks.map((b) => (
        <li key={b}>
          <strong className="over">worse: {b}</strong>
        </li>
      ))}
      {costs.map((c) => (
        <li key={c}>{c}</li>
      ))}
      {!breaks.length && !costs.length && (
        <li>Nothing is worse, and nothing is heard otherwise.</li>
      )}
    </ul>
  );
}
