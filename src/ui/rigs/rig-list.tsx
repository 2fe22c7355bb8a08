'use client';
import { Button, FileButton, Group, Modal, Switch, TagsInput, TextInput } from '@mantine/core';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type Dispatch, type SetStateAction, useEffect, useState } from 'react';
import { askServer, type ServerProblem } from '../keep/ask-server';
import type { SmallWalk } from '../../core/draw/small-walk';
import { SEVERITIES, type Severity } from '../../core/findings/finding';
import { CommitText } from '../look/commit-text';
import { SeverityMark } from '../look/severity';
import { SmallWalkDrawing } from './small-walk';

export interface ListedRig {
  id: string;
  name: string;
  head: number;
  changedAt: string;
  archived: boolean;
  tags: string[];
  devices: number;
  sounds: number;
  open: Record<Severity, number> | null;
  walk: SmallWalk | null;
  next: { date: string; venue: string } | null;
}

/** The tag of rigs that can be started from. */
export const TEMPLATE = 'template';

/** What the list can be ordered by. */
type Column = 'name' | 'devices' | 'sounds' | 'findings' | 'next' | 'changedAt';
const COLUMNS: [Column, string][] = [
  ['name', 'Rig'],
  ['devices', 'Devices'],
  ['sounds', 'Sounds'],
  ['findings', 'Findings'],
  ['next', 'Next show'],
  ['changedAt', 'Changed'],
];

/** The worse a rig stands, the more: a danger outweighs any number of faults. */
const weight = ({ open }: ListedRig): number =>
  open ? SEVERITIES.reduce((sum, s) => sum * 1000 + Math.min(999, open[s]), 0) : -1;

/** Rigs in an order: names from A on, the next show first, everything else the most first. */
function sorted(rigs: readonly ListedRig[], by: Column): ListedRig[] {
  const list = [...rigs];
  if (by === 'name') return list.sort((a, b) => a.name.localeCompare(b.name));
  if (by === 'changedAt') return list.sort((a, b) => b.changedAt.localeCompare(a.changedAt));
  // Rigs without a show stand behind those with one.
  if (by === 'next')
    return list.sort((a, b) => (a.next?.date ?? '9999').localeCompare(b.next?.date ?? '9999'));
  const of = (r: ListedRig) => (by === 'findings' ? weight(r) : r[by]);
  return list.sort((a, b) => of(b) - of(a));
}

/** How often the list looks whether rigs have been judged, and how many times: what fails is not judged at all. */
const LOOK_MS = 2000;
const LOOKS = 15;

