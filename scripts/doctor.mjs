import { existsSync, readFileSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import { root, userName } from './machine.mjs';
import { look } from './postgres.mjs';

/**
 * Says what state everything is in that Yantrel needs, and what to do where something is wrong.
 * Changes nothing.
 */
let wrong = 0;
const say = (good, what, cure) => {
  if (!good) wrong++;
  console.log(`${good ? 'ok   ' : 'WRONG'}  ${what}${good || !cure ? '' : `. ${cure}`}`);
};

const [major, minor] = process.versions.node.split('.').map(Number);
say(
  major > 20 || (major === 20 && minor >= 9),
  `Node.js ${process.version}`,
  'Install Node.js 20.9 or newer',
);
const lock = join(root, 'node_modules/.yantrel-lock');
const current =
  existsSync(lock) &&
  readFileSync(lock, 'utf8') === readFileSync(join(root, 'package-lock.json'), 'utf8');
say(current, 'npm packages are those of the lock file', '"npm run demo" installs them');
const { bavail, bsize } = statfsSync(root);
const free = Math.round((bavail * bsize) / 1e6);
say(free > 500, `${free} MB free on the disk`, 'Make room: a full disk saves nothing');

const { bin, folder, owner, whole, port, url, reason } = look('demo');
say(bin !== undefined, `PostgreSQL ${bin ?? 'is not installed'}`, 'Install the package postgresql');
if (!folder) console.log('–      no database has been made yet; "npm run demo" makes one');
else {
  say(
    owner === undefined,
    `data in ${folder}${owner ? `, of ${owner}` : ''}`,
    `Start as that user, or give it to ${userName}`,
  );
  say(
    whole,
    'the cluster is whole',
    `Move ${folder} away if nothing in it is needed; restore a backup`,
  );
  if (port === undefined)
    console.log(`–      the database is not running${reason ? ` (last: ${reason})` : ''}`);
  else await database(port, url);
}
process.exit(wrong ? 1 : 0);

async function database(at, address) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: address, connectionTimeoutMillis: 3000 });
  try {
    await client.connect();
    say(true, `the database answers on port ${at}`);
    const names = (await client.query('select name from kysely_migration order by name')).rows;
    const wanted =
      readFileSync(join(root, 'src/server/migrations/index.ts'), 'utf8').match(
        /'\d{4}-[\w-]+'(?=:)/g,
      ) ?? [];
    const missing = wanted
      .map((w) => w.slice(1, -1))
      .filter((w) => !names.some((n) => n.name === w));
    say(
      !missing.length,
      `the tables are up to date (${names.length} migrations)`,
      `"npm run demo" runs ${missing.join(', ')}`,
    );
    const [rigs] = (await client.query('select count(*)::int as n from rig')).rows;
    const [revisions] = (
      await client.query('select count(*)::int as n, max(saved_at) as last from revision')
    ).rows;
    const last = revisions.last?.toLocaleString('en-GB') ?? 'never';
    console.log(`–      ${rigs.n} rigs, ${revisions.n} revisions, the last saved ${last}`);
  } catch (error) {
    say(
      false,
      `the database on port ${at} does not do its work: ${error.message}`,
      'Stop it and start again with "npm run demo"',
    );
  } finally {
    await client.end().catch(() => undefined);
  }
}
