import { touringRig } from '../src/core/demo';
import { Person, stored } from './person';

afterAll(() => Person.allLeave());

/** Script that a page has fetched so far, in kB as it was before it was packed. */
const scripts = (tech: Person): Promise<number> =>
  tech.page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter((e): e is PerformanceResourceTiming => e instanceof PerformanceResourceTiming)
      .filter((e) => e.name.endsWith('.js') && e.initiatorType === 'script')
      .reduce((sum, e) => sum + e.decodedBodySize / 1000, 0),
  );

test('a rig opens with the script of its view; the rest comes after it, and then opens with the server away', async () => {
  const tech = await Person.arrives();
  await tech.page.goto(`${tech.base}/rigs/salt-and-ferry/signal`, { waitUntil: 'load' });
  const first = await scripts(tech);
  // The engine alone, or one of the larger places, would go over this.
  expect(first).toBeGreaterThan(300);
  expect(first).toBeLessThan(1600);
  await tech.page.waitForFunction(
    (size) =>
      performance
        .getEntriesByType('resource')
        .filter((e) => e.name.endsWith('.js') && e.name.includes('/_next/static/'))
        .reduce((sum, e) => sum + (e as PerformanceResourceTiming).decodedBodySize / 1000, 0) >
      size * 1.3,
    {},
    first,
  );
  // The last of what is fetched later is a dialog: then nothing has to be asked for any more.
  await tech.all();
  await tech.offline();
  await tech.press('f');
  await tech.see('::-p-aria([name="Findings"][role="dialog"])');
  await tech.press('Escape');
  await tech.gone('.mantine-Drawer-content');
  await tech.click('button[aria-label="Keys"]');
  await tech.see('::-p-aria([name="Keys"][role="dialog"])');
  expect(tech.errors).toEqual([]);
});

test('scripts come packed once, and are kept for ever under their names; pages are not', async () => {
  const tech = await Person.arrives();
  await tech.open('/rigs/salt-and-ferry/signal');
  const script = await tech.page.evaluate(() => {
    const all = [...document.querySelectorAll<HTMLScriptElement>('script[src*="/_next/static/"]')];
    return all[0]!.src;
  });
  const headers = async (url: string) => {
    const answer = await fetch(url, { headers: { 'accept-encoding': 'br' } });
    expect(answer.ok).toBe(true);
    return answer.headers;
  };
  const packed = await headers(script);
  expect(packed.get('content-encoding')).toBe('br');
  expect(packed.get('cache-control')).toContain('immutable');
  expect(packed.get('x-content-type-options')).toBe('nosniff');
  expect((await headers(`${tech.base}/gear`)).get('cache-control')).not.toContain('immutable');
  expect((await fetch(`${tech.base}/_next/static/..%2f..%2fpackage.json`)).ok).toBe(false);
});

test('entries of a list are there while it is open; what a press changes is painted once', async () => {
  const tech = await Person.arrives();
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?device=kiln&sound=lead`);
  await tech.see('[data-inspector="kiln"]');
  await tech.see('[data-station="kiln"]');
  const entries = () => tech.page.$$eval('[role="option"]', (all) => all.length);
  expect(await entries()).toBe(0);
  await tech.click('[aria-label="Compare with another sound"]');
  await tech.see('[role="option"]');
  expect(await entries()).toBe(7);
  await tech.press('Escape');
  await tech.gone('[role="option"]');
  // Nothing slides: an animation would have every frame of the page drawn anew.
  await tech.page.evaluate(() => {
    const told = window as unknown as { slid: string[] };
    told.slid = [];
    document.addEventListener('transitionrun', (e) => {
      if (e.target instanceof Element && e.target.closest('#place'))
        told.slid.push(`${e.target.className} ${e.propertyName}`);
    });
    (document.activeElement as HTMLElement | null)?.blur();
  });
  await tech.press('b');
  await tech.see('[data-station="kiln"][data-state="through"]');
  await tech.sound('2');
  await tech.see('[data-station="kiln"]');
  expect(await tech.page.evaluate(() => (window as unknown as { slid: string[] }).slid)).toEqual(
    [],
  );
});
