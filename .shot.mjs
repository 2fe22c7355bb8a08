import { openBrowser } from './scripts/browser.mjs';
const [,, out, path, ...steps] = process.argv;
const browser = await openBrowser();
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
page.on('console', (m) => ['error', 'warning'].includes(m.type()) && console.log('CONSOLE', m.text().slice(0, 300)));
if (process.env.DARK) await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }]);
await page.goto('http://127.0.0.1:3200' + path, { waitUntil: 'networkidle0' });
const pause = (ms) => new Promise((r) => setTimeout(r, ms));
await pause(800);
for (const s of steps) {
  const [what, ...rest] = s.split(':'); const arg = rest.join(':');
  if (what === 'key') await page.keyboard.press(arg);
  else if (what === 'type') await page.keyboard.type(arg);
  else if (what === 'click') await page.click(arg);
  else if (what === 'text') await page.locator(`::-p-text(${arg})`).click();
  else if (what === 'aria') await page.locator(`::-p-aria([name="${arg}"])`).click();
  else if (what === 'wait') await pause(Number(arg));
  else if (what === 'scroll') { const [sel, x, y] = arg.split('|'); await page.$eval(sel, (e, a, b) => e.scrollTo(Number(a), Number(b)), x, y); }
  await pause(350);
}
await pause(500);
await page.screenshot({ path: `/tmp/shots/${out}.png` });
await browser.close();
