import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { root } from './machine.mjs';

/**
 * `npm run bench` measures the engine, compiled as it ships; `npm run bench -- browser [ADDRESS]` the page of
 * a server that runs (`npm run demo`), at http://127.0.0.1:3200 unless said otherwise.
 */
const [part, address] = process.argv.slice(2);
if (part === 'browser') {
  const args = ['tsx', 'bench/browser.ts', ...(address ? [address] : [])];
  process.exitCode = spawnSync('npx', args, { cwd: root, stdio: 'inherit' }).status ?? 1;
} else {
  const outfile = join(root, 'bin', 'bench.mjs');
  await build({
    absWorkingDir: root,
    entryPoints: ['bench/engine.ts'],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  });
  await import(pathToFileURL(outfile).href);
}
