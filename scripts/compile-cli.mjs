import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './machine.mjs';

const OUT = join(root, 'bin');
const STAMP = join(OUT, 'made-from');
const FROM = ['src/core', 'src/cli', 'src/print', 'package-lock.json'];

/** When and how large each source is: enough to tell whether anything changed, in milliseconds. */
function sources() {
  const seen = [];
  const visit = (path) => {
    const at = statSync(join(root, path));
    if (at.isDirectory()) readdirSync(join(root, path)).forEach((name) => visit(`${path}/${name}`));
    else if (!path.endsWith('.test.ts')) seen.push(`${path} ${at.size} ${Math.round(at.mtimeMs)}`);
  };
  FROM.forEach(visit);
  return seen.join('\n');
}

/** Compiles the command line into `bin/` where that is not of the present sources; gives its file. */
export async function compileCli() {
  const file = join(OUT, 'yantrel.cjs');
  const now = sources();
  if (existsSync(file) && existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now) return file;
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: ['src/cli/main.ts'],
    outfile: file,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    minify: true,
    keepNames: true,
    mainFields: ['module', 'main'],
    // What is loaded late is required late: a kept code cache takes no import() of its own.
    supported: { 'dynamic-import': false },
    // Fetched from node_modules when they are first needed: a solver and a printer.
    external: ['highs', 'pdfmake'],
    logLevel: 'error',
  });
  for (const one of ['short', 'long']) rmSync(`${file}.${one}.cache`, { force: true });
  writeFileSync(STAMP, now);
  return file;
}
