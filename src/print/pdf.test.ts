import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { analyse } from '../core/report';
import { cutList } from '../core/build';
import { flyRig, touringRig } from '../core/demo';
import {
  type BookPart,
  bookOf,
  bookPages,
  type LabelKind,
  labelSheets,
  MARGIN_MM,
  type Paper,
} from '../core/formats';
import type { Rig } from '../core/rig';
import { chainOf } from '../core/testing/rigs';
import { printPdf } from './pdf';

interface Text {
  text: string;
  x: number;
  y: number;
  size: number;
}
interface Page {
  width: number;
  height: number;
  texts: Text[];
}

const folder = mkdtempSync(join(tmpdir(), 'yantrel-pdf-'));
let count = 0;

/** Parts of a rig and its labels, printed and read. */
const read = (
  rig: Rig,
  ids: readonly string[],
  labels: readonly LabelKind[],
  paper: Paper,
): Promise<Page[]> =>
  readParts(
    ids.length ? bookOf(rig, analyse(rig)).filter((p) => ids.includes(p.id)) : [],
    labels.flatMap((k) => labelSheets(rig, k, paper, 'http://127.0.0.1:3200/rigs/x')),
    paper,
    rig.name,
  );

/** A PDF as a library reads it that had no part in writing it. */
async function readParts(
  parts: readonly BookPart[],
  sheets: ReturnType<typeof labelSheets>,
  paper: Paper,
  rig = 'Rig',
): Promise<Page[]> {
  const path = join(folder, `${++count}.pdf`);
  const foot = { rig, revision: 'revision 12', date: '2026-11-25' };
  writeFileSync(path, await printPdf(bookPages(parts, sheets, paper, foot)));
  return JSON.parse(
    execFileSync(process.execPath, ['scripts/read-pdf.mjs', path], {
      encoding: 'utf8',
      maxBuffer: 1e8,
      stdio: ['ignore', 'pipe', 'ignore'],
    }),
  ) as Page[];
}

/** All that is written on a page, as one text. */
const written = (page: Page): string =>
  page.texts
    .map((t) => t.text)
    .join(' ')
    .replace(/\s+/g, ' ');

test.each([
  ['A4', 210, 297],
  ['Letter', 215.9, 279.4],
] as const)(
  '%s: pages have its size, upright or across as the part wants; each ends with rig, revision, date and its number',
  async (paper, width, height) => {
    const pages = await read(touringRig, ['summary', 'inputs', 'power', 'cautions'], [], paper);
    const sizes = pages.map((p) => [Math.round(p.width * 10) / 10, Math.round(p.height * 10) / 10]);
    expect(sizes[0]).toEqual([width, height]);
    expect(sizes[1]).toEqual([height, width]);
    expect(sizes[2]).toEqual([width, height]);
    pages.forEach((page, i) => {
      const foot = page.texts.filter((t) => t.y > page.height - MARGIN_MM);
      expect(foot.map((t) => t.text).join(' ')).toContain(
        `${touringRig.name}, revision 12, 2026-11-25`,
      );
      expect(foot.map((t) => t.text).join(' ')).toContain(`page ${i + 1} of ${pages.length}`);
    });
  },
  60_000,
);

test('everything stands within the margins', async () => {
  const pages = await read(
    touringRig,
    ['summary', 'stage', 'wiring', 'boards', 'racks', 'cuts', 'findings'],
    [],
    'A4',
  );
  for (const page of pages) {
    for (const t of page.texts.filter((x) => x.y < page.height - MARGIN_MM)) {
      expect(t.x).toBeGreaterThanOrEqual(MARGIN_MM - 0.5);
      expect(t.x).toBeLessThan(page.width - MARGIN_MM);
      expect(t.y).toBeGreaterThan(MARGIN_MM - 0.5);
    }
  }
}, 60_000);

test('the figures of the rig can be read from it', async () => {
  const all = (await read(touringRig, ['summary', 'power', 'pack', 'cuts'], [], 'A4'))
    .map(written)
    .join(' ');
  const list = cutList(touringRig);
  expect(all).toContain(`${list.cuts.length} leads`);
  expect(all).toContain(`${list.joints} joints, ${list.ties} ties`);
  expect(all).toContain('Mast conditioner: 5 of 8 sockets');
  expect(all).toContain('2. Head trunk, 31.0 kg, two persons lift');
  for (const c of list.cuts) expect(all).toContain(c.code);
}, 60_000);

test('a long table repeats its head on the next page', async () => {
  const pages = await read(touringRig, ['cuts'], [], 'A4');
  expect(pages.length).toBeGreaterThan(1);
  for (const page of pages.slice(0, 2))
    expect(page.texts.map((t) => t.text)).toEqual(expect.arrayContaining(['Code', 'Plugs', 'Cut']));
}, 60_000);

