'use client';
import { Button, Group, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { laterPart } from '../look/later';
import { RevisionsTable } from './revisions-table';
import { useRevisions } from './use-revisions';

const RevisionPanel = dynamic(
  laterPart('revision', () => import('./revision-panel').then((m) => m.RevisionPanel)),
  { ssr: false },
);

/** Every revision of the rig: when, who, what was done; what changed between any two, and the way back. */
export function HistoryView() {
  const [words, setWords] = useState('');
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  const [asked] = useDebouncedValue(words, 250);
  const { rows, more, problem, load, loadMore, rename } = useRevisions({
    words: asked,
    from,
    until,
  });
  const [picked, setPicked] = useState<number | null>(null);
  const row = rows?.find((r) => r.number === picked);
  return (
    <div className="history-view-columns">
      <div className="scroll history-view-box">
        <Group gap={8} mb={8} align="end" className="no-print">
          <TextInput
            size="xs"
            w={250}
            label="Words, a name or a person"
            value={words}
            onChange={(e) => setWords(e.currentTarget.value)}
          />
          <TextInput
            size="xs"
            type="date"
            label="From"
            value={from}
            onChange={(e) => setFrom(e.currentTarget.value)}
          />
          <TextInput
            size="xs"
            type="date"
            label="Before"
            value={until}
            onChange={(e) => setUntil(e.currentTarget.value)}
          />
        </Group>
        {problem && (
          <p role="alert">
            {problem}{' '}
            <Button size="compact-xs" onClick={() => void load()}>
              Try again
            </Button>
          </p>
        )}
        {!rows && !problem && <p className="faint">Loading …</p>}
        {rows?.length === 0 && <p className="empty">No revision says that.</p>}
        {rows && rows.length > 0 && (
          <RevisionsTable rows={rows} picked={picked} onPick={setPicked} />
        )}
        {more && (
          <Button size="xs" variant="default" mt={8} onClick={() => void loadMore()}>
            Earlier revisions
          </Button>
        )}
      </div>
      <aside className="signal-side side-body history-view-aside">
        {row ? (
          <RevisionPanel
            key={row.number}
            row={row}
            rows={rows ?? []}
            onName={(name) => rename(row.number, name)}
          />
        ) : (
          <p className="faint">Choose a revision to see what has changed since.</p>
        )}
      </aside>
    </div>
  );
}
