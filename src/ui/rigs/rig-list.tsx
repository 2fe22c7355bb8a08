'use client';
import { Button, FileButton, Group, Switch } from '@mantine/core';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { askServer, type ServerProblem } from '../keep/ask-server';
import { CommitText } from '../look/commit-text';

export interface ListedRig {
  id: string;
  name: string;
  head: number;
  changedAt: string;
  archived: boolean;
  devices: number;
  sounds: number;
}

/** All rigs: open, make new, import, copy, rename, put away and bring back, export. */
export function RigList({ rigs, problem }: { rigs: ListedRig[]; problem: string | null }) {
  const router = useRouter();
  const [archived, setArchived] = useState(false);
  const [failure, setFailure] = useState<ServerProblem | null>(null);
  const [renaming, setRenaming] = useState<string | null>(null);
  const act = async (path: string, method: 'POST' | 'PATCH', body?: unknown) => {
    const reply = await askServer<{ id: string }>(path, method, body);
    setFailure(reply.ok ? null : reply.problem);
    router.refresh();
    return reply.ok ? reply.value : null;
  };
  const importFile = async (file: File | null) => {
    if (!file) return;
    const made = await act('/api/rigs', 'POST', { text: await file.text() });
    if (made) router.push(`/rigs/${made.id}/signal`);
  };
  const shown = rigs.filter((r) => r.archived === archived);
  return (
    <main className="page">
      <RigListHead archived={archived} setArchived={setArchived} importFile={importFile} />
      {problem && (
        <div role="alert" className="empty">
          {problem}{' '}
          <Button size="compact-sm" onClick={() => router.refresh()}>
            Try again
          </Button>
        </div>
      )}
      {failure && (
        <div role="alert" className="rig-list-box" data-import-problems>
          <strong>{failure.title}</strong> {failure.detail}
          <ul>
            {failure.problems?.map((p, i) => (
              <li key={i}>
                {p.where && <span className="figures">{p.where}: </span>}
                {p.what}
              </li>
            ))}
          </ul>
          <Button size="compact-xs" variant="default" onClick={() => setFailure(null)}>
            Close
          </Button>
        </div>
      )}
      {!problem && shown.length === 0 && (
        <div className="empty">
          {archived
            ? 'No rig is archived.'
            : 'No rig yet. Make a new one, which takes about two minutes, or import a file.'}
        </div>
      )}
      {shown.length > 0 && (
        <table className="sheet-table" data-table="rigs">
          <thead>
            <tr>
              <th>Rig</th>
              <th>Devices</th>
              <th>Sounds</th>
              <th>Revision</th>
              <th>Changed</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {shown.map((r) => (
              <RigRow key={r.id} r={r} renaming={renaming} setRenaming={setRenaming} act={act} />
            ))}
          </tbody>
        </table>
      )}
      <p className="faint rig-list-text-4">
        Yantrel works out figures; it does not replace care. Mains and tube amplifiers can kill:
        repairs inside belong to licensed technicians, and local codes apply.{' '}
        <Link href="/safety" className="rig-list-text-5">
          Safety
        </Link>
      </p>
    </main>
  );
}

/** The ways to a new rig, and what is shown. */
function RigListHead({
  archived,
  setArchived,
  importFile,
}: {
  archived: boolean;
  setArchived: Dispatch<SetStateAction<boolean>>;
  importFile: (file: File | null) => Promise<void>;
}) {
  return (
    <Group justify="space-between" mb={14}>
      <h1 className="rig-list-text">
        Yantrel{' '}
        <span className="faint rig-list-text-2">describe the rig once; know what it does</span>
      </h1>
      <Group gap={8}>
        <Switch
          label="Show archived"
          checked={archived}
          onChange={(e) => setArchived(e.currentTarget.checked)}
        />
        <Button component={Link} href="/gear" variant="default">
          Gear locker
        </Button>
        <FileButton accept="application/json,.json" onChange={(f) => void importFile(f)}>
          {(props) => (
            <Button variant="default" {...props}>
              Import a file
            </Button>
          )}
        </FileButton>
        <Button component={Link} href="/rigs/new">
          New rig
        </Button>
      </Group>
    </Group>
  );
}

/** One rig, with what can be done with it. */
function RigRow({
  r,
  renaming,
  setRenaming,
  act,
}: {
  r: ListedRig;
  renaming: string | null;
  setRenaming: Dispatch<SetStateAction<string | null>>;
  act: (path: string, method: 'POST' | 'PATCH', body?: unknown) => Promise<{ id: string } | null>;
}) {
  return (
    <tr data-rig={r.id}>
      <td>
        {renaming === r.id ? (
          <CommitText
            autoFocus
            aria-label="New name"
            needed
            value={r.name}
            onCommit={(name) => {
              setRenaming(null);
              void act(`/api/rigs/${r.id}`, 'PATCH', { name });
            }}
            wrapperProps={{ onBlur: () => setRenaming(null) }}
          />
        ) : (
          <Link href={`/rigs/${r.id}/signal`} className="rig-list-text-3">
            {r.name}
          </Link>
        )}
      </td>
      <td className="figures">{r.devices}</td>
      <td className="figures">{r.sounds}</td>
      <td className="figures">{r.head}</td>
      <td className="figures" suppressHydrationWarning>
        {new Date(r.changedAt).toLocaleString('en-GB')}
      </td>
      <td>
        <Group gap={4} wrap="nowrap" justify="end">
          <Button size="compact-xs" variant="default" onClick={() => setRenaming(r.id)}>
            Rename
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => void act(`/api/rigs/${r.id}/duplicate`, 'POST')}
          >
            Copy
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            component="a"
            href={`/api/rigs/${r.id}/file`}
            download
          >
            Export
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => void act(`/api/rigs/${r.id}`, 'PATCH', { archived: !r.archived })}
          >
            {r.archived ? 'Bring back' : 'Archive'}
          </Button>
        </Group>
      </td>
    </tr>
  );
}
