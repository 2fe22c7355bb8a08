import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const built = mkdtempSync(join(tmpdir(), 'yantrel-built-'));

test('what a browser keeps is every file of the build that a page asks for, by its path', async () => {
  jest.resetModules();
  process.env.YANTREL_DIST = built;
  const chunks = join(built, 'static', 'chunks', 'app');
  mkdirSync(chunks, { recursive: true });
  for (const name of ['b.js', 'b.js.br', 'b.js.map', 'a.css'])
    writeFileSync(join(chunks, name), '');
  const { pageFiles } = await import('./page-files');
  expect(await pageFiles()).toEqual([
    '/_next/static/chunks/app/a.css',
    '/_next/static/chunks/app/b.js',
  ]);
});

test('where nothing was built nothing is kept', async () => {
  jest.resetModules();
  process.env.YANTREL_DIST = join(built, 'nowhere');
  const { pageFiles } = await import('./page-files');
  expect(await pageFiles()).toEqual([]);
});