test.each([16, 40, 47, 52, 60, 75, 110])(
  'of a table of %i rows no page holds one alone, and a heading stays with it',
  async (count) => {
    const rows = Array.from({ length: count }, (_, i) => [`row ${i + 1}`, 'something']);
    const table = { is: 'table' as const, head: ['Row', 'What'], rows };
    const heading = { is: 'heading' as const, words: 'Over it' };
    // Another table before it, so that it begins anywhere on a page.
    const first = { ...table, rows: rows.slice(0, count % 9) };
    const part = { id: 'x', title: 'X', blocks: [first, heading, table] };
    const pages = await readParts([part], [], 'A4');
    const rowsOn = (page: Page) => page.texts.filter((t) => t.text.startsWith('row ')).length;
    expect(pages.reduce((n, p) => n + rowsOn(p), 0)).toBe(count + first.rows.length);
    for (const page of pages.slice(1)) expect(rowsOn(page)).toBeGreaterThan(1);
    for (const page of pages) {
      const at = page.texts.find((t) => t.text === 'Over it');
      if (at) expect(page.texts.some((t) => t.text.startsWith('row ') && t.y > at.y)).toBe(true);
    }
  },
  60_000,
);

test('a chain of sixty goes over pages: every letter of 6 pt or more, every device on its route', async () => {
  const kinds = Array.from({ length: 58 }, (_, i) => ['boost', 'chorus', 'delay'][i % 3]!);
  const chain = chainOf(['guitar-active', ...kinds, 'console-input'], 0.5);
  const sounds = chain.sounds.slice(0, 1);
  const pages = await read({ ...chain, sounds }, ['walks', 'wiring', 'settings'], [], 'Letter');
  for (const page of pages)
    for (const t of page.texts) expect((t.size * 72) / 25.4).toBeGreaterThanOrEqual(5.99);
  const routes = pages.filter((p) => /: .*, \d+ of \d+/.test(written(p)));
  expect(routes.length).toBeGreaterThan(4);
  const all = routes.map(written).join(' ');
  for (const d of chain.devices) expect(all).toContain(d.name);
}, 60_000);

test('drawings are vectors with their words: names of devices are text on the page', async () => {
  const pages = await read(touringRig, ['boards', 'racks', 'stage'], [], 'A4');
  const words = pages.map(written).join(' ');
  for (const name of [
    'Brine',
    'Kiln',
    'Skeg',
    'Gangway',
    'Mast conditioner',
    'Deck board',
    'audience',
  ])
    expect(words).toContain(name);
}, 60_000);

describe('labels in the PDF, measured', () => {
  test('flags are 80 mm wide and 12 mm apart from row to row, halves 40 mm apart', async () => {
    const [page] = await read(touringRig, [], ['flags'], 'A4');
    // Each end of a lead has its code on both halves of its flag, in 3 mm letters.
    const codes = page!.texts.filter((t) => /^W\d\d/.test(t.text));
    const first = codes.filter((t) => t.text.startsWith('W01'));
    expect(first).toHaveLength(4);
    expect(first[1]!.x - first[0]!.x).toBeCloseTo(40, 1);
    // The flag of the other end begins after 80 mm and a gap of 2.
    expect(first[2]!.x - first[0]!.x).toBeCloseTo(82, 1);
    const second = codes.filter((t) => t.text.startsWith('W02'));
    expect(second[0]!.y - first[0]!.y).toBeCloseTo(12, 1);
    expect(first[0]!.x).toBeCloseTo(MARGIN_MM + 1.5, 1);
    expect(first[0]!.size).toBeCloseTo(3, 1);
  }, 60_000);
  test('cells of a switch strip are as far apart as the switches', async () => {
    const [page] = await read(touringRig, [], ['strips'], 'A4');
    const center = (text: string) => page!.texts.find((t) => t.text === text)!;
    // Skeg has eight switches on 420 mm: rows of pieces with three, three and two cells stand under
    // each other, 14 mm apart.
    expect(center('Kiln rhythm').y - center('Tide flat').y).toBeCloseTo(14, 1);
    expect(center('Tide flat').size).toBeCloseTo(4.4, 1);
  }, 60_000);
  test('a case label is 90 by 62 mm: two to a row, four rows to a sheet of A4', async () => {
    const pages = await read(touringRig, [], ['cases'], 'A4');
    expect(pages).toHaveLength(1);
    const at = (text: string) => pages[0]!.texts.find((t) => t.text === text)!;
    expect(at('Head trunk').x - at('Board case').x).toBeCloseTo(92, 1);
    expect(at('Deck trunk').y - at('Board case').y).toBeCloseTo(64, 1);
    expect(at('1 of 8').size).toBeCloseTo(5, 1);
  }, 60_000);
  test('the bar to check the printer by says 100 mm', async () => {
    const pages = await read(flyRig, [], ['flags', 'cases'], 'Letter');
    for (const page of pages) {
      const bar = page.texts.find((t) => t.text.includes('100 mm: if it is not'))!;
      // It begins 102 mm from where the bar begins.
      expect(bar.x).toBeCloseTo(MARGIN_MM + 102, 0);
      expect(bar.y).toBeGreaterThan(page.height - MARGIN_MM - 12);
    }
  }, 60_000);
});

test('names with letters of other languages, markup and very long words are printed', async () => {
  const names = [
    'Žluťoučký kůň',
    'Ærø & Sønner',
    '<b>Bold</b>',
    'Ярость',
    'Σίγμα',
    'x'.repeat(110),
  ];
  const rig: Rig = {
    ...flyRig,
    devices: flyRig.devices.map((d, i) => (names[i] ? { ...d, name: names[i] } : d)),
  };
  const all = (await read(rig, ['power', 'pack'], ['cases'], 'A4')).map(written).join(' ');
  for (const name of names.slice(0, 5))
    expect(all.replace(/\s+/g, '')).toContain(name.replace(/\s+/g, ''));
}, 60_000);
