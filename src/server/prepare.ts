import { DEMO_RIGS } from '../core/demo';
import { demoBook } from '../core/show';
import { appUrl, grantApp } from './app-role';
import { migrate, openDatabase } from './database';
import { listRigs } from './listed';
import { keepChanges } from './logbook';
import { createRig } from './rigs';

/**
 * Run by the start script: brings the tables up to date, and loads the demo rigs into a database
 * that has none. `address` prints the address that the application connects to instead.
 */
async function prepare(): Promise<string> {
  const url = process.env.DATABASE_URL ?? '';
  const db = openDatabase(url);
  try {
    await migrate(db);
    await grantApp(db, url);
    if (process.argv[2] === 'address') return appUrl(url);
    const have = await listRigs(db);
    if (have.length) return `The database holds ${have.length} rig${have.length === 1 ? '' : 's'}.`;
    for (const rig of DEMO_RIGS) {
      await createRig(db, rig, 'loaded with the demo');
      await keepChanges(db, rig.id, demoBook(rig, new Date().toISOString().slice(0, 10)));
    }
    return `Loaded ${DEMO_RIGS.length} demo rigs.`;
  } finally {
    await db.destroy();
  }
}

prepare().then(
  (said) => process.stdout.write(`${said}\n`),
  (error: unknown) => {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 1;
  },
);
