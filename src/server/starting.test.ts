import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Client } from 'pg';
import { touringRig } from '../core/demo';
import { appUrl } from './app-role';
import { openDatabase } from './database';
import { listRigs } from './listed';
import { createRig } from './rigs';

const root = join(__dirname, '../..');
const name = `torn-${process.pid}`;
const folder = join(root, '.data', name);

/** Starts a database of that name in a process of its own; `then` is what it does once it is up. */
const start = (then: string): ChildProcess =>
  spawn(
    process.execPath,
    [
      '-e',
      `import('./scripts/postgres.mjs').then((m) => m.startPostgres('${name}', 54940))
        .then((p) => { console.log('up ' + p.url); ${then} })`,
    ],
    { cwd: root, detached: true, stdio: ['ignore', 'pipe', 'pipe'] },
  );
const ended = (child: ChildProcess): Promise<string> => {
  let said = '';
  child.stdout?.on('data', (text) => (said += String(text)));
  child.stderr?.on('data', (text) => (said += String(text)));
  return new Promise((done) => child.once('close', () => done(said)));
};

afterAll(async () => {
  await ended(start('p.stop()'));
  rmSync(folder, { recursive: true, force: true });
});

test('a first start that is killed at any moment starts again; of two at once, both get the one database', async () => {
  for (const ms of [120, 350, 700, 1100, 1600]) {
    const child = start('');
    const over = ended(child);
    await new Promise((r) => setTimeout(r, ms));
    try {
      process.kill(-child.pid!, 'SIGKILL');
    } catch {
      // It was done already.
    }
    await over;
  }
  const [one, two] = await Promise.all([ended(start('')), ended(start(''))]);
  const address = /up (postgres:\S+)/.exec(one)?.[1];
  expect([one, two].map((said) => /up (postgres:\S+)/.exec(said)?.[1])).toEqual([address, address]);
  expect(address).toMatch(/^postgres:\/\/yantrel:[0-9a-f]{36}@127\.0\.0\.1:\d+\/postgres$/);
  expect(readdirSync(folder).filter((f) => f.startsWith('making-'))).toEqual([]);
}, 120_000);

test('a backup is read back; a restore says what is newer and needs to be told twice', async () => {
  const url = /up (postgres:\S+)/.exec(await ended(start('')))![1]!;
  // Somebody uses the database meanwhile, so that no command stops it when it leaves.
  const user = new Client({ connectionString: url });
  user.on('error', () => undefined);
  await user.connect();
  await user.query('select pg_advisory_lock_shared(7261126)');
  const env = { ...process.env, DATABASE_URL: url, YANTREL_DATA: name };
  const script = (...args: string[]) =>
    ended(spawn(args[0]!, args.slice(1), { cwd: root, env, stdio: ['ignore', 'pipe', 'pipe'] }));
  await script('npx', 'tsx', 'src/server/prepare.ts');
  const file = join(folder, 'kept.dump');
  const backup = (what: string, ...flags: string[]) =>
    script(process.execPath, 'scripts/backup.mjs', what, file, ...flags);
  expect(await backup('backup')).toMatch(/4 rigs with 4 revisions are in .*it was read back/);
  expect(await backup('backup')).toMatch(/is there already/);
  const db = openDatabase(url);
  const app = openDatabase(appUrl(url));
  await createRig(db, { ...touringRig, id: 'made-later', name: 'Made later' }, 'made');
  expect(await backup('restore')).toMatch(/Made later is not in the file[^]*--over/);
  expect(await listRigs(db)).toHaveLength(5);
  expect(await backup('restore', '--over')).toMatch(/5 rigs[^]*4 rigs are restored/);
  expect(await listRigs(app)).toHaveLength(4);
  await db.destroy();
  await app.destroy();
  await user.end();
}, 120_000);

test('data that is no whole database is never replaced by an empty one', async () => {
  await ended(start('p.stop()'));
  const cluster = join(folder, 'cluster');
  rmSync(join(cluster, 'PG_VERSION'));
  const said = await ended(start(''));
  expect(said).toMatch(/Yantrel: .*cluster holds no whole database.*nothing was changed/);
  expect(existsSync(join(cluster, 'base'))).toBe(true);
}, 180_000);

test('why PostgreSQL does not start is told with what to do about it', async () => {
  const said = (reason: string) =>
    ended(
      spawn(process.execPath, [
        '-e',
        `import('./scripts/postgres.mjs').then((m) =>
          console.log(m.whyNotStarted(${JSON.stringify(reason)}, '/data', '/data/log')))`,
      ]),
    );
  expect(await said('could not write lock file "postmaster.pid": No space left on device')).toBe(
    'PostgreSQL does not start: the disk is full. Make room for /data and start again; ' +
      'nothing was changed. (All of it is in /data/log.)\n',
  );
  expect(await said('could not open file: Read-only file system')).toContain('Make it writable');
  expect(await said('could not create any TCP/IP sockets')).toContain('every port that was');
  expect(await said('something nobody foresaw')).toContain('something nobody foresaw. (All');
});
