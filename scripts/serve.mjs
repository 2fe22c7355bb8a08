import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { compileThread } from './compile-cli.mjs';
import { servant } from './servant.mjs';
import { isRoot, root, run } from './machine.mjs';

/** Serves a build on loopback and waits until it answers. */
export async function serve({ folder, port, databaseUrl }) {
  // The application connects with a role that owns nothing.
  const applicationUrl = run('npx', ['tsx', 'src/server/prepare.ts', 'address'], {
    env: { ...process.env, DATABASE_URL: databaseUrl },
  }).trim();
  const thread = await compileThread();
  const { who, from, gone } = servant(folder);
  const child = spawn(process.execPath, [join(from, 'scripts/server.mjs'), String(port)], {
    cwd: from,
    ...who,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      ...(isRoot && { HOME: tmpdir() }),
      NODE_ENV: 'production',
      YANTREL_DIST: folder,
      NEXT_TELEMETRY_DISABLED: '1',
      DATABASE_URL: applicationUrl,
      YANTREL_HEAVY: join(from, relative(root, thread)),
    },
  });
  const address = `http://127.0.0.1:${port}`;
  const ended = new Promise((resolve) => child.once('exit', resolve)).finally(gone);
  for (let tries = 0; tries < 240 && child.exitCode === null; tries++) {
    try {
      if ((await fetch(`${address}/api/health`)).ok)
        return { address, ended, stop: () => stop(child, ended) };
    } catch {
      // Not up yet.
    }
    await new Promise((r) => setTimeout(r, 250));
  }
  child.kill();
  throw new Error(`the server does not answer at ${address}`);
}

async function stop(child, ended) {
  child.kill('SIGTERM');
  const patience = setTimeout(() => child.kill('SIGKILL'), 5000);
  await ended;
  clearTimeout(patience);
}
