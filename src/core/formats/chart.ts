import { directiveOf } from './chordpro';

/** One line of a chart: a heading, or words with the chords above them. */
export type ChartLine =
  { is: 'head'; text: string } | { is: 'line'; parts: { chord: string; text: string }[] };

/** Directives that stand above the song elsewhere already. */
const ELSEWHERE = ['title', 'subtitle', 'tempo', 'time', 'key', 'tuning', 'artist', 'capo'];

/**
 * The lines of a ChordPro sheet as they are read on stage: chords in square brackets stand over the
 * syllable that they come before; sections and comments are headings.
 *
 *     chartLines('[Am]Low [F]tide') → [{ is: 'line', parts: [{ chord: 'Am', text: 'Low ' }, …] }]
 */
export function chartLines(text: string): ChartLine[] {
  return text.split(/\r?\n/).flatMap((line): ChartLine[] => {
    const said = directiveOf(line);
    if (said) {
      const starts = /^start_of_(.+)$/.exec(said.key)?.[1]?.replaceAll('_', ' ');
      if (starts) return [{ is: 'head', text: said.rest || starts }];
      return said.key === 'comment' && said.rest && !ELSEWHERE.includes(said.key)
        ? [{ is: 'head', text: said.rest }]
        : [];
    }
    if (line.trim().startsWith('#')) return [];
    if (!line.trim()) return [];
    const parts = line.split(/(?=\[)/).map((piece) => {
      const m = /^\[([^\]]*)\](.*)$/.exec(piece);
      return m ? { chord: (m[1] ?? '').trim(), text: m[2] ?? '' } : { chord: '', text: piece };
    });
    return [{ is: 'line', parts }];
  });
}
