'use client';
import { clockTime, type Score } from '../../../core/songs';
import type { Due } from '../../../core/songs/practice';
import { fixed } from '../../../core/units';
import { useDocument } from '../../store/use-rig';

export const pressWords = (name: string, { late, due }: { late: number; due: Due }): string =>
  `${name}: ${fixed(Math.abs(late), 0)} ms ${late < 0 ? 'early' : 'late'} for ${due.name}`;

/** The score once there is one; before that the changes that are due. */
export function Result({
  score,
  due,
  running,
  coming,
  countInMs,
}: {
  score: Score | null;
  due: Due[];
  running: { from: number } | null;
  coming: Due | undefined;
  countInMs: number;
}) {
  return (
    <section>
      {score ? (
        <>
          <p
            role="status"
            className={`verdict ${score.percent === 100 ? 'right' : 'wrong'}`}
            data-score={score.percent}
          >
            <strong>
              {score.onTime} of {score.hits.length} on time
              {score.wrong
                ? `, ${score.wrong} wrong ${score.wrong === 1 ? 'press' : 'presses'}`
                : ''}
              .
            </strong>{' '}
            {score.meanAbsMs !== null &&
              score.meanOffMs !== null &&
              `On average ${fixed(score.meanAbsMs, 0)} ms ` +
                `off, ${fixed(Math.abs(score.meanOffMs), 0)} ` +
                `ms ${score.meanOffMs < 0 ? 'early' : 'late'} on the whole.`}
          </p>
          <ScoreTable score={score} />
        </>
      ) : (
        <DueTable due={due} running={running} coming={coming} countInMs={countInMs} />
      )}
      {!due.length && (
        <div className="empty">
          This song calls one sound from beginning to end: there is nothing to change.
        </div>
      )}
    </section>
  );
}

/** The changes that the song asks for, in order. */
function DueTable({
  due,
  running,
  coming,
  countInMs,
}: {
  due: Due[];
  running: { from: number } | null;
  coming: Due | undefined;
  countInMs: number;
}) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="due">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Change</th>
          <th>To</th>
          <th>At</th>
        </tr>
      </thead>
      <tbody>
        {due.map((d) => (
          <tr key={d.section} aria-current={running !== null && coming === d}>
            <td>{d.bar}</td>
            <td>{d.name}</td>
            <td>{rig.sounds.find((s) => s.id === d.sound)?.name}</td>
            <td>{clockTime(d.atMs - countInMs)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Every change that was due, and how early or late it was called. */
function ScoreTable({ score }: { score: Score }) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="score">
      <thead>
        <tr>
          <th>Bar</th>
          <th>Change</th>
          <th>To</th>
          <th>Off by</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {score.hits.map((h) => (
          <tr key={h.due.section} data-hit={h.due.section}>
            <td>{h.due.bar}</td>
            <td>{h.due.name}</td>
            <td>{rig.sounds.find((s) => s.id === h.due.sound)?.name}</td>
            <td>{h.offMs === null ? '–' : `${fixed(h.offMs, 0)} ms`}</td>
            <td>
              <strong>{h.verdict}</strong>
              {h.wrong ? `, ${h.wrong} wrong before` : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
