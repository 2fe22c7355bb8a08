import { existsSync } from 'node:fs';
import { alone } from './alone.mjs';
import { build } from './build.mjs';
import { holdDatabase } from './holding.mjs';
import { freePort, giveUp, installNpm, run } from './machine.mjs';
import { startPostgres } from './postgres.mjs';
import { serve } from './serve.mjs';

/** Installs what is missing, starts PostgreSQL, migrates, loads the demo, builds, serves. */
const major = Number(process.versions.node.split('.')[0]);
if (major < 20) giveUp(`needs Node.js 20.9 or newer; this is ${process.version}`);
if (!existsSync('package.json')) giveUp('run "npm run demo" in the project’s folder');

if (!existsSync('node_modules') || !existsSync('.next'))
  console.log(
    'First start: npm packages (about a minute), PostgreSQL, the demo rigs, and a build ' +
      '(about a minute). After that it starts in seconds.',
  );
const port = Number(process.env.PORT) || 3200;

/** Everything that a start shares with another one, prepared by one of them at a time. */
const postgres = await alone('start', async () => {
  installNpm();
  const started = await startPostgres('demo');
  process.env.DATABASE_URL = started.url;
  console.log(run('npx', ['tsx', 'src/server/prepare.ts']).trim());
  await build('.next');
  return started;
});
let database = { ...postgres, hold: await holdDatabase(postgres.url) };
let server = await serve({
  folder: '.next',
  port: await freePort(port),
  databaseUrl: database.url,
});
console.log(`\nYantrel is ready at ${server.address}\nStop it with Ctrl+C; everything is kept.`);

let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await server.stop();
  // A second demo may share the database; whoever leaves last stops it.
  if (await database.hold.leave()) database.stop();
  process.exit(0);
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('SIGHUP', stop);

/** What was started and dies is started again; pages go on as if it had been away a moment. */
async function watchServer() {
  for (;;) {
    await server.ended;
    if (stopping) return;
    console.log('The server ended unexpectedly; it is started again.');
    const { port: same } = new URL(server.address);
    server = await serve({ folder: '.next', port: Number(same), databaseUrl: database.url }).catch(
      async (e) => {
        console.log(`${e.message}; trying again.`);
        await new Promise((r) => setTimeout(r, 2000));
        return { ...server, ended: Promise.resolve() };
      },
    );
  }
}

async function watchDatabase() {
  for (;;) {
    await new Promise((r) => setTimeout(r, 1500));
    if (stopping) return;
    if (await database.hold.isThere()) continue;
    if (stopping) return;
    console.log('The database ended unexpectedly; it is started again.');
    const again = await alone('start', () => startPostgres('demo'));
    try {
      database = { ...again, hold: await holdDatabase(again.url) };
    } catch (error) {
      console.log(`It does not answer yet (${error.message}); trying again.`);
      continue;
    }
    // On another port than before, the server has to be told.
    if (again.url !== process.env.DATABASE_URL) {
      process.env.DATABASE_URL = again.url;
      await server.stop();
    }
  }
}
await Promise.all([watchServer(), watchDatabase()]);
