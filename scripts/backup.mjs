import { spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { holdDatabase } from './holding.mjs';
import { giveUp, installNpm, run } from './machine.mjs';
import { binaries, startPostgres } from './postgres.mjs';

/**
 * The whole database as one file, and back: `npm run backup -- FILE`, `npm run restore -- FILE`.
 * Both work while people edit. A backup is read back before it gets its name; a restore says what is
 * newer in the database than in the file and stops there, unless `--over` is given: then the
 * database as it is goes into a file of its own first.
 */
const [action, given, ...flags] = process.argv.slice(2);
if (!given || !['backup', 'restore'].includes(action))
  giveUp('say which file: npm run backup -- FILE, or npm run restore -- FILE');
const file = resolve(given);
installNpm();
const { default: pg } = await import('pg');
const postgres = await startPostgres(process.env.YANTREL_DATA ?? 'demo');
const hold = await holdDatabase(postgres.url);

/** Runs a program of PostgreSQL; gives what it complained of, or nothing. */
function program(name, args) {
  const done = spawnSync(join(binaries(), name), args, { encoding: 'utf8', cwd: dirname(file) });
  return done.status === 0 ? undefined : done.stderr.trim().split('\n').at(-1) || `${name} failed`;
}

async function query(url, text, values) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(text, values)).rows;
  } finally {
    await client.end();
  }
}

const RIGS = `select rig.id, rig.name, rig.head, r.identity, r.saved_at from rig
  left join revision r on r.rig_id = rig.id and r.number = rig.head order by rig.id`;

/** Reads a backup into a database of its own, lets somebody look at it, and takes it away again. */
async function readBack(from, look) {
  const name = `yantrel_look_${process.pid}`;
  const url = postgres.url.replace(/\/[^/]*$/, `/${name}`);
  await query(postgres.url, `create database ${name}`);
  try {
    const wrong = program('pg_restore', ['--no-owner', '--no-privileges', '-d', url, from]);
    if (wrong) return { wrong };
    const rigs = await query(url, RIGS);
    const headless = rigs.find((r) => r.identity === null);
    if (headless) return { wrong: `the newest revision of ${headless.name} is missing in it` };
    const [{ n }] = await query(url, 'select count(*)::int as n from revision');
    return { rigs, revisions: n, ...(await look?.(url, rigs)) };
  } finally {
    await query(postgres.url, `drop database ${name} with (force)`);
  }
}

async function backup(to) {
  if (existsSync(to)) return `${to} is there already; give another name, or move it away.`;
  const part = `${to}.part`;
  const wrong =
    program('pg_dump', ['-Fc', '-d', postgres.url, '-f', part]) ?? (await readBack(part)).wrong;
  if (wrong) {
    rmSync(part, { force: true });
    return `the backup was not made: ${wrong}. See that the folder can be written and has room.`;
  }
  renameSync(part, to);
  const { rigs, revisions } = await readBack(to);
  console.log(
    `${rigs.length} rigs with ${revisions} revisions are in ${to} ` +
      `(${Math.ceil(statSync(to).size / 1024)} KB); it was read back and is whole.`,
  );
  return undefined;
}

/** What the database has that the file has not, in words. */
async function newerThan(rigs) {
  const [{ there }] = await query(postgres.url, `select to_regclass('rig') is not null as there`);
  if (!there) return [];
  const lines = [];
  for (const now of await query(postgres.url, RIGS)) {
    const then = rigs.find((r) => r.id === now.id);
    if (!then) lines.push(`${now.name} is not in the file`);
    else if (now.identity !== then.identity)
      lines.push(
        `${now.name}: revision ${now.head} of ${now.saved_at.toLocaleString('en-GB')}; ` +
          `the file has revision ${then.head} of ${then.saved_at.toLocaleString('en-GB')}`,
      );
  }
  return lines;
}

async function restore(from) {
  if (!existsSync(from)) return `there is no file ${from}.`;
  const { wrong, rigs } = await readBack(from);
  if (wrong) return `${from} cannot be restored: ${wrong}. Nothing was changed.`;
  const newer = await newerThan(rigs);
  if (newer.length && !flags.includes('--over')) {
    console.log(`The database has what the file has not:\n  ${newer.join('\n  ')}`);
    return (
      'nothing was changed. To put the file in its place all the same, add --over; the database ' +
      'as it is now is kept in a file first.'
    );
  }
  if (newer.length) {
    const before = `${from}.before-${new Date().toISOString().replace(/[:.]/g, '-')}`;
    const failed = await backup(before);
    if (failed) return failed;
  }
  const failed = program('pg_restore', [
    ...['--clean', '--if-exists', '--single-transaction', '--no-owner', '--no-privileges'],
    ...['-d', postgres.url, from],
  ]);
  if (failed) return `it was not restored: ${failed}. Nothing was changed.`;
  // The tables are made anew: what the application may do with them is said again.
  run('npx', ['tsx', 'src/server/prepare.ts', 'address'], {
    env: { ...process.env, DATABASE_URL: postgres.url },
  });
  console.log(
    `${rigs.length} rigs are restored from ${from}. Pages that are open are asked before they write.`,
  );
  return undefined;
}

const failed = await (action === 'backup' ? backup(file) : restore(file));
if (await hold.leave()) postgres.stop();
if (failed) giveUp(failed);
