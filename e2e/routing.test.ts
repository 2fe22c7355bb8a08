import { analyse } from '../src/core/report';
import { soundDifferences } from '../src/core/changes';
import { hybridRig, touringRig } from '../src/core/demo';
import { walkView } from '../src/core/draw';

import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const strips = (): Promise<string[]> =>
  tech.page.$$eval('.station', (all) =>
    [...all]
      .sort(
        (a, b) =>
          parseFloat((a as HTMLElement).style.top) - parseFloat((b as HTMLElement).style.top) ||
          parseFloat((a as HTMLElement).style.left) - parseFloat((b as HTMLElement).style.left),
      )
      .map((e) => e.getAttribute('data-station')!),
  );
const choose = async (label: string, words: string) => {
  await tech.click(`[aria-label="${label}"]`);
  await tech.page.keyboard.type(words);
  await tech.pick(words);
};

test('a modeler is folded into one strip a pass and unfolded again; its figures are those of its ends', async () => {
  const id = await stored(tech, hybridRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('3');
  await tech.see('[data-station="amp"]');
  await tech.press('h');
  await tech.gone('[data-station="amp"]');
  const folded = (await strips()).filter((s) => s.startsWith('lode~'));
  expect(folded.length).toBeGreaterThanOrEqual(3);
  expect(await tech.text('[data-station="lode~0"]')).toContain('4 inside');
  const out = analyse(hybridRig)
    .sounds.find((s) => s.sound === 'slag')!
    .stations.find((s) => s.device === 'lode' && s.outs.includes('out'))!;
  expect(await tech.figure(folded.at(-1)!, 'level')).toBe(fixed(out.output.levelDbu!.normal));
  await tech.page.click('[data-station="lode~0"]', { count: 2 });
  await tech.see('[data-station="amp"]');
});

test('one destination followed, one source followed, lanes folded to their strips', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('5');
  await choose('Follow one source or destination', 'to House, wide pair');
  await tech.gone('[data-station="cab"]');
  const wide = analyse(touringRig)
    .sounds.find((s) => s.sound === 'lead')!
    .destinations.find((d) => d.device === 'wide')!;
  expect((await strips()).sort()).toEqual(wide.route.filter((id) => id !== 'steel').sort());
  await (await tech.see('[aria-label="Follow one source or destination"]'))!.click({ count: 3 });
  await tech.page.keyboard.type('from Tide tracks');
  await tech.pick('from Tide tracks');
  await tech.gone('[data-station="kiln"]');
  expect(await strips()).toEqual(['tracks:out', 'tdi', 'tdesk', 'tracks:click', 'tech']);
  await tech.button('Fold lane 2');
  await tech.gone('[data-figures="tracks:click"]');
  await tech.see('[data-figures="tracks:out"]');
  await tech.button('Unfold lane 2');
  await tech.see('[data-figures="tracks:click"]');
});

test('two sounds compared on the walk: what differs in words, with the change in level', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('5');
  await choose('Compare with another sound', 'against Crunch');
  await tech.see('[data-differs="kiln"]');
  const report = analyse(touringRig);
  const level = (sound: string) =>
    report.sounds.find((s) => s.sound === sound)!.stations.find((s) => s.id === 'kiln')!.output
      .levelDbu!.normal;
  expect(await tech.text('[data-differs="kiln"]')).toBe(
    `on, was off +${(level('lead') - level('crunch')).toFixed(1)} dB`,
  );
  const words = soundDifferences(touringRig, touringRig.sounds[2]!, touringRig.sounds[4]!);
  expect([...words.keys()].sort()).toEqual(['dome', 'echo', 'flare', 'heads', 'kiln']);
  expect(
    await tech.page.$eval('[data-station="comp"]', (e) => e.classList.contains('narrow')),
  ).toBe(true);
});

test('what is not played is told apart and shown when asked for', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.see('[data-chip="steel"]');
  expect(await strips()).not.toContain('steel');
  const { quiet } = walkView(touringRig, analyse(touringRig).sounds[0]!);
  expect(quiet).toContain('deckcab');
  await tech.page.locator(`button::-p-text(Show ${quiet.length} quiet)`).click();
  await tech.see('[data-station="steel"]');
});

test('the drawing by place and the list are one: a lead chosen in either stands out in both', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('g');
  await tech.see('[data-box="kiln"]');
  expect(await tech.page.$$('[data-way]')).toHaveLength(touringRig.leads.length);
  await tech.press('w');
  await tech.click('[data-wire="l16"]');
  await tech.page.waitForFunction(
    () => document.querySelector('[data-way="l16"]')?.getAttribute('data-on') === 'true',
  );
  await tech.page.$eval('[data-way="l08"]', (e) =>
    e.dispatchEvent(new MouseEvent('click', { bubbles: true })),
  );
  await tech.page.waitForFunction(
    () =>
      document.querySelector('[data-wire="l08"]')?.getAttribute('aria-current') === 'true' &&
      document.querySelector('[data-way="l16"]')?.getAttribute('data-on') === 'false',
  );
  expect(await tech.text('[data-count]')).toContain(`${touringRig.leads.length - 2} leads`);
  expect(
    await tech.page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth),
  ).toBe(true);
});

test('the minimap shows the whole walk and looks elsewhere when pressed', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('5');
  const map = (await (await tech.see('.minimap svg'))!.boundingBox())!;
  expect(await tech.page.$eval('.signal-main .scroll', (e) => e.scrollLeft)).toBe(0);
  await tech.page.mouse.click(map.x + map.width - 20, map.y + 8);
  await tech.page.waitForFunction(
    () => document.querySelector('.signal-main .scroll')!.scrollLeft > 300,
  );
});

test('walk and wiring are written as drawings and as graphs', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('5');
  await tech.page.evaluate(() => {
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
  const written = async (item: string): Promise<{ name: string; size: number; text: string }> => {
    const before = await tech.page.evaluate(
      () => (window as unknown as { files: unknown[] }).files.length,
    );
    await tech.button('Export the walk or the wiring');
    await tech.page.locator(`[role="menuitem"]::-p-text(${item})`).click();
    await tech.page.waitForFunction(
      (n) => (window as unknown as { files: unknown[] }).files.length > n,
      {},
      before,
    );
    return tech.page.evaluate(async () => {
      const { name, blob } = (
        window as unknown as { files: { name: string; blob: Blob }[] }
      ).files.at(-1)!;
      return {
        name,
        size: blob.size,
        text:
          blob.type === 'image/png'
            ? String.fromCharCode(...new Uint8Array(await blob.slice(1, 4).arrayBuffer()))
            : await blob.text(),
      };
    });
  };
  const graphml = await written('Wiring as GraphML');
  expect(graphml.name).toMatch(/-wiring\.graphml$/);
  expect(graphml.text.match(/<edge /g)).toHaveLength(touringRig.leads.length);
  expect((await written('Walk as DOT')).text).toContain('digraph "rig"');
  expect((await written('Walk as SVG')).text).toContain('Kiln Drive');
  const png = await written('Wiring as PNG');
  expect(png.text).toBe('PNG');
  expect(png.size).toBeGreaterThan(20_000);
});
