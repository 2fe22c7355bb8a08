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

/** How much of a page a line takes, chords alone being one: words with their chords three, a heading two. */
const roomOf = (line: ChartLine): number =>
  line.is === 'head' ? 2 : line.parts.some((p) => p.text.trim()) ? 3 : 1;

/** So much stands on a page that is read at a glance: six lines of words. */
const MOST_ROOM = 18;

const roomOfAll = (lines: readonly ChartLine[]): number =>
  lines.reduce((sum, l) => sum + roomOf(l), 0);

/**
 * A chart page by page, as it is turned by foot: what stands under a heading stays with it, on one page
 * where one holds it; as few pages as that takes, all about as full.
 */
export function chartPages(text: string): ChartLine[][] {
  const blocks = blocksOf(chartLines(text));
  const fewest = pagesWithin(blocks, MOST_ROOM);
  const whole = blocks.map(roomOfAll).filter((room) => room <= MOST_ROOM);
  for (let most = Math.max(1, ...whole); most < MOST_ROOM; most++) {
    const pages = pagesWithin(blocks, most);
    if (pages.length === fewest.length) return pages;
  }
  return fewest;
}

/** Headings that follow one another, with what stands under them. */
function blocksOf(lines: readonly ChartLine[]): ChartLine[][] {
  const blocks: ChartLine[][] = [];
  lines.forEach((line, i) => {
    const begins = line.is === 'head' && lines[i - 1]?.is !== 'head';
    const block = blocks.at(-1);
    if (block && !begins) block.push(line);
    else blocks.push([line]);
  });
  return blocks;
}

/** Pages on which no more stands than that; a block that no page holds is filled in line by line. */
function pagesWithin(blocks: readonly ChartLine[][], most: number): ChartLine[][] {
  const pages: ChartLine[][] = [];
  let page: ChartLine[] = [];
  let room = most;
  const turn = () => {
    if (page.length) pages.push(page);
    page = [];
    room = most;
  };
  const put = (lines: readonly ChartLine[]) => {
    page.push(...lines);
    room -= roomOfAll(lines);
  };
  for (const block of blocks) {
    const fits = roomOfAll(block) <= most;
    if (fits && roomOfAll(block) > room) turn();
    // A heading is not left alone at the foot of a page.
    const first = block.findIndex((l) => l.is === 'line') + 1;
    const together = roomOfAll(block.slice(0, first)) <= most ? block.slice(0, first) : [];
    const single = block.slice(together.length).map((l) => [l]);
    for (const piece of fits ? [block] : [together, ...single]) {
      if (roomOfAll(piece) > room) turn();
      put(piece);
    }
  }
  turn();
  return pages;
}

/**
 * The pages of a chart on which a section of its song stands: from the heading of its name to where the
 * next section's begins. Of several headings of one name each section of that name has its own, in
 * their order; nothing where no heading has the name.
 */
export function pagesOfSection(
  pages: readonly (readonly ChartLine[])[],
  sections: readonly { name: string }[],
  index: number,
): { first: number; last: number } | undefined {
  const here = headingOf(pages, sections, index);
  if (!here) return undefined;
  const next = headingOf(pages, sections, index + 1);
  const last = next ? next.page - (next.line === 0 ? 1 : 0) : pages.length - 1;
  return { first: here.page, last: Math.max(here.page, last) };
}

const sameName = (a: string, b: string): boolean =>
  a.trim().toLowerCase() === b.trim().toLowerCase();

/** Where the heading of a section stands. */
function headingOf(
  pages: readonly (readonly ChartLine[])[],
  sections: readonly { name: string }[],
  index: number,
): { page: number; line: number } | undefined {
  const name = sections[index]?.name;
  if (name === undefined) return undefined;
  const all = pages.flatMap((lines, page) =>
    lines.flatMap((l, line) => (l.is === 'head' && sameName(l.text, name) ? [{ page, line }] : [])),
  );
  const before = sections.slice(0, index).filter((s) => sameName(s.name, name)).length;
  return all[Math.min(before, all.length - 1)];
}
