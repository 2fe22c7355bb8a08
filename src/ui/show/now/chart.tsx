import { Button } from '@mantine/core';
import { type ChartLine, chartPages } from '../../../core/formats/chart';
import type { Song } from '../../../core/rig';

/** The pages of a song's chart; none where it has no chart. */
export const pagesOf = (song: Song | undefined): ChartLine[][] => chartPages(song?.chart ?? '');

/** Text and chords of a song, page by page. */
export function Chart({
  all,
  page,
  onPage,
}: {
  all: ChartLine[][];
  page: number;
  onPage: (page: number) => void;
}) {
  const pages = all.length;
  return (
    <section className="stage-chart" data-chart-page={page + 1}>
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
      {(all[page] ?? []).map((line, i) => (
        <Line key={`${page} ${i}`} line={line} />
      ))}
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
