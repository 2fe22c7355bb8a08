'use client';
import { Button, Select, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  dueOf,
  type Line,
  LINE_SORTS,
  type LineSort,
  linksIn,
  measuredIn,
  pastOf,
  sortOf,
} from '../../../core/show/book';
import { linesToCsv } from '../../../core/formats/log-csv';
import { fixed } from '../../../core/units';
import { personName } from '../../keep/person';
import { CommitText } from '../../look/commit-text';
import { fileName, save } from '../../look/save-file';
import { useDocument, useRig } from '../../store/use-rig';
import { newId } from '../new-id';
import { BookMark, Head, useShow } from '../parts';
import { useToday } from '../../look/use-today';
import { useBook } from '../use-book';
import { DueList } from './due-list';
import { ElsewhereLines } from './elsewhere';
import { ReadLines } from './read-lines';

const SORT_WORDS: Record<LineSort, string> = {
  note: 'note',
  fault: 'fault',
  repair: 'repair',
  battery: 'battery',
  tube: 'tubes',
  measured: 'measured',
};

/** The logbook: one line typed as it comes, what it is about found in its words. */
export function LogView() {
  const rig = useDocument();
  const book = useBook((s) => s.book);
  const [search, setSearch] = useState('');
  const lines = useMemo(
    () =>
      book.line
        .filter(
          (l) =>
            !l.gone &&
            `${l.text} ${l.by} ${l.sort} ${l.links.map((k) => k.name).join(' ')}`
              .toLowerCase()
              .includes(search.toLowerCase()),
        )
        .sort((a, b) => b.at.localeCompare(a.at)),
    [book, search],
  );
  const past = pastOf(book).filter((p) => p.failed + p.repaired > 0);
  const day = useToday();
  return (
    <div className="scroll show-part">
      <Head title="Logbook">
        <BookMark />
      </Head>
      <LineForm />
      <DueList due={dueOf(rig, book, day)} />
      <Head title="Lines">
        <TextInput
          size="sm"
          aria-label="Search in the logbook"
          placeholder="Search"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
        />
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => save(fileName(rig.name, 'logbook.csv'), linesToCsv(book), 'text/csv')}
        >
          As CSV
        </Button>
        <ReadLines />
      </Head>
      {lines.length === 0 && (
        <p className="empty">
          Nothing is written down yet. Type a line as it comes: “kiln drive crackles when trodden
          on”.
        </p>
      )}
      <ul className="log-lines">
        {lines.map((l) => (
          <LineRow key={l.id} line={l} />
        ))}
      </ul>
      {past.length > 0 && (
        <>
          <h3>What failed before</h3>
          <table className="sheet-table figures" data-table="past">
            <thead>
              <tr>
                <th>What</th>
                <th>Failed</th>
                <th>Looked after</th>
                <th>Minutes lost</th>
                <th>Last</th>
              </tr>
            </thead>
            <tbody>
              {past.map((p) => (
                <tr key={p.id}>
                  <td>
                    {p.name}
                    <ElsewhereLines rig={rig} device={p.id} />
                  </td>
                  <td>{p.failed}</td>
                  <td>{p.repaired}</td>
                  <td>{p.minutes ?? '–'}</td>
                  <td>
                    {p.last?.at.slice(0, 10)} {p.last?.text}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
}

const DRAFT = 'yantrel log draft';
const draftNow = (rig: string): string => {
  try {
    return localStorage.getItem(`${DRAFT} ${rig}`) ?? '';
  } catch {
    return '';
  }
};

/** Where a line is typed; what is half typed outlives a reload. */
export function LineForm({ song }: { song?: string }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { show } = useShow();
  const [text, setText] = useState(() => draftNow(rig.id));
  const [sort, setSort] = useState<LineSort | null>(null);
  const links = useMemo(() => linksIn(rig, text), [rig, text]);
  const type = (next: string) => {
    setText(next);
    try {
      localStorage.setItem(`${DRAFT} ${rig.id}`, next);
    } catch {
      // It stays in the page.
    }
  };
  const write = () => {
    if (!text.trim()) return;
    put('line', newId(), {
      at: new Date().toISOString(),
      text: text.trim().slice(0, 1000),
      by: (personName() ?? '').slice(0, 60),
      show: show?.id ?? '',
      song: song ?? links.find((l) => l.is === 'song')?.id ?? '',
      sort: sort ?? sortOf(text),
      links,
    });
    type('');
    setSort(null);
  };
  return (
    <form
      className="log-form"
      onSubmit={(e) => {
        e.preventDefault();
        write();
      }}
    >
      <TextInput
        size="md"
        aria-label="A line for the logbook"
        placeholder="What happened? One line, as it comes."
        value={text}
        maxLength={1000}
        onChange={(e) => type(e.currentTarget.value)}
      />
      <Select
        size="md"
        aria-label="What it is"
        className="log-sort"
        data={LINE_SORTS.map((s) => ({ value: s, label: SORT_WORDS[s] }))}
        value={sort ?? sortOf(text)}
        allowDeselect={false}
        onChange={(v) => setSort(v)}
      />
      <Button size="md" type="submit" disabled={!text.trim()}>
        Write down
      </Button>
      {links.length > 0 && (
        <p className="small-print" data-links>
          About: {links.map((l) => l.name).join(', ')}
        </p>
      )}
    </form>
  );
}

/** One line: its words can be changed, it can be taken out, its measurements taken into the rig. */
function LineRow({ line }: { line: Line }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const put = useBook((s) => s.put);
  const show = useBook((s) => s.book.show.find((x) => x.id === line.show));
  const song = rig.songs?.find((s) => s.id === line.song);
  const figures = line.sort === 'measured' ? measuredIn(rig, line) : [];
  return (
    <li className="log-line" data-line={line.id} data-sort={line.sort}>
      <span className="faint figures small-print">
        {line.at.slice(0, 16).replace('T', ' ')} · {SORT_WORDS[line.sort]}
        {line.by && ` · ${line.by}`}
        {show && ` · ${show.venue || show.date}`}
        {song && ` · ${song.title}`}
        {line.minutes !== null && ` · ${line.minutes} min`}
      </span>
      <CommitText
        size="sm"
        variant="unstyled"
        aria-label="Line"
        value={line.text}
        needed
        onCommit={(text) =>
          text && put('line', line.id, { text: text.slice(0, 1000), links: linksIn(rig, text) })
        }
      />
      <span className="small-print">
        {line.links.map((l) => l.name).join(', ')}
        {figures.map((f) => (
          <Button
            key={`${f.device} ${f.figure}`}
            size="compact-xs"
            variant="default"
            onClick={() =>
              edit(
                {
                  edit: 'overrideFigure',
                  device: f.device,
                  figure: f.figure,
                  override: { value: f.value, from: 'measured', on: line.at.slice(0, 10) },
                },
                `took ${f.label} of ${fixed(f.value)} ${f.unit} from the logbook`,
              )
            }
          >
            Take {f.label} {fixed(f.value)} {f.unit} into the rig (typical {fixed(f.typical)}
            {f.believable ? '' : ', hard to believe'})
          </Button>
        ))}{' '}
        <button
          type="button"
          className="linklike"
          onClick={() => put('line', line.id, { gone: true })}
        >
          Take out
        </button>
      </span>
    </li>
  );
}
