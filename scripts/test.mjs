import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { needBrowser } from './browser-install.mjs';
import { freePort, installNpm, root, run } from './machine.mjs';
import { startPostgres } from './postgres.mjs';
import { serve } from './serve.mjs';
import { clearGroups, groupedTests } from './test-groups.mjs';

/**
 * Types, lint, import rules, unit tests, server tests, a production build, and the browser tests;
 * ends with "N passed, N failed". `node scripts/test.mjs browser [jest options]` runs one part
 * alone: code, core, server or browser.
 */
installNpm();
const only = process.argv[2];
const wanted = (part) => !only || only === part;
const begun = Date.now();
let passed = 0;
let failed = 0;

/** Minutes and seconds since the run began: where its time goes. */
function sinceStart() {
  const s = Math.round((Date.now() - begun) / 1000);
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

/** Runs a command to its end; what it said is shown only where it failed. */
async function step(name, command, args) {
  let said = '';
  const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  child.stdout.on('data', (text) => (said += text));
  child.stderr.on('data', (text) => (said += text));
  const status = await new Promise((ended) => child.once('close', ended));
  if (status === 0) passed++;
  else failed++;
  console.log(`${status === 0 ? 'ok' : 'FAILED'}  ${name} (${sinceStart()})`);
  if (status !== 0) console.log(said);
}

/** Checks of the code as text, one after the other: a core is left for the tests beside them. */
async function codeChecks() {
  await step('types', 'npm', ['run', '-s', 'types']);
  await step('formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  await step('lint', 'npx', ['eslint', '.']);
  await step('lint with types', 'npx', ['oxlint', 'src', 'e2e', 'bench']);
  await step('import rules', 'npx', ['depcruise', 'src', '--config', '.dependency-cruiser.cjs']);
  await step('nothing unused', 'npx', ['knip']);
  await step('licences', 'npm', ['run', '-s', 'licences']);
  await step('documents made from the code are current', 'npx', [
    'tsx',
    'scripts/write-docs.ts',
    '--check',
  ]);
  await step('examples are current', 'npx', ['tsx', 'scripts/write-examples.ts', '--check']);
}

/** The build that the browser tests use; made while the unit tests run. */
async function productionBuild() {
  await step('production build', process.execPath, ['scripts/build-for-tests.mjs']);
}

/**
 * Both cores are busy with tests: functions are optimised where they run. Beside them, a third of a
 * page's work was done over and over for pages that were gone before it paid.
 */
const ALONE = '--single-threaded';

/**
 * Each file or group of tests runs in a context of its own and is over soon: optimising its functions
 * costs more than it saves until they have run for long, and room for short-lived objects saves sweeping.
 */
const SHORT_LIVED = [ALONE, '--max-semi-space-size=64', '--interrupt-budget=540000'];

/** How long one test may take, in ms. */
const TIME_MS = { core: 60_000, server: 180_000, browser: 240_000 };

/** Runs one project of tests. Not in step: the browser is driven from here and must be answered meanwhile. */
async function jest(project, env, more = []) {
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-test-'));
  const file = join(folder, 'results.json');
  const args = [
    ...SHORT_LIVED,
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    project,
    '--testSequencer=./scripts/longest-first.mjs',
    '--json',
    `--outputFile=${file}`,
    `--testTimeout=${TIME_MS[project]}`,
    ...(project === 'browser' ? ['--maxWorkers=2', '--forceExit'] : []),
    ...more,
    ...process.argv.slice(3),
  ];
  await new Promise((ended) =>
    spawn(process.execPath, args, {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, ...env },
    }).once('exit', ended),
  );
  let results;
  try {
    results = JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    results = {
      numPassedTests: 0,
      numFailedTests: 1,
      numRuntimeErrorTestSuites: 0,
      testResults: [],
    };
  }
  rmSync(folder, { recursive: true, force: true });
  passed += results.numPassedTests;
  failed += results.numFailedTests + results.numRuntimeErrorTestSuites;
  console.log(
    `${results.numFailedTests + results.numRuntimeErrorTestSuites === 0 ? 'ok' : 'FAILED'}  ${project} ` +
      `tests: ${results.numPassedTests} passed, ${results.numFailedTests} failed (${sinceStart()})`,
  );
  for (const line of slowest(results.testResults)) console.log(`      ${line}`);
}

/** The five files whose tests took longest, in seconds: where the time of a run goes. */
function slowest(files) {
  const seconds = new Map();
  for (const file of files)
    for (const { ancestorTitles, duration } of file.assertionResults) {
      // In a group a test is called by its file.
      const [first = ''] = ancestorTitles;
      const name = first.startsWith('src/') ? first : relative(root, file.name);
      seconds.set(name, (seconds.get(name) ?? 0) + (duration ?? 0) / 1000);
    }
  return [...seconds]
    .map(([name, s]) => ({ name, s }))
    .sort((a, b) => b.s - a.s)
    .slice(0, 5)
    .map((file) => `${file.s.toFixed(0).padStart(4)} s  ${file.name}`);
}

/** All tests of the core in groups; what is asked for by name as the files that they are. */
async function coreTests() {
  const isAll = process.argv.length < 4;
  await jest('core', isAll ? { YANTREL_GROUPS: '1' } : {}, [
    '--maxWorkers=2',
    ...(isAll ? ['--runTestsByPath', ...groupedTests()] : []),
  ]);
  clearGroups();
}

// The code is checked and built while the unit tests run: neither keeps two cores busy alone.
await Promise.all([
  (async () => {
    if (wanted('code')) await codeChecks();
    if (wanted('browser')) await productionBuild();
  })(),
  wanted('core') ? coreTests() : undefined,
]);

const postgres =
  wanted('server') || wanted('browser') ? await startPostgres('test', 54_620) : undefined;
/** What runs while the browser tests do, and how each is put away. */
const running = [];
/** A database of its own, as the demo fills it, and a Yantrel that serves it. */
async function ownYantrel(name, from) {
  const database = `${name}_${process.pid}`;
  const url = postgres.url.replace(/\/[^/]*$/, `/${database}`);
  const admin = { env: { ...process.env, DATABASE_URL: postgres.url } };
  run('npx', ['tsx', 'src/server/make-database.ts', 'create', database], admin);
  running.push(() => run('npx', ['tsx', 'src/server/make-database.ts', 'drop', database], admin));
  run('npx', ['tsx', 'src/server/prepare.ts'], { env: { ...process.env, DATABASE_URL: url } });
  const server = await serve({
    folder: '.next-test',
    port: await freePort(from),
    databaseUrl: url,
  });
  running.push(() => server.stop());
  return { database, address: server.address };
}
async function browserTests() {
  needBrowser();
  const shared = await ownYantrel('browser', 3600);
  // Tests of what happens when the database goes would take it from all others.
  const own = await ownYantrel('browser_alone', 3700);
  // Only now are the npm packages sure to be there.
  const { openBrowser } = await import('./browser.mjs');
  const browser = await openBrowser([ALONE]);
  running.push(() => browser.close());
  await jest('browser', {
    YANTREL_URL: shared.address,
    YANTREL_BROWSER: browser.wsEndpoint(),
    YANTREL_ADMIN_URL: postgres.url,
    YANTREL_DATABASE: shared.database,
    YANTREL_OWN_URL: own.address,
    YANTREL_OWN_DATABASE: own.database,
  });
}
try {
  // By itself: what it starts has to answer in time.
  if (wanted('server')) await jest('server', { DATABASE_URL: postgres.url });
  if (wanted('browser')) await browserTests();
} catch (error) {
  failed++;
  console.log(`FAILED  ${error.message}`);
} finally {
  for (const end of running.reverse()) await end();
  postgres?.stop();
}

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
