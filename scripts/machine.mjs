import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { userInfo } from 'node:os';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
export const isRoot = process.getuid?.() === 0;
export const userName = userInfo().username;

/** Says in one line what is wrong, and what to do, and ends. */
export function giveUp(message) {
  console.error(`Yantrel: ${message}`);
  process.exit(1);
}

/**
 * Installs Debian packages, as root or through sudo; gives up with the command to run where neither
 * is possible.
 */
export function installPackages(...names) {
  const sudo = isRoot
    ? []
    : spawnSync('sudo', ['-n', 'true']).status === 0
      ? ['sudo', '-n']
      : undefined;
  const line = `apt-get update && apt-get install -y --no-install-recommends ${names.join(' ')}`;
  if (!sudo) giveUp(`needs ${names.join(' and ')}. As root, run: ${line}`);
  console.log(`Installing ${names.join(', ')} …`);
  const done = spawnSync([...sudo, 'sh'][0], [...sudo, 'sh'].slice(1).concat('-c', line), {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (done.status !== 0)
    giveUp(
      `could not install ${names.join(' and ')}: ${String(done.stderr).trim().split('\n').at(-1)}. ` +
        `Run by hand: ${line}`,
    );
}

/** Installs the npm packages of the lock file where they are missing or not those. */
export function installNpm() {
  const stamp = resolve(root, 'node_modules/.yantrel-lock');
  const want = readFileSync(resolve(root, 'package-lock.json'), 'utf8');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === want) return;
  console.log('Installing npm packages …');
  // "npm ci" refuses a lock file that lacks other platforms' optional binaries; a plain install
  // takes the same versions from it.
  const exact = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--include=dev'], {
    cwd: root,
    stdio: 'ignore',
  });
  const isWhole = () =>
    ['next', 'tsx', 'jest', 'typescript', 'eslint', 'dependency-cruiser'].every((name) =>
      existsSync(resolve(root, 'node_modules', name, 'package.json')),
    );
  if (exact.status !== 0 || !isWhole())
    run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--include=dev']);
  if (!isWhole())
    giveUp(
      'the npm packages were not installed completely. Remove the folder node_modules and run this again.',
    );
  writeFileSync(stamp, want);
}

/** Runs a command in the project's folder and gives its output; ends with its last lines where it fails. */
export function run(command, args, options = {}) {
  try {
    return execFileSync(command, args, {
      cwd: root,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
      maxBuffer: 1 << 26,
      ...options,
    });
  } catch (error) {
    const said = `${error.stdout ?? ''}${error.stderr ?? ''}`
      .trim()
      .split('\n')
      .slice(-15)
      .join('\n');
    giveUp(`"${command} ${args.join(' ')}" failed:\n${said}`);
  }
}

const isFree = (port) =>
  new Promise((answer) => {
    const probe = createServer();
    probe.once('error', () => answer(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => answer(true)));
  });

/** The first free port on loopback from `from` upwards. */
export async function freePort(from) {
  for (let port = from; port < from + 400; port++) if (await isFree(port)) return port;
  return giveUp(
    `no free port between ${from} and ${from + 399}; close a program that listens there`,
  );
}
