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
  // The engine, what changes a rig, what drags, or another place would go over this.
  expect(first).toBeGreaterThan(300);
  expect(first).toBeLessThan(1150);
  // Whoever only looks fetches no more; nobody has touched the page yet.
  await tech.all();
  expect(await scripts(tech)).toBe(first);
  await tech.cutOff();
  await tech.press('f');
  await tech.see('::-p-aria([name="Findings"][role="dialog"])');
  await tech.press('Escape');
  await tech.gone('.mantine-Drawer-content');
  await tech.click('button[aria-label="Keys"]');
  await tech.see('::-p-aria([name="Keys"][role="dialog"])');
  await tech.press('Escape');
  await tech.gone('.mantine-Modal-overlay');
  // What changes the rig and what shows a device were never fetched by this page: they are kept too.
  await tech.click('[data-station="brine"]');
  await tech.see('[data-inspector="brine"]');
  await tech.press('b');
  await tech.see('[data-save="unsaved"]');
  expect(tech.errors).toEqual([]);
});

test('a part that cannot be fetched says so, and is there once the page is loaded with the server back', async () => {
  const tech = await Person.arrives();
  // A browser that has kept nothing yet.
  const session = await tech.page.createCDPSession();
  await session.send('Network.enable');
  await session.send('Network.setBypassServiceWorker', { bypass: true });
  await tech.loads('/rigs/salt-and-ferry/signal');
  await tech.page.setOfflineMode(true);
  await tech.click('[data-station="brine"]');
  await tech.reads('[data-not-here]', 'the server is away');
  // The walk stands, and nothing speaks of a mistake or of going back a revision.
  await tech.see('[data-station="kiln"]');
  expect(await tech.page.$('[data-trouble]')).toBeNull();
  await tech.page.setOfflineMode(false);
  await Promise.all([tech.page.waitForNavigation(), tech.click('[data-not-here] button')]);
  await tech.click('[data-station="brine"]');
  await tech.see('[data-inspector="brine"]');
});

test('what is typed before what it is meant for is there is not lost, and acts on nothing else', async () => {
  const tech = await Person.arrives();
  const id = await stored(tech, touringRig);
  await tech.loads(`/rigs/${id}/signal`);
  await tech.see('[data-station="kiln"]');
  await tech.control('k');
  // At once, while the palette is still fetched: digits choose sounds, and b bypasses, elsewhere.
  await tech.page.keyboard.type('kilb');
  await tech.press('Backspace');
  await tech.page.keyboard.type('n dr');
  await tech.page.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('input[aria-label="Find and do anything"]')
        ?.value === 'kiln dr',
  );
  await tech.press('Enter');
  await tech.see('[data-inspector="kiln"]');
  await tech.press('c');
  await tech.page.keyboard.type('spray');
  await tech.see('[role="dialog"] input');
  await tech.page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[role="dialog"] input')?.value === 'spray',
  );
  expect((await tech.savedRig(id)).sounds).toEqual(touringRig.sounds);
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
