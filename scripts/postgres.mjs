import { spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
  accessSync,
  chmodSync,
  chownSync,
  constants,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { freePort, giveUp, installPackages, isRoot, root } from './machine.mjs';

const DEBIAN = '/usr/lib/postgresql';

function binaries() {
  const newest = () =>
    existsSync(DEBIAN)
      ? readdirSync(DEBIAN)
          .filter((v) => existsSync(join(DEBIAN, v, 'bin/initdb')))
          .sort((a, b) => b - a)[0]
      : undefined;
  if (!newest()) installPackages('postgresql');
  const version = newest();
  if (!version)
    giveUp(`found no PostgreSQL server under ${DEBIAN}; install the package "postgresql"`);
  return join(DEBIAN, version, 'bin');
}

/** Who the server runs as: never root. As root it is the owner of the data, or "postgres" for new data. */
function serverUser(data) {
  if (!isRoot) return undefined;
  const uid = existsSync(data) ? statSync(data).uid : 0;
  const name = uid === 0 ? 'postgres' : String(spawnSync('id', ['-nu', String(uid)]).stdout).trim();
  const id = (flag) => Number(String(spawnSync('id', [flag, name]).stdout).trim());
  return { name, uid: id('-u'), gid: id('-g') };
}

/** The folder for data: in the project, or in /var/tmp where the server's user could not reach or write it there. */
function dataFolder(name) {
  const own = join(root, '.data', name);
  const fallback = join(
    '/var/tmp',
    `yantrel-${createHash('sha256').update(root).digest('hex').slice(0, 10)}-${process.getuid()}`,
    name,
  );
  try {
    mkdirSync(own, { recursive: true, mode: 0o755 });
    accessSync(own, constants.W_OK);
    const user = serverUser(join(own, 'cluster'));
    if (!user || spawnSync('runuser', ['-u', user.name, '--', 'test', '-x', own]).status === 0)
      return own;
  } catch {
    // Not ours to write; use the fallback.
  }
  mkdirSync(fallback, { recursive: true, mode: 0o755 });
  console.log(
    `The database keeps its data in ${fallback}, since ${own} cannot be used by its user.`,
  );
  return fallback;
}

/**
 * Starts a private PostgreSQL on loopback, or finds it running, and gives its address and a way to
 * stop it. It has a password of its own, listens on 127.0.0.1 only and has no socket file.
 */
export async function startPostgres(name, firstPort = 54_320) {
  const bin = binaries();
  const folder = dataFolder(name);
  const cluster = join(folder, 'cluster');
  const secret = join(folder, 'password');
  const user = serverUser(cluster);
  const as = (command, args) => {
    const [program, all] = user
      ? ['runuser', ['-u', user.name, '--', command, ...args]]
      : [command, args];
    return spawnSync(program, all, {
      encoding: 'utf8',
      cwd: '/',
      stdio: ['ignore', 'pipe', 'pipe'],
      timeout: 90_000,
    });
  };
  const own = (path) => user && chownSync(path, user.uid, user.gid);
  if (!existsSync(join(cluster, 'PG_VERSION'))) {
    console.log('Making a database of its own …');
    rmSync(cluster, { recursive: true, force: true });
    own(folder);
    writeFileSync(secret, randomBytes(18).toString('hex'), { mode: 0o600 });
    own(secret);
    const made = as(join(bin, 'initdb'), [
      '-D',
      cluster,
      '-U',
      'yantrel',
      '-A',
      'scram-sha-256',
      `--pwfile=${secret}`,
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
    ]);
    if (made.status !== 0)
      giveUp(`could not create the database: ${made.stderr.trim().split('\n').at(-1)}`);
  }
  chmodSync(cluster, 0o700);
  const log = join(folder, 'postgres.log');
  const runningPort = () => {
    if (as(join(bin, 'pg_ctl'), ['status', '-D', cluster]).status !== 0) return undefined;
    return Number(readFileSync(join(cluster, 'postmaster.pid'), 'utf8').split('\n')[3]);
  };
  let port = runningPort();
  for (let attempt = 0; !port && attempt < 4; attempt++) {
    const wanted = await freePort(firstPort + attempt);
    const started = spawnSync(
      user ? 'runuser' : join(bin, 'pg_ctl'),
      [
        ...(user ? ['-u', user.name, '--', join(bin, 'pg_ctl')] : []),
        'start',
        '-w',
        '-t',
        '60',
        '-D',
        cluster,
        '-l',
        log,
        '-o',
        `-p ${wanted} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`,
      ],
      { cwd: '/', stdio: 'ignore', timeout: 90_000 },
    );
    if (started.status === 0) port = wanted;
  }
  if (!port) giveUp(`PostgreSQL does not start; the reason is at the end of ${log}`);
  const url = `postgres://yantrel:${readFileSync(secret, 'utf8')}@127.0.0.1:${port}/postgres`;
  return {
    url,
    stop: () => void as(join(bin, 'pg_ctl'), ['stop', '-D', cluster, '-m', 'fast', '-w']),
  };
}
