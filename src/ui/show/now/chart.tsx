import { Button } from '@mantine/core';
import { useMemo } from 'react';
import { type ChartLine, chartLines } from '../../../core/formats/chart';
import type { Song } from '../../../core/rig';

const LINES_A_PAGE = 9;

/** How many pages the chart of a song has; none where it has no chart. */
export const pagesOf = (song: Song | undefined): number =>
  song?.chart ? Math.max(1, Math.ceil(chartLines(song.chart).length / LINES_A_PAGE)) : 0;

/** Text and chords of a song, page by page. */
export function Chart({
  song,
  page,
  onPage,
}: {
  song: Song;
  page: number;
  onPage: (page: number) => void;
}) {
  const lines = useMemo(() => chartLines(song.chart ?? ''), [song.chart]);
  const pages = pagesOf(song);
  const shown = lines.slice(page * LINES_A_PAGE, (page + 1) * LINES_A_PAGE);
  return (
    <section className="stage-chart" data-chart-page={page + 1}>
      {shown.map((line, i) => (
        <Line key={`${page} ${i}`} line={line} />
      ))}
      {pages > 1 && (
        <div className="taps">
          <Button
            size="md"
            variant="default"
            disabled={page === 0}
            onClick={() => onPage(page - 1)}
          >
            Page back
          </Button>
          <span className="figures">
            {page + 1} of {pages}
          </span>
          <Button
            size="md"
            variant="default"
            disabled={page >= pages - 1}
            onClick={() => onPage(page + 1)}
          >
            Page on
          </Button>
        </div>
      )}
    </section>
  );
}

function Line({ line }: { line: ChartLine }) {
  if (line.is === 'head') return <h4>{line.text}</h4>;
  const hasWords = line.parts.some((p) => p.text.trim());
  return (
    <p className="chart-line">
      {line.parts.map((p, i) => (
        <span key={i}>
          <b>{p.chord || '\u00a0'}</b>
          {hasWords && (p.text || '\u00a0')}
        </span>
      ))}
    </p>
  );
}
