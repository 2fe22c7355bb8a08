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
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { isAlive } from './alone.mjs';
import { freePort, giveUp, installPackages, isRoot, root, userName } from './machine.mjs';

const DEBIAN = '/usr/lib/postgresql';

/** Where the programs of PostgreSQL are; installs them where they are missing. */
export function binaries() {
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

/** Where data goes that cannot be kept in the project. */
const fallbackFolder = (name) =>
  join(
    '/var/tmp',
    `yantrel-${createHash('sha256').update(root).digest('hex').slice(0, 10)}-${process.getuid()}`,
    name,
  );

/**
 * The folder for data: in the project, or in /var/tmp where the server's user could not reach or
 * write it there. Data that is there and cannot be used is said; an empty database never takes its
 * place.
 */
function dataFolder(name) {
  const own = join(root, '.data', name);
  const fallback = fallbackFolder(name);
  if (canUse(own)) return own;
  if (existsSync(join(own, 'cluster')))
    giveUp(
      `cannot use the data in ${own}: ${whyNot(own)}. Start Yantrel as that user, or give the ` +
        `folder to this one: chown -R ${userName} "${own}". Nothing was changed.`,
    );
  if (!canUse(fallback))
    giveUp(
      `can write neither ${own} nor ${fallback}. Give one of the two to the user ${userName}, or ` +
        'make room on the disk; then start again.',
    );
  console.log(
    `The database keeps its data in ${fallback}, since ${own} cannot be used by its user.`,
  );
  return fallback;
}

function canUse(folder) {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o755 });
    accessSync(folder, constants.W_OK);
    const cluster = join(folder, 'cluster');
    if (!isRoot && existsSync(cluster)) return statSync(cluster).uid === process.getuid();
    const user = serverUser(cluster);
    return (
      !user || spawnSync('runuser', ['-u', user.name, '--', 'test', '-x', folder]).status === 0
    );
  } catch {
    return false;
  }
}

function whyNot(folder) {
  try {
    const { uid } = statSync(join(folder, 'cluster'));
    const owner = String(spawnSync('id', ['-nu', String(uid)]).stdout).trim() || `user ${uid}`;
    return `it belongs to ${owner}`;
  } catch (error) {
    return error.message;
  }
}

/**
 * Makes a cluster beside its place and moves it there in one step: a start that is broken off leaves
 * no half of one, and of two starts at once one is first. Its password lies in it.
 */
function makeCluster(bin, folder, cluster, user) {
  console.log('Making a database of its own …');
  const own = (path) => user && chownSync(path, user.uid, user.gid);
  // What a start that was broken off left; another that is under way makes its own.
  for (const left of readdirSync(folder).filter((f) => /^making-\d+$/.test(f)))
    if (!isAlive(Number(left.slice('making-'.length))))
      rmSync(join(folder, left), { recursive: true, force: true });
  own(folder);
  const making = join(folder, `making-${process.pid}`);
  mkdirSync(making);
  own(making);
  const secret = join(making, 'password');
  writeFileSync(secret, randomBytes(18).toString('hex'), { mode: 0o600 });
  own(secret);
  const fresh = join(making, 'cluster');
  const made = asUser(user, join(bin, 'initdb'), [
    ...['-D', fresh, '-U', 'yantrel', '-A', 'scram-sha-256'],
    ...[`--pwfile=${secret}`, '-E', 'UTF8', '--locale=C.UTF-8'],
  ]);
  if (made.status !== 0)
    giveUp(
      `could not make the database in ${folder}: ${made.stderr.trim().split('\n').at(-1)}. ` +
        'See that the disk has room and the folder can be written, then start again.',
    );
  renameSync(secret, join(fresh, SECRET));
  try {
    renameSync(fresh, cluster);
  } catch (error) {
    if (!existsSync(join(cluster, 'PG_VERSION'))) throw error;
  }
  rmSync(making, { recursive: true, force: true });
}

/** The file with the password, inside the cluster; older ones have it beside. */
const SECRET = 'yantrel-password';

