'use client';
import { Button, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { dueOf, type Line, linksIn, measuredIn, pastOf } from '../../../core/show/book';
import { linesToCsv } from '../../../core/formats/log-csv';
import { fixed } from '../../../core/units';
import { CommitText } from '../../look/commit-text';
import { fileName, save } from '../../look/save-file';
import { useDocument, useRig } from '../../store/use-rig';
import { BookMark, Head } from '../parts';
import { useToday } from '../../look/use-today';
import { useBook } from '../use-book';
import { DueList } from './due-list';
import { ElsewhereLines } from './elsewhere';
import { LineForm, SORT_WORDS } from './line-form';
import { ReadLines } from './read-lines';

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
