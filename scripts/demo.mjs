import { existsSync } from 'node:fs';
import { build } from './build.mjs';
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
installNpm();
const postgres = await startPostgres('demo');
process.env.DATABASE_URL = postgres.url;
console.log(run('npx', ['tsx', 'src/server/prepare.ts']).trim());
build('.next');
const server = await serve({
  folder: '.next',
  port: await freePort(Number(process.env.PORT) || 3200),
  databaseUrl: postgres.url,
}).catch((e) => {
  postgres.stop();
  return giveUp(e.message);
});
console.log(`\nYantrel is ready at ${server.address}\nStop it with Ctrl+C; everything is kept.`);

let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await server.stop();
  // A second demo may share the database; whoever leaves last stops it.
  if (run('npx', ['tsx', 'src/server/others.ts']).trim() === '0') postgres.stop();
  process.exit(0);
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('SIGHUP', stop);
await server.ended;
await stop();
