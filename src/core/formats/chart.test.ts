import fc from 'fast-check';
import { cases } from '../testing/cases';
import { type ChartLine, chartLines, chartPages, pagesOfSection } from './chart';

const anyChart = fc
  .array(fc.constantFrom('{comment: Chorus}', '[Am]Low [F]tide', 'Every grain', '[Em][C]', ''), {
    maxLength: 60,
  })
  .map((lines) => lines.join('\n'));

const roomOf = (page: readonly ChartLine[]): number =>
  page.reduce(
    (sum, l) => sum + (l.is === 'head' ? 2 : l.parts.some((p) => p.text.trim()) ? 3 : 1),
    0,
  );

test('pages hold all lines once, in their order, and no more than what is read at a glance', () => {
  fc.assert(
    fc.property(anyChart, (text) => {
      const pages = chartPages(text);
      expect(pages.flat()).toEqual(chartLines(text));
      for (const page of pages) {
        expect(page.length).toBeGreaterThan(0);
        expect(roomOf(page)).toBeLessThanOrEqual(18);
      }
    }),
    { numRuns: cases(100, 2000) },
  );
});

/** Headings that follow one another, with what stands under them. */
const blocksOf = (lines: readonly ChartLine[]): ChartLine[][] =>
  lines.reduce<ChartLine[][]>((blocks, line, i) => {
    if (!i || (line.is === 'head' && lines[i - 1]?.is !== 'head')) return [...blocks, [line]];
    return [...blocks.slice(0, -1), [...blocks.at(-1)!, line]];
  }, []);

test('a heading goes with what stands under it, and what a page holds is not torn apart', () => {
  fc.assert(
    fc.property(anyChart, (text) => {
      const pages = chartPages(text);
      for (const page of pages.slice(0, -1))
        if (page.some((l) => l.is === 'line')) expect(page.at(-1)?.is).toBe('line');
      const pageOf = pages.flatMap((page, n) => page.map(() => n));
      let at = 0;
      for (const block of blocksOf(chartLines(text))) {
        const on = pageOf.slice(at, (at += block.length));
        if (roomOf(block) <= 18) expect(new Set(on).size).toBe(1);
      }
    }),
    { numRuns: cases(100, 2000) },
  );
  const verses = ['{comment: Verse 1}', 'Weigh it in', 'Every grain', 'Weigh it in'];
  const text = [...verses, '{comment: Chorus}', ...Array<string>(4).fill('Carry over')].join('\n');
  expect(chartPages(text).map((page) => page.map((l) => l.is)[0])).toEqual(['head', 'head']);
});

test('pages are about as full as one another: none holds a last line alone', () => {
  const pages = (lines: number) =>
    chartPages(Array<string>(lines).fill('Weigh it in').join('\n')).map((p) => p.length);
  expect([6, 7, 13].map(pages)).toEqual([[6], [4, 3], [5, 5, 3]]);
  expect(chartPages('')).toEqual([]);
  const heads = chartPages(Array<string>(12).fill('{comment: Solo}').join('\n'));
  expect(heads.map((p) => p.length)).toEqual([6, 6]);
});

test('a section stands on the pages from its heading to the next one’s; of one name each has its own', () => {
  const verse = (n: number) => Array<string>(n).fill('Weigh it in');
  const text = [
    ...['{comment: Verse}', ...verse(5)],
    ...['{comment: Chorus}', ...verse(10)],
    ...['{comment: Verse}', ...verse(5)],
  ].join('\n');
  const pages = chartPages(text);
  const of = (...names: string[]) => {
    const sections = names.map((name) => ({ name }));
    return sections.map((_, i) => pagesOfSection(pages, sections, i));
  };
  const [first, chorus, second] = of('verse', 'Chorus', 'VERSE');
  expect(first).toEqual({ first: 0, last: 0 });
  expect(chorus!.last).toBeGreaterThan(chorus!.first);
  expect(second).toEqual({ first: pages.length - 1, last: pages.length - 1 });
  // A third of a name that is written twice is the second one; what is not written has no page.
  expect(of('Verse', 'Verse', 'Verse', 'Bridge').slice(1)).toEqual([second, second, undefined]);
  for (const span of of('Verse', 'Chorus', 'Verse'))
    expect(pages[span!.first]!.some((l) => l.is === 'head')).toBe(true);
});