/** Looks again while rigs are being judged, so that findings and walks come into the list by themselves. */
function useJudged(isWaiting: boolean): void {
  const router = useRouter();
  useEffect(() => {
    if (!isWaiting) return;
    let left = LOOKS;
    const timer = setInterval(() => {
      router.refresh();
      left--;
      if (!left) clearInterval(timer);
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [isWaiting, router]);
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
  const [twice, setTwice] = useState<{ text: string; there: ListedRig } | null>(null);
  const [find, setFind] = useState('');
  const [by, setBy] = useState<Column>('changedAt');
  const bringIn = async (text: string, beside = false) => {
    setTwice(null);
    const reply = await askServer<{ id: string }>('/api/rigs', 'POST', { text, beside });
    if (reply.ok) return router.push(`/rigs/${reply.value.id}/signal`);
    const there = rigs.find((r) => r.id === (reply.problem.there as ListedRig | undefined)?.id);
    if (there) setTwice({ text, there });
    setFailure(there ? null : reply.problem);
  };
  const importFile = async (file: File | null) => {
    if (file) await bringIn(await file.text());
  };
  useJudged(rigs.some((r) => !r.open && !r.archived));
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const ofThese = rigs.filter((r) => r.archived === archived);
  const shown = sorted(
    ofThese.filter((r) =>
      words.every((w) => [r.name, ...r.tags].some((x) => x.toLowerCase().includes(w))),
    ),
    by,
  );
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
      {twice && (
        <Modal opened onClose={() => setTwice(null)} title="A rig of that name is there already">
          <p>
            {twice.there.name} is in the list, changed{' '}
            {new Date(twice.there.changedAt).toLocaleString('en-GB')}. The file would make a second
            one of the same name.
          </p>
          <Group>
            <Button component={Link} href={`/rigs/${twice.there.id}/signal`}>
              Open the one that is there
            </Button>
            <Button variant="default" onClick={() => void bringIn(twice.text, true)}>
              Import it beside
            </Button>
          </Group>
        </Modal>
      )}
      {ofThese.length > 3 && (
        <TextInput
          mb={8}
          aria-label="Find a rig"
          placeholder="Find a rig by its name or a tag …"
          value={find}
          onChange={(e) => setFind(e.currentTarget.value)}
        />
      )}
      {!problem && shown.length === 0 && (
        <div className="empty">
          {find
            ? 'No rig is called that.'
            : archived
              ? 'No rig is archived.'
              : 'No rig yet. Make a new one, which takes about two minutes, or import a file.'}
        </div>
      )}
      {shown.length > 0 && (
        <table className="sheet-table phone-cards" data-table="rigs">
          <thead>
            <tr>
              {COLUMNS.map(([column, label]) => (
                <th key={column} aria-sort={by === column ? 'other' : undefined}>
                  <button
                    type="button"
                    className="sorting"
                    aria-pressed={by === column}
                    onClick={() => setBy(column)}
                  >
                    {label}
                  </button>
                </th>
              ))}
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
  const [tagging, setTagging] = useState<string | null>(null);
  return (
    <tr data-rig={r.id}>
      <td className="rig-called">
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
        {r.walk && <SmallWalkDrawing walk={r.walk} />}
        {tagging === r.id ? (
          <TagsInput
            autoFocus
            size="xs"
            aria-label={`Tags of ${r.name}`}
            description={`Press Enter after each. A rig tagged “${TEMPLATE}” can be started from.`}
            data={[TEMPLATE]}
            maxTags={20}
            defaultValue={r.tags}
            onChange={(tags) => void act(`/api/rigs/${r.id}`, 'PATCH', { tags })}
            onBlur={() => setTagging(null)}
          />
        ) : (
          <span className="rig-tags">
            {r.tags.map((t) => (
              <span key={t} className="rig-tag">
                {t}
              </span>
            ))}
          </span>
        )}
      </td>
      <td className="figures" data-of={r.devices === 1 ? 'device' : 'devices'}>
        {r.devices}
      </td>
      <td className="figures" data-of={r.sounds === 1 ? 'sound' : 'sounds'}>
        {r.sounds}
      </td>
      <td>
        <OpenFindings open={r.open} />
      </td>
      <td className="figures">
        {r.next && (
          <Link href={`/rigs/${r.id}/show?part=calendar`} className="rig-list-text-5">
            {r.next.date}
            {r.next.venue && `, ${r.next.venue}`}
          </Link>
        )}
      </td>
      <td className="figures" suppressHydrationWarning>
        <span className="rig-when">
          {new Date(r.changedAt).toLocaleString('en-GB', {
            dateStyle: 'short',
            timeStyle: 'short',
          })}
          ,
        </span>{' '}
        <span className="faint rig-when">revision {r.head}</span>
      </td>
      <td>
        <Group gap={4} className="rig-acts">
          <Button size="compact-xs" variant="default" onClick={() => setRenaming(r.id)}>
            Rename
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => setTagging(r.id)}>
            Tags
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

/** What is wrong with a rig, as it was judged last. */
function OpenFindings({ open }: { open: ListedRig['open'] }) {
  if (!open) return <span className="faint">not judged yet</span>;
  const some = SEVERITIES.filter((s) => open[s] > 0);
  if (!some.length) return <span className="faint">none</span>;
  return (
    <span className="open-findings">
      {some.map((s) => (
        <SeverityMark key={s} severity={s} count={open[s]} />
      ))}
    </span>
  );
}
