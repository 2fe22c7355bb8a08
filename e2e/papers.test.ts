import { billOf, cutList, loadsOf, unfed } from '../src/core/build';
import { touringRig } from '../src/core/demo';
import { readCsv } from '../src/core/formats';
import type { Rig } from '../src/core/rig';
import { showLength } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

interface Kept {
  name: string;
  size: number;
  head: string;
  text: string;
}

/** From now on what the page saves is kept instead of being written to disk. */
const keepFiles = () =>
  tech.page.evaluate(() => {
    const files: { name: string; blob: Blob }[] = [];
    (window as unknown as { files: typeof files }).files = files;
    let last: Blob | undefined;
    URL.createObjectURL = (blob) => {
      last = blob as Blob;
      return 'blob:kept';
    };
    HTMLAnchorElement.prototype.click = function click() {
      if (last) files.push({ name: this.download, blob: last });
    };
  });

/** The file that something gives. */
async function fileFrom(act: () => Promise<void>): Promise<Kept> {
  const before = await tech.page.evaluate(
    () => (window as unknown as { files: unknown[] }).files.length,
  );
  await act();
  await tech.page.waitForFunction(
    (n) => (window as unknown as { files: unknown[] }).files.length > n,
    { timeout: 40_000 },
    before,
  );
  return tech.page.evaluate(async () => {
    const { name, blob } = (
      window as unknown as { files: { name: string; blob: Blob }[] }
    ).files.at(-1)!;
    const bytes = new Uint8Array(await blob.arrayBuffer());
    return {
      name,
      size: blob.size,
      head: String.fromCharCode(...bytes.slice(0, 8)),
      text: new TextDecoder().decode(bytes),
    };
  });
}

test.each([
  ['board', 'salt-and-ferry-deck-board', 'Kiln Drive'],
  ['rack', 'salt-and-ferry-tide-rack', 'Mast conditioner'],
  ['stage', 'salt-and-ferry-stage', 'Tide rack'],
])('the %s is given as a drawing and as a picture', async (part, name, word) => {
  await tech.open(`/rigs/salt-and-ferry/build?part=${part}`);
  await tech.see('.plan svg');
  await keepFiles();
  const take = (what: string) => async () => {
    await tech.button('Drawing as a file');
    await tech.page.locator(`[role="menuitem"] ::-p-text(${what})`).click();
  };
  const svg = await fileFrom(take('SVG'));
  expect(svg.name).toBe(`${name}.svg`);
  expect(svg.text.startsWith('<?xml')).toBe(true);
  expect(svg.text).toContain(word.split(' ')[0]!);
  expect(svg.text).not.toContain('stroke-width="4"');
  const png = await fileFrom(take('PNG'));
  expect(png.name).toBe(`${name}.png`);
  expect(png.head.slice(1, 4)).toBe('PNG');
  expect(png.size).toBeGreaterThan(10_000);
});

