import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './machine.mjs';

/** Whether a process is there. */
export const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

/**
 * Lets one start at a time prepare what all share: packages, the database, the build. A second one
 * waits; one that was killed is not waited for.
 */
export async function alone(name, work) {
  const folder = join(root, '.data');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `${name}.pid`);
  let told = false;
  for (;;) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx' });
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') return work();
      const pid = Number(readOrNothing(file));
      if (!pid || !isAlive(pid)) rmSync(file, { force: true });
      else {
        if (!told) console.log('Another start is under way; this one waits for it …');
        told = true;
        await new Promise((r) => setTimeout(r, 300));
      }
    }
  }
  const leave = () => {
    if (readOrNothing(file) === String(process.pid)) rmSync(file, { force: true });
  };
  process.once('exit', leave);
  try {
    return await work();
  } finally {
    leave();
    process.removeListener('exit', leave);
  }
}

const readOrNothing = (file) => {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return '';
  }
};
