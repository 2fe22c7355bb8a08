import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { openBrowser } from './browser.mjs';
import { root } from './machine.mjs';

/**
 * Takes the pictures in docs/screenshots from the demo data of a running Yantrel: `npm run
 * screenshots -- http://127.0.0.1:3200`; names behind the address take those alone.
 */
const [address = 'http://127.0.0.1:3200', ...only] = process.argv.slice(2);
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
const pause = (ms) => new Promise((r) => setTimeout(r, ms));

const VIEWS = [
  { name: 'rigs', path: '/' },
  {
    name: 'signal',
    path: '/rigs/salt-and-ferry/signal',
    steps: async (p) => {
      await p.keyboard.press('5');
      await p.click('[data-device="kiln"]');
    },
  },
  {
    name: 'start',
    path: '/rigs/new',
    dark: true,
    steps: async (p) => {
      const field = (label) => p.locator(`::-p-aria([name="${label}"])`).click();
      const kinds = async (label, ...words) => {
        await field(label);
        for (const word of words) {
          await p.keyboard.type(word);
          await p.keyboard.press('ArrowDown');
          await p.keyboard.press('Enter');
        }
        await p.keyboard.press('Escape');
      };
      await field('What is it called?');
      await p.keyboard.type('Observatory, autumn');
      await kinds('What comes in?', 'Baritone guitar');
      await p.locator('label::-p-text(Front of house)').click();
      await kinds('Which pedals are on hand?', 'Tuner, true', 'Compressor', 'Drive, mid', 'Delay');
      await field('What makes the sound of an amplifier?');
      await p.locator('[role="option"]::-p-text(a modeler)').click();
      await p.waitForSelector('[data-whole="true"]', { timeout: 60_000 });
      await p.evaluate(() => window.scrollTo(0, 0));
    },
  },
  {
    name: 'wiring',
    path: '/rigs/salt-and-ferry/signal',
    steps: async (p) => {
      await p.keyboard.press('g');
      await p.keyboard.press('w');
      await p.waitForSelector('[data-wire="l11"]');
      await p.click('[data-wire="l11"]');
      await p.locator('[data-jack="swell.tuner"]').click();
      await p.waitForSelector('[data-fits="true"]');
    },
  },
  {
    name: 'brief',
    path: '/rigs/observatory-practice/brief',
    steps: async (p) => {
      await p.keyboard.press('1');
    },
  },
  {
    name: 'proposals',
    path: '/rigs/observatory-practice/signal',
    steps: async (p) => {
      await p.keyboard.press('3');
      await p.locator('button ::-p-text(Proposals)').click();
      await p.locator('button ::-p-text(Work it out)').click();
      await p.waitForSelector('[data-proposal]', { timeout: 60_000 });
      // What the order would bring is tried on a copy.
      await p.waitForFunction(() => !document.body.innerText.includes('Trying it on a copy'), {
        timeout: 60_000,
      });
    },
  },
  {
    name: 'findings',
    path: '/rigs/observatory-practice/signal',
    steps: async (p) => {
      await p.keyboard.press('f');
      await p.waitForSelector('[data-cure-all] button', { timeout: 60_000 });
    },
  },
  { name: 'sounds', path: '/rigs/salt-and-ferry/sounds' },
  { name: 'midi', path: '/rigs/observatory-practice/control?part=wiring' },
  { name: 'bus', path: '/rigs/observatory-hybrid/control?part=bus' },
  {
    name: 'rehearse',
    path: '/rigs/salt-and-ferry/control?part=rehearse',
    dark: true,
    steps: async (p) => {
      await p.keyboard.press('ArrowRight');
      await p.keyboard.press('ArrowRight');
      await p.locator('[data-pad="lead"]').click();
      await p.waitForSelector('.wirelog');
    },
  },
  {
    name: 'songs',
    path: '/rigs/salt-and-ferry/songs',
    steps: (p) => p.locator('[data-song="unlit"]').click(),
  },
  {
    name: 'power',
    path: '/rigs/observatory-practice/build?part=power',
    steps: async (p) => {
      await p.locator('button ::-p-text(Plan the outlets)').click();
      await p.waitForSelector('[data-plan] li');
    },
  },
  {
    name: 'board',
    path: '/rigs/ferry-fly-board/build?part=board',
    steps: async (p) => {
      await p.locator('button ::-p-text(Look for a better layout)').click();
      await p.waitForSelector('[data-layout]', { timeout: 180_000 });
    },
  },
  { name: 'stage', path: '/rigs/salt-and-ferry/build?part=stage' },
  { name: 'own-gear', path: '/rigs/salt-and-ferry/build?part=own' },
  {
    name: 'show-view',
    path: '/rigs/salt-and-ferry/show?part=now',
    dark: true,
    steps: async (p) => {
      await p.locator('button ::-p-text(Fill the screen)').click();
      await p.waitForSelector('[data-full="true"]');
      for (let i = 0; i < 4; i++) await p.keyboard.press('ArrowRight');
    },
  },
  {
    name: 'finder',
    path: '/rigs/salt-and-ferry/show?part=finder',
    steps: async (p) => {
      await p.waitForSelector('[data-ear="wide"]', { timeout: 60_000 });
      await p.click('[data-ear="wide"]');
      await p.click('.notice-form .mantine-Chip-label');
      await p.locator('button ::-p-text(That is it)').click();
      await p.click('[data-ear="cab"]');
      await p.locator('button ::-p-text(All fine here)').click();
      await p.locator('button ::-p-text(Sound back now)').click();
      await p.waitForSelector('[data-rescue]', { timeout: 60_000 });
    },
  },
  {
    name: 'drill',
    path: '/rigs/salt-and-ferry/show?part=drill',
    steps: async (p) => {
      await p.locator('button ::-p-text(Start the drill)').click();
      await p.waitForSelector('[data-table="losses"]', { timeout: 120_000 });
    },
  },
];

const browser = await openBrowser();
for (const view of VIEWS.filter((v) => !only.length || only.includes(v.name))) {
  // Each picture is taken by somebody who was never here.
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: view.dark ? 'dark' : 'light' },
  ]);
  // A rig's live line stays open, so the network is never wholly idle.
  await page.goto(address + view.path, { waitUntil: 'networkidle2' });
  await view.steps?.(page);
  await pause(900);
  // The badge of a server in development is no part of the program.
  await page.evaluate(() => document.querySelector('nextjs-portal')?.remove());
  await page.screenshot({ path: join(folder, `${view.name}.png`) });
  await context.close();
  console.log(view.name);
}
await browser.close();
