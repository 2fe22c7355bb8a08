import { spawn } from 'node:child_process';
import { freePort, installNpm, root, run } from './machine.mjs';
import { alone } from './alone.mjs';
import { holdDatabase } from './holding.mjs';
import { startPostgres } from './postgres.mjs';

/** The database and a development server that reloads; the same rigs as `npm run demo`. Ctrl+C stops both. */
installNpm();
const postgres = await alone('start', () => startPostgres('demo'));
const hold = await holdDatabase(postgres.url);
const env = { ...process.env, DATABASE_URL: postgres.url, NEXT_TELEMETRY_DISABLED: '1' };
console.log(run('npx', ['tsx', 'src/server/prepare.ts'], { env }).trim());
const port = await freePort(Number(process.env.PORT) || 3200);
const server = spawn('npx', ['next', 'dev', '-H', '127.0.0.1', '-p', String(port)], {
  cwd: root,
  stdio: 'inherit',
  env,
});
const stop = () => server.kill('SIGTERM');
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
await new Promise((ended) => server.once('exit', ended));
// A demo may share the database; whoever leaves last stops it.
if (await hold.leave()) postgres.stop();
