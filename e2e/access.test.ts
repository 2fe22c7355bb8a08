import { readFileSync } from 'node:fs';
import type { AxeResults, RunOptions } from 'axe-core';
import { PLACE_IDS, placeOf } from '../src/ui/frame/place-list';
import { EXAMPLE_SHEETS, touringRig } from '../src/core/demo';
import { withOtherIds } from '../src/core/testing/other-ids';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

beforeAll(async () => {
  // The locker is looked at with something in it.
  const person = await Person.arrives();
  await person.open('/gear');
  told = await stored(person, withOtherIds(touringRig));
  for (const sheet of EXAMPLE_SHEETS.slice(0, 3))
    await person.api('/api/sheets', 'PUT', {
      sheet: { ...sheet, id: `seen-${sheet.id}`, name: `Seen, ${sheet.about?.slice(0, 20)}` },
      base: null,
    });
  await person.api('/api/gear', 'PUT', { serial: 'SEEN-1', name: 'Seen' });
  // And with a number and a name as long as somebody may type them, without a gap.
  const long = `SEEN-${'0123456789'.repeat(5)}`;
  await person.api('/api/gear', 'PUT', { serial: long, name: long });
  await person.api('/api/sheets', 'PUT', {
    sheet: { ...EXAMPLE_SHEETS[0]!, id: 'seen-long', name: long, maker: long },
    base: null,
  });
});

/** What the checker looks at: everything, or of a page that was looked at already what another sheet changes. */
const LOOKS: Record<'all' | 'colours', RunOptions> = {
  all: { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] },
  colours: { runOnly: ['color-contrast', 'link-in-text-block'] },
};

const CHECKER = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** What stands in the way of those who do not see or point, as a checker of pages finds it: its rule and where. */
async function barriers(look: keyof typeof LOOKS = 'all'): Promise<string[]> {
  if (!(await tech.page.evaluate(() => 'axe' in window))) await tech.page.evaluate(CHECKER);
  const { violations } = await tech.page.evaluate(
    (o) =>
      (
        window as unknown as { axe: { run: (c: Document, o: RunOptions) => Promise<AxeResults> } }
      ).axe.run(document, o),
    LOOKS[look],
  );
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => {
      const where = v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160));
      return `${v.id}: ${where.join(' | ')}`;
    });
}

let seen: 'light' | 'dark' | undefined;

/** Until nothing moves any more, from the next frame on. */
const atRest = () =>
  tech.page.evaluate(async () => {
    await new Promise((frame) => requestAnimationFrame(() => requestAnimationFrame(frame)));
    await Promise.allSettled(document.getAnimations().map((a) => a.finished));
  });

/** The sheet that is looked at; colours that change slowly have changed when it is done. */
async function sheet(scheme: 'light' | 'dark'): Promise<void> {
  if (seen === scheme) return;
  seen = scheme;
  await tech.page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: scheme },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
  await atRest();
}

/** A phone, a tablet, twice the size on a laptop, and a laptop, which is what comes last. */
const WIDTHS = [390, 640, 768, 1024, 1280];

/** Stands for the touring rig under ids that nobody could take for names. */
const TOLD = 'told';
let told = '';

/** Every place and every part of one. */
const VIEWS = PLACE_IDS.flatMap((place) => {
  const parts = Object.keys(placeOf(place).parts ?? {});
  return parts.length ? parts.map((p) => `${place}?part=${p}`) : [place];
})
  .concat('signal?pane=table', 'signal?pane=wiring')
  .map((view) => `/rigs/${TOLD}/${view}`);

/** Words that hold the id of something; in the page. */
function idsTold(): string[] {
  const read = [document.body.innerText];
  for (const e of document.querySelectorAll('[aria-label], [title], [placeholder]'))
    read.push(...['aria-label', 'title', 'placeholder'].map((a) => e.getAttribute(a) ?? ''));
  return read.flatMap((words) => words.match(/.*zq\d+zq.*/g) ?? []);
}

