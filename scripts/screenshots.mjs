import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { openBrowser } from './browser.mjs';
import { root } from './machine.mjs';

/** Takes the pictures in docs/screenshots from the demo data of a running Yantrel: `npm run screenshots -- http://127.0.0.1:3200`. */
const address = process.argv[2] ?? 'http://127.0.0.1:3200';
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const pause = (ms) => new Promise((r) => setTimeout(r, ms));

const VIEWS = [
  { name: 'rigs', path: '/' },
  { name: 'new-rig', path: '/rigs/new', steps: async (p) => {
    await p.locator('::-p-aria([name="What is it called?"])').fill('Fly rig, autumn');
    const choose = async (label, kinds) => {
      await (await p.locator(`::-p-aria([name="${label}"])`).waitHandle()).click();
      for (const kind of kinds) {
        await p.keyboard.type(kind);
        await p.keyboard.press('ArrowDown');
        await p.keyboard.press('Enter');
      }
      await p.keyboard.press('Escape');
    };
    await choose('What comes in?', ['Baritone']);
    await p.locator('label::-p-text(Front of house)').click();
    await choose('Which pedals are on hand?', ['Reverb', 'Drive, low', 'Drive, mid', 'Compressor', 'Delay', 'Chorus', 'Octave']);
  } },
  { name: 'signal', path: '/rigs/salt-and-ferry/signal', steps: async (p) => {
    await p.keyboard.press('5');
    await p.click('[data-device="kiln"]');
  } },
  { name: 'signal-move', path: '/rigs/salt-and-ferry/signal', dark: true, steps: async (p) => {
    await p.keyboard.press('5');
    await p.click('[data-device="flare"]');
    await p.keyboard.press('m');
    for (let i = 0; i < 5; i++) {
      await p.keyboard.press('ArrowRight');
      await pause(100);
    }
  } },
  { name: 'signal-probe', path: '/rigs/salt-and-ferry/signal', steps: async (p) => {
    await p.keyboard.press('4');
    await p.click('[data-lead="l08"]');
  } },
  { name: 'tone', path: '/rigs/observatory-practice/signal', steps: async (p) => {
    await p.keyboard.press('3');
    await p.click('[data-device="mando"]');
    await p.waitForSelector('.recharts-line-curve');
    await p.$eval('.side-body', (e) => e.scrollTo(0, 330));
  } },
  { name: 'wiring', path: '/rigs/salt-and-ferry/signal', steps: async (p) => {
    await p.keyboard.press('g');
    await p.keyboard.press('w');
    await p.waitForSelector('[data-wire="l11"]');
    await p.click('[data-wire="l11"]');
  } },
  { name: 'brief', path: '/rigs/observatory-practice/brief', steps: async (p) => {
    await p.keyboard.press('1');
  } },
  { name: 'promises', path: '/rigs/salt-and-ferry/brief', dark: true },
  { name: 'folded', path: '/rigs/observatory-hybrid/signal', steps: async (p) => {
    await p.keyboard.press('4');
    await p.keyboard.press('h');
    await p.waitForSelector('[data-folded]');
    await p.click('[data-folded]');
  } },
  { name: 'compare-walk', path: '/rigs/salt-and-ferry/signal', steps: async (p) => {
    await p.keyboard.press('5');
    await p.click('[aria-label="Compare with another sound"]');
    await p.keyboard.type('against Crunch');
    await p.locator('[role="option"]::-p-text(against Crunch)').click();
  } },
  { name: 'proposals', path: '/rigs/observatory-practice/signal', steps: async (p) => {
    await p.keyboard.press('3');
    await p.locator('button ::-p-text(Proposals)').click();
    await p.locator('button ::-p-text(Work it out)').click();
    await p.waitForSelector('[data-proposal]', { timeout: 60_000 });
  } },
  { name: 'arrivals', path: '/rigs/salt-and-ferry/sounds', steps: async (p) => {
    await p.locator('label ::-p-text(What arrives)').click();
    await p.waitForSelector('[data-table="arrivals"]');
  } },
  { name: 'findings', path: '/rigs/observatory-practice/signal', steps: (p) => p.keyboard.press('f') },
  { name: 'sounds', path: '/rigs/salt-and-ferry/sounds' },
  { name: 'presses', path: '/rigs/salt-and-ferry/sounds', steps: async (p) => {
    await p.locator('label ::-p-text(Presses)').click();
    await p.locator('[data-presses="crunch lead"] button').click();
    await p.waitForSelector('[data-list="presses"] li');
  } },
  { name: 'gain-ladder', path: '/rigs/salt-and-ferry/sounds', steps: async (p) => {
    await p.keyboard.press('5');
    await p.locator('label ::-p-text(Gain ladder)').click();
  } },
  { name: 'compare', path: '/rigs/salt-and-ferry/sounds', steps: (p) => p.locator('label ::-p-text(Compare two)').click() },
  { name: 'history', path: '/rigs/salt-and-ferry/signal', steps: async (p) => {
    const saved = () => p.waitForSelector('[data-save="saved"]');
    await p.keyboard.press('5');
    await p.click('[data-device="flare"]');
    await p.keyboard.press('m');
    for (let i = 0; i < 5; i++) await p.keyboard.press('ArrowRight');
    await pause(400);
    await p.keyboard.press('Enter');
    await pause(600);
    await saved();
    await p.keyboard.down('Control');
    await p.keyboard.press('z');
    await p.keyboard.up('Control');
    await pause(600);
    await saved();
    await p.locator('nav ::-p-text(History)').click();
    await p.locator('[data-table="revisions"] tbody tr:nth-child(2)').click();
  } },
];

const browser = await openBrowser();
for (const view of VIEWS) {
  // Each picture is taken by somebody who was never here.
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: view.dark ? 'dark' : 'light' }]);
  await page.goto(address + view.path, { waitUntil: 'networkidle0' });
  await view.steps?.(page);
  await pause(900);
  await page.screenshot({ path: join(folder, `${view.name}.png`) });
  await context.close();
  console.log(view.name);
}
await browser.close();