function asUser(user, command, args) {
  const [program, all] = user
    ? ['runuser', ['-u', user.name, '--', command, ...args]]
    : [command, args];
  return spawnSync(program, all, {
    encoding: 'utf8',
    cwd: '/',
    stdio: ['ignore', 'pipe', 'pipe'],
    timeout: 90_000,
  });
}

/**
 * Starts a private PostgreSQL on loopback, or finds it running, and gives its address and a way to
 * stop it. It has a password of its own, listens on 127.0.0.1 only and has no socket file.
 */
export async function startPostgres(name, firstPort = 54_320) {
  const bin = binaries();
  const folder = dataFolder(name);
  const cluster = join(folder, 'cluster');
  const user = serverUser(cluster);
  const as = (command, args) => asUser(user, command, args);
  if (!existsSync(cluster)) makeCluster(bin, folder, cluster, user);
  if (!existsSync(join(cluster, 'PG_VERSION')))
    giveUp(
      `${cluster} holds no whole database. If nothing in it is needed, move it away and start ` +
        'again; nothing was changed.',
    );
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
    // Where another start was first, its server is used.
    port = started.status === 0 ? wanted : runningPort();
  }
  if (!port) giveUp(whyNotStarted(lastReason(log), folder, log));
  return {
    url: addressOf(folder, port),
    stop: () => void as(join(bin, 'pg_ctl'), ['stop', '-D', cluster, '-m', 'fast', '-w']),
  };
}

/** Why PostgreSQL does not start and what to do, for the reasons that a person can cure. */
export function whyNotStarted(reason, folder, log) {
  const cure = /No space left on device|Disk quota exceeded/.test(reason)
    ? `the disk is full. Make room for ${folder} and start again; nothing was changed.`
    : /Read-only file system/.test(reason)
      ? `${folder} cannot be written to. Make it writable and start again; nothing was changed.`
      : /could not create any TCP\/IP sockets|Address already in use/.test(reason)
        ? 'every port that was tried is taken. Stop what holds them and start again.'
        : `${reason}.`;
  return `PostgreSQL does not start: ${cure} (All of it is in ${log}.)`;
}

/** The last thing that the server complained of. */
function lastReason(log) {
  try {
    const lines = readFileSync(log, 'utf8').split('\n');
    return (
      lines
        .filter((l) => /FATAL|ERROR|HINT/.test(l))
        .at(-1)
        ?.replace(/^.*?(FATAL|ERROR|HINT): */, '') ?? 'it gave no reason'
    );
  } catch {
    return 'it left no log';
  }
}

/** What there is of a database, without changing or starting anything. */
export function look(name) {
  const newest = existsSync(DEBIAN)
    ? readdirSync(DEBIAN)
        .filter((v) => existsSync(join(DEBIAN, v, 'bin/initdb')))
        .sort((a, b) => b - a)[0]
    : undefined;
  const bin = newest && join(DEBIAN, newest, 'bin');
  const folder = [join(root, '.data', name), fallbackFolder(name)].find((f) =>
    existsSync(join(f, 'cluster')),
  );
  if (!folder || !bin) return { bin, folder };
  const cluster = join(folder, 'cluster');
  const whole = existsSync(join(cluster, 'PG_VERSION'));
  const owner = canUse(folder) ? undefined : whyNot(folder).replace('it belongs to ', '');
  const reason = lastReason(join(folder, 'postgres.log'));
  const status = asUser(serverUser(cluster), join(bin, 'pg_ctl'), ['status', '-D', cluster]);
  if (status.status !== 0) return { bin, folder, owner, whole, reason };
  const port = Number(readFileSync(join(cluster, 'postmaster.pid'), 'utf8').split('\n')[3]);
  return { bin, folder, owner, whole, reason, port, url: addressOf(folder, port) };
}

/** The owner's address of a database, with its password. */
function addressOf(folder, port) {
  const files = [join(folder, 'cluster', SECRET), join(folder, 'password')];
  const secret = files.find((f) => existsSync(f));
  if (!secret) giveUp(`the password of the database is missing: ${files[0]}`);
  return `postgres://yantrel:${readFileSync(secret, 'utf8')}@127.0.0.1:${port}/postgres`;
}