test('lists as CSV hold what the screen shows, and other programs can read them', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=leads`);
  await tech.see('[data-table="cuts"]');
  await keepFiles();
  const rows = (text: string, needed: string[]) => {
    const read = readCsv(text, needed);
    if (!read.ok) throw new Error(read.problems[0]!.what);
    return read.value.rows.map((r) => r.cells);
  };
  const cuts = rows((await fileFrom(() => tech.button('Cut list as CSV'))).text, ['code', 'cut m']);
  const list = cutList(touringRig);
  expect(cuts.map((c) => c.code)).toEqual(list.cuts.map((c) => c.code));
  cuts.forEach((c, i) => expect(Number(c['cut m'])).toBeCloseTo(list.cuts[i]!.cut, 3));
  const wiring = rows((await fileFrom(() => tech.button('Wiring as CSV'))).text, [
    'id',
    'length m',
  ]);
  expect(wiring).toHaveLength(touringRig.leads.length);
  const bill = rows((await fileFrom(() => tech.button('Bill as CSV'))).text, [
    'what',
    'item',
    'count',
  ]);
  expect(bill.map((b) => b.item)).toEqual(billOf({ ...touringRig, id }).map((l) => l.item));
  await tech.open(`/rigs/${id}/build?part=power`);
  await tech.see('[data-table="outlets"]');
  await keepFiles();
  const power = rows((await fileFrom(() => tech.button('As CSV'))).text, ['supply', 'outlet']);
  const fed = loadsOf(touringRig).reduce((n, l) => n + Math.max(1, l.takers.length), 0);
  expect(power).toHaveLength(fed + unfed(touringRig).length);
});

test('a part of the book alone: only it is on the sheet', async () => {
  await tech.open('/rigs/salt-and-ferry/build?part=book');
  await tech.see('[data-part="cautions"]');
  await tech.button('No part');
  await tech.page.locator('label ::-p-text(Stage plot)').click();
  await tech.see('[data-part="stage"] svg');
  expect(await tech.page.$$eval('[data-part]', (all) => all.length)).toBe(1);
  const pages = [
    ...Buffer.from(await tech.page.pdf({ preferCSSPageSize: true }))
      .toString('latin1')
      .matchAll(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/g),
  ].map((m) => [Math.round(Number(m[1])), Math.round(Number(m[2]))]);
  // It lies across.
  expect(pages.some(([w, h]) => w === 842 && h === 595)).toBe(true);
  await tech.button('All parts');
  await tech.see('[data-part="findings"]');
});

test('lengths can be shown in feet and inches', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=leads`);
  const cut = cutList(touringRig).cuts.find((c) => c.lead.id === 'l04')!;
  await tech.reads('[data-cut="l04"]', showLength(cut.cut, 'metric'));
  expect(showLength(cut.cut, 'imperial')).not.toBe(showLength(cut.cut, 'metric'));
});

test('empty places teach the next step', async () => {
  const bare: Rig = {
    format: 'yantrel-rig',
    version: 1,
    id: 'bare',
    name: 'Bare',
    devices: [],
    leads: [],
    sounds: [{ id: 's', name: 'S', states: {} }],
  };
  const id = await stored(tech, bare);
  for (const [part, words] of [
    ['board', 'There is no board yet.'],
    ['rack', 'There is no rack yet.'],
    ['stage', 'Nothing yet. Put the board, the rack and the amplifiers where they stand'],
    ['power', 'There is no supply in this rig.'],
    ['leads', 'There is nothing to cut'],
    ['bill', 'Nothing is packed.'],
    ['labels', 'There are no leads yet'],
  ] as const) {
    await tech.open(`/rigs/${id}/build?part=${part}`);
    await tech.reads('.place', words);
  }
});

test('the server answers what cannot be printed in words', async () => {
  const ask = (body: object) =>
    tech.api<{ title: string; problems?: { where: string; what: string }[] }>(
      '/api/rigs/salt-and-ferry/book',
      'POST',
      body,
    );
  const whole = {
    paper: 'A4',
    parts: ['power'],
    labels: [],
    level: 'dBu',
    length: 'metric',
    revision: 'revision 1',
    date: '2026-11-25',
    rig: touringRig,
  };
  const nothing = await ask({ ...whole, parts: [] });
  expect(nothing.status).toBe(422);
  expect(nothing.body.title).toBe('There is nothing to print.');
  const paper = await ask({ ...whole, paper: 'B5' });
  expect(paper.status).toBe(422);
  expect(paper.body.problems![0]).toEqual({ where: 'paper', what: 'it is none of "A4", "Letter"' });
  const torn = await ask({
    ...whole,
    rig: {
      ...touringRig,
      leads: [{ ...touringRig.leads[0]!, to: { device: 'gone', jack: 'in' } }],
    },
  });
  expect(torn.status).toBe(422);
  expect(torn.body.problems![0]!.what).toContain('there is no device "gone" in this rig');
  expect((await tech.api('/api/rigs/nobody-has-this/book')).status).toBe(404);
});

test('safety is a page of its own, and is reached from the list of rigs', async () => {
  await tech.open('/');
  await tech.page.locator('a ::-p-text(Safety)').click();
  await tech.reads('[data-place="safety"]', 'Local codes and licensed practice come first');
  expect(
    await tech.page.$$eval('[data-caution]', (all) =>
      all.map((e) => e.getAttribute('data-caution')),
    ),
  ).toEqual(['mains', 'tubes', 'speakers', 'hearing', 'radio', 'lifting', 'solder', 'phantom']);
});
