import type { Browser, CDPSession, KeyInput, Page } from 'puppeteer-core';
import { openBrowser } from '../scripts/browser.mjs';
import { touringRig } from '../src/core/demo';
import type { Rig } from '../src/core/rig';
import { mixedRig } from './big-rig';

/** What is wanted of a press, in ms: from the key to the repainted figures, in the middle and of 95 in 100. */
interface Wanted {
  middle: number;
  most?: number;
  script?: number;
}

/** How often a key is pressed: on large rigs less, so that the measuring ends. */
const pressesOf = (rig: Rig): number => (rig.devices.length <= 100 ? 100 : 40);
/** A page has answered when nothing has changed for so long, in ms; after the other it never will. */
const CALM_MS = 150;
const NEVER_MS = 5000;
/** A page is warm after this many. */
const WARM = 15;

const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
const share = (list: readonly number[], of: number) =>
  sorted(list)[Math.min(list.length - 1, Math.floor(list.length * of))] ?? NaN;

let missed = 0;
/** Says a figure, and whether it is over what is wanted. */
function say(what: string, is: number, unit: string, wanted?: number): void {
  const over = wanted !== undefined && !(is <= wanted);
  if (over) missed++;
  const limit = wanted === undefined ? '' : `at most ${wanted} is wanted${over ? ': MISSED' : ''}`;
  console.log(`${what.padEnd(58)} ${is.toFixed(0).padStart(6)} ${unit.padEnd(3)} ${limit}`);
}

/** Stores a rig for the time of the measuring. */
async function stored(base: string, rig: Rig): Promise<string> {
  const id = `bench-${process.pid}-${rig.devices.length}`;
  const answer = await fetch(`${base}/api/rigs`, {
    method: 'POST',
    body: JSON.stringify({ rig: { ...rig, id, name: `Bench, ${rig.devices.length} devices` } }),
  });
  if (!answer.ok) throw new Error(`the server takes no rig: ${answer.status}`);
  return ((await answer.json()) as { id: string }).id;
}

const putAway = (base: string, id: string) =>
  fetch(`${base}/api/rigs/${id}`, { method: 'PATCH', body: JSON.stringify({ archived: true }) });

/** Script over the wire until the walk stands, in kB, and how long that took, in ms. */
async function firstView(browser: Browser, url: string): Promise<{ kB: number; ms: number }> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  const cdp = await page.createCDPSession();
  await cdp.send('Network.enable');
  const scripts = new Set<string>();
  let bytes = 0;
  cdp.on('Network.responseReceived', (e) => {
    if (e.type === 'Script') scripts.add(e.requestId);
  });
  cdp.on('Network.loadingFinished', (e) => {
    if (scripts.has(e.requestId)) bytes += e.encodedDataLength;
  });
  const start = performance.now();
  await page.goto(url, { waitUntil: 'load' });
  await page.waitForSelector('[data-station]');
  const found = { kB: bytes / 1000, ms: performance.now() - start };
  await context.close();
  return found;
}

/**
 * Has the page say of each key when it came, and when the figures that it changed were painted: the last change
 * on screen within a while, then the frame after it. Strips that are scrolled out of sight are not waited for.
 */
const watch = (page: Page) =>
  page.evaluate(() => {
    const told = window as unknown as { presses: { at: number; painted: number }[] };
    told.presses = [];
    addEventListener('keydown', (e) => told.presses.push({ at: e.timeStamp, painted: NaN }), true);
    const figures = '[data-figures], .arrivals, .knob, .pairs';
    const { clientWidth, clientHeight } = document.querySelector('#place .scroll')!;
    new MutationObserver((changes) => {
      // No name for this: what tsx makes of named functions does not run in a page.
      const isSeen = changes.some(({ target }) => {
        const at = target instanceof Element ? target : target.parentElement;
        // Figures, or strips that came and went; marks of findings follow when those are known.
        if (!at?.closest(figures) && !at?.matches('.walk')) return false;
        const strip = at.closest<HTMLElement>('[data-figures]');
        const { left = '0', top = '0' } = strip?.style ?? {};
        return parseFloat(left) <= clientWidth && parseFloat(top) <= clientHeight;
      });
      if (!isSeen) return;
      const press = told.presses.at(-1);
      if (!press) return;
      requestAnimationFrame(() => {
        const channel = new MessageChannel();
        channel.port1.onmessage = () => (press.painted = performance.now());
        channel.port2.postMessage(null);
      });
    }).observe(document.querySelector('#place')!, {
      subtree: true,
      childList: true,
      characterData: true,
      attributes: true,
    });
  });

/** The last press, once all that it changed is painted; in the page. */
async function answered(calm: number, never: number) {
  const told = window as unknown as { presses: { at: number; painted: number }[] };
  const press = told.presses.at(-1);
  while (press && performance.now() - press.at < never) {
    if (performance.now() - press.painted > calm) break;
    await new Promise((r) => setTimeout(r, 10));
  }
  return press;
}

