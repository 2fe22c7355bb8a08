import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isRoot, root } from './machine.mjs';

/** What the web server needs of this folder, beside the build. */
const NEEDED = /^(scripts|node_modules|public|bin|package\.json|next\.config\..*)$/;

const SERVED = 'yantrel-served-';

/**
 * Whom the web server runs as, and from where. It never has root's rights: started by root it runs
 * as "nobody", which may read the program and write nothing. Where that user cannot get at this
 * folder (below /root, say), it is served from links to its files that it can get at; `gone` takes
 * them away.
 */
export function servant(build) {
  if (!isRoot) return { who: {}, from: root, gone: () => {} };
  const idOf = (what) => Number(String(spawnSync('id', [what, 'nobody']).stdout).trim());
  const who = { uid: idOf('-u'), gid: idOf('-g') };
  if (!who.uid) throw new Error('the web server does not run as root: add a user called "nobody"');
  if (mayRead(who, root)) return { who, from: root, gone: () => {} };

  forgetTheDead();
  const from = mkdtempSync(join(tmpdir(), `${SERVED}${process.pid}-`));
  const gone = () => rmSync(from, { recursive: true, force: true });
  const parts = readdirSync(root).filter((name) => name === build || NEEDED.test(name));
  const here = parts.map((name) => join(root, name));
  // Links where the disk is the same, else copies.
  if (spawnSync('cp', ['-rl', ...here, from]).status !== 0)
    spawnSync('cp', ['-r', ...here, from], { stdio: 'inherit' });
  chmodSync(from, 0o755);
  if (mayRead(who, from)) return { who, from, gone };
  gone();
  throw new Error(
    `the web server does not run as root, and the user "nobody" may not read ${root}: move the ` +
      'folder to where everybody may read, such as /srv, or start it as another user',
  );
}

function mayRead(who, folder) {
  const look = `require('fs').accessSync(${JSON.stringify(join(folder, 'scripts/server.mjs'))})`;
  return spawnSync(process.execPath, ['-e', look], { ...who, cwd: '/' }).status === 0;
}

/** Links that were left by a start that was killed. */
function forgetTheDead() {
  for (const name of readdirSync(tmpdir())) {
    const pid = name.startsWith(SERVED) ? Number(name.slice(SERVED.length).split('-')[0]) : 0;
    if (pid && !existsSync(`/proc/${pid}`))
      rmSync(join(tmpdir(), name), { recursive: true, force: true });
  }
}