/** Words of usual length that go on in the next line, letter by letter, for want of room; in the page. */
function brokenWords(): string[] {
  const found: string[] = [];
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  const range = document.createRange();
  for (let text = texts.nextNode(); text; text = texts.nextNode()) {
    const around = text.parentElement;
    if (!around?.checkVisibility({ visibilityProperty: true })) continue;
    if (around.closest('svg, script, style')) continue;
    for (const word of (text.nodeValue ?? '').matchAll(
      /(?<![\p{L}\d])[\p{L}\d]{4,12}(?![\p{L}\d])/gu,
    )) {
      range.setStart(text, word.index);
      range.setEnd(text, word.index + word[0].length);
      const lines = new Set([...range.getClientRects()].map((r) => Math.round(r.top)));
      if (lines.size > 1) found.push(word[0]);
    }
  }
  return [...new Set(found)];
}

test.each(['/', '/gear', '/safety', '/rigs/new', '/rigs/observatory-practice/brief', ...VIEWS])(
  '%s has no serious barrier on either sheet, and does not scroll sideways',
  async (path) => {
    // Everything on the sheet that the last page was left on, colours on the other.
    await sheet(seen ?? 'light');
    const there = path.replace(`/${TOLD}/`, `/${told}/`);
    // From one place of the rig to the next, as who works on it goes.
    const isOpen = new URL(tech.page.url()).pathname.startsWith(`/rigs/${told}/`);
    await (isOpen ? tech.goes(there) : tech.open(there));
    expect(new URL(tech.page.url()).pathname).toBe(there.replace(/\?.*/, ''));
    expect(await barriers()).toEqual([]);
    expect(await tech.page.evaluate(idsTold)).toEqual([]);
    const tooWide: number[] = [];
    const broken: [number, string[]][] = [];
    for (const width of WIDTHS) {
      await tech.page.setViewport({ width, height: 800 });
      const words = await tech.page.evaluate(brokenWords);
      if (words.length) broken.push([width, words]);
      if (await tech.page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth))
        tooWide.push(width);
    }
    expect(tooWide).toEqual([]);
    expect(broken).toEqual([]);
    await sheet(seen === 'light' ? 'dark' : 'light');
    expect(await barriers('colours')).toEqual([]);
  },
);

test.each(['light', 'dark'] as const)(
  'no dialog or drawer has a serious barrier on the %s sheet',
  async (scheme) => {
    await sheet(scheme);
    await tech.open('/rigs/observatory-practice/signal?device=ember');
    const found: Record<string, string[]> = {};
    const opened = async (what: string, open: () => Promise<void>) => {
      await open();
      await tech.see('[role="dialog"]');
      // Whatever slides or fades in has come to rest.
      await atRest();
      found[what] = await barriers();
      await tech.press('Escape');
      await tech.gone('[role="dialog"]');
    };
    await opened('palette', () => tech.control('k'));
    await opened('findings', () => tech.press('f'));
    await opened('keys', () => tech.button('Keys'));
    await opened('connect', () => tech.press('c'));
    await opened('replace', () => tech.press('r'));
    await opened('proposals', () => tech.button('Proposals'));
    expect(found).toEqual(Object.fromEntries(Object.keys(found).map((what) => [what, []])));
    await sheet('light');
  },
);

test('with findings of every severity the head of the page still holds its menu', async () => {
  await tech.page.setViewport({ width: 1280, height: 800 });
  await tech.open('/rigs/observatory-practice/signal');
  await tech.see('[aria-label^="Findings: 3 dangers"]');
  const ends = await tech.page.$$eval('header button', (all) =>
    all.map((e) => e.getBoundingClientRect().right),
  );
  expect(ends.length).toBeGreaterThan(4);
  expect(Math.max(...ends)).toBeLessThanOrEqual(1280);
});