/** How long presses take to be painted, in ms, and how much of that is script, in ms a press. */
async function presses(
  page: Page,
  cdp: CDPSession,
  keys: readonly KeyInput[],
  count: number,
): Promise<{ times: number[]; script: number }> {
  const scriptNow = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    return (metrics.find((m) => m.name === 'ScriptDuration')?.value ?? 0) * 1000;
  };
  const times: number[] = [];
  let before = 0;
  for (let i = 0; i < count + WARM; i++) {
    if (i === WARM) before = await scriptNow();
    await page.keyboard.press(keys[i % keys.length]!);
    const press = await page.evaluate(answered, CALM_MS, NEVER_MS);
    if (i >= WARM && press && Number.isFinite(press.painted)) times.push(press.painted - press.at);
  }
  return { times, script: ((await scriptNow()) - before) / count };
}

/** Bypasses, sounds and a knob of one rig. */
async function measureRig(
  browser: Browser,
  base: string,
  { rig, device, wanted }: { rig: Rig; device: string; wanted: Wanted },
): Promise<void> {
  const id = await stored(base, rig);
  const page = await browser.newPage();
  const cdp = await page.createCDPSession();
  await cdp.send('Performance.enable');
  await page.goto(`${base}/rigs/${id}/signal`, { waitUntil: 'load' });
  await page.waitForSelector(`[data-station="${device}"]`);
  // What is fetched after the first view is there.
  await new Promise((r) => setTimeout(r, 8000));
  await page.evaluate(
    (d) => document.querySelector<HTMLElement>(`[data-station="${d}"]`)!.click(),
    device,
  );
  await watch(page);
  await page.evaluate(() => {
    const told = window as unknown as { longest: number };
    told.longest = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) told.longest = Math.max(told.longest, e.duration);
    }).observe({ type: 'longtask' });
  });
  const name = `${rig.devices.length} devices, ${rig.sounds.length} sounds`;
  const sorts: [string, readonly KeyInput[]][] = [
    ['bypass', ['b']],
    ['sound', ['2', '1']],
    ['knob', ['ArrowUp', 'ArrowDown']],
  ];
  for (const [what, keys] of sorts) {
    if (what === 'knob') await page.focus('.inspector [role="slider"], [role="slider"]');
    const { times, script } = await presses(page, cdp, keys, pressesOf(rig));
    say(`${name}: ${what}, middle of ${times.length}`, share(times, 0.5), 'ms', wanted.middle);
    say(`${name}: ${what}, 95 of 100`, share(times, 0.95), 'ms', wanted.most);
    say(`${name}: ${what}, script on the page a press`, script, 'ms', wanted.script);
  }
  const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
  say(`${name}: longest task`, longest, 'ms', rig.devices.length <= 210 ? 100 : undefined);
  await page.close();
  await putAway(base, id);
}

/** How long each place takes to open again once it was open, in ms. */
async function placesOf(browser: Browser, base: string): Promise<number[]> {
  const page = await browser.newPage();
  await page.goto(`${base}/rigs/${touringRig.id}/signal`, { waitUntil: 'load' });
  await new Promise((r) => setTimeout(r, 8000));
  const names = ['Sounds', 'Control', 'Songs', 'Build', 'Show', 'History', 'Brief', 'Signal'];
  const times: number[] = [];
  for (let round = 0; round < 4; round++)
    for (const name of names) {
      const start = performance.now();
      await page.click(`nav[aria-label="Places"] a[href$="/${name.toLowerCase()}"]`);
      await page.waitForFunction(
        (path) =>
          location.pathname.endsWith(path) &&
          (document.querySelector('#place')?.textContent?.length ?? 0) > 40,
        { polling: 'raf' },
        name.toLowerCase(),
      );
      if (round > 0) times.push(performance.now() - start);
      await new Promise((r) => setTimeout(r, 400));
    }
  await page.close();
  return times;
}

/** Measures the page of a server that runs; exits with 1 where something takes longer than is wanted. */
async function measurePage(base = 'http://127.0.0.1:3200'): Promise<void> {
  const up = await fetch(`${base}/api/health`).then(
    (r) => r.ok,
    () => false,
  );
  if (!up) {
    console.error(`Nothing answers at ${base}. Start Yantrel with "npm run demo" first.`);
    process.exit(2);
  }
  const browser = await openBrowser();
  const views: { kB: number; ms: number }[] = [];
  // The first one warms up the server.
  for (let i = 0; i < 4; i++)
    views.push(await firstView(browser, `${base}/rigs/${touringRig.id}/signal`));
  const middle = (of: 'kB' | 'ms') =>
    share(
      views.slice(1).map((v) => v[of]),
      0.5,
    );
  say('first view of a rig: script, the worker’s with it', middle('kB'), 'kB', 300);
  say('first view of a rig: until the walk stands', middle('ms'), 'ms');
  const places = await placesOf(browser, base);
  say('opening a place that was open before, middle', share(places, 0.5), 'ms', 200);
  say('opening a place that was open before, 95 of 100', share(places, 0.95), 'ms');
  const small: Wanted = { middle: 50, most: 80, script: 16 };
  await measureRig(browser, base, { rig: touringRig, device: 'kiln', wanted: small });
  for (const [count, wanted] of [
    [60, { middle: 50, most: 80 }],
    [200, { middle: 150 }],
    [400, { middle: 200 }],
  ] as const) {
    const rig = mixedRig(count);
    const device = rig.devices.find((d) => d.engaged)!.id;
    await measureRig(browser, base, { rig, device, wanted });
  }
  await browser.close();
  process.exit(missed ? 1 : 0);
}

void measurePage(process.argv[2]);
