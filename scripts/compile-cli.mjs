import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './machine.mjs';

const OUT = join(root, 'bin');
const STAMP = join(OUT, 'made-from');
const FROM = [
  'src/core',
  'src/cli',
  'src/print',
  'src/server/heavy',
  'package-lock.json',
  'scripts/compile-cli.mjs',
];

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
export const compileCli = async () => (await compiled()).cli;

/** Compiles the threads of the server, likewise. */
export const compileThread = async () => (await compiled()).thread;

async function compiled() {
  const files = { cli: join(OUT, 'yantrel.cjs'), thread: join(OUT, 'thread.cjs') };
  const now = sources();
  if (
    Object.values(files).every((f) => existsSync(f)) &&
    existsSync(STAMP) &&
    readFileSync(STAMP, 'utf8') === now
  )
    return files;
  const { build } = await import('esbuild');
  const options = {
    absWorkingDir: root,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    // Names stay as they are written, for a stack that can be read: `keepNames` would define the name
    // of each closure when it is made, a fifth of the time of a long command.
    minifyWhitespace: true,
    minifySyntax: true,
    mainFields: ['module', 'main'],
    // What is loaded late is required late: a kept code cache takes no import() of its own.
    supported: { 'dynamic-import': false },
    // Fetched from node_modules when they are first needed: a solver and a printer.
    external: ['highs', 'pdfmake'],
    logLevel: 'error',
  };
  await build({ ...options, entryPoints: ['src/cli/main.ts'], outfile: files.cli });
  await build({ ...options, entryPoints: ['src/server/heavy/thread.ts'], outfile: files.thread });
  for (const one of ['short', 'long']) rmSync(`${files.cli}.${one}.cache`, { force: true });
  writeFileSync(STAMP, now);
  return files;
}
