import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { hybridRig } from '../../core/demo';
import { analyse } from '../../core/report';
import { heavy } from './pool';
import type { BookChoice } from './tasks';

const choice: BookChoice = {
  paper: 'A4',
  labels: [],
  level: 'dBu',
  length: 'metric',
  revision: 'revision 1',
  date: '2026-01-01',
  link: 'http://127.0.0.1/rigs/hybrid',
};
const here = process.env.YANTREL_HEAVY;
afterEach(() => {
  if (here === undefined) delete process.env.YANTREL_HEAVY;
  else process.env.YANTREL_HEAVY = here;
});

test('heavy work is done in a thread and comes to the same as here; nothing chosen is nothing', async () => {
  const root = join(__dirname, '../../..');
  const compile = `import('./scripts/compile-cli.mjs').then((m) => m.compileThread()).then((f) => process.stdout.write(f))`;
  const made = spawnSync(process.execPath, ['-e', compile], { cwd: root, encoding: 'utf8' });
  process.env.YANTREL_HEAVY = made.stdout;
  const [report, book, nothing] = await Promise.all([
    heavy('report', { rig: hybridRig }),
    heavy('book', { rig: hybridRig, choice }),
    heavy('book', { rig: hybridRig, choice: { ...choice, parts: [] } }),
  ]);
  expect(report).toEqual(analyse(hybridRig));
  expect(Buffer.from(book!).subarray(0, 5).toString()).toBe('%PDF-');
  expect(nothing).toBeNull();
  // What takes too long is stopped and says so; the next is done all the same.
  await expect(heavy('book', { rig: hybridRig, choice }, 1)).rejects.toThrow(
    'took longer than 1 s',
  );
  expect(await heavy('book', { rig: hybridRig, choice: { ...choice, parts: [] } })).toBeNull();
  await (globalThis as { yantrelPool?: { destroy: () => Promise<void> } }).yantrelPool?.destroy();
}, 180_000);
