import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import Module, { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { Script } from 'node:vm';
import { compileCli } from './compile-cli.mjs';

/**
 * The command line, compiled when it is first used and when its sources have changed. What the
 * engine made of it the first time (its code cache) is kept beside it, so that a short command does
 * not spend its time on compiling.
 */
const file = await compileCli();
// One check is over before optimised code would pay for its making, and of what takes longer only what
// runs much is worth it; the cache belongs to the choice.
const [, , name, ...rest] = process.argv;
const short = name === 'check' && rest.length === 1;
setFlagsFromString(short ? '--no-opt' : '--interrupt-budget=540000');
const cache = `${file}.${short ? 'short' : 'long'}.cache`;
const kept = existsSync(cache) ? readFileSync(cache) : undefined;
const script = new Script(Module.wrap(readFileSync(file, 'utf8')), {
  filename: file,
  cachedData: kept,
});
const module = { exports: {} };
script.runInThisContext()(module.exports, createRequire(file), module, file, dirname(file));
if (!kept || script.cachedDataRejected)
  process.once('exit', () => {
    try {
      writeFileSync(cache, script.createCachedData());
    } catch {
      // Without the cache the next run is slower, and that is all.
    }
  });
