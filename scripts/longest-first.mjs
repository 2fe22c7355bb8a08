/**
 * Files that take longest begin first, or the last of them runs while the other core has nothing to
 * do. Their order is by what they took when it was measured; a file that is not named comes after.
 */
const LONGEST = [
  ...['e2e/access', 'e2e/own-gear', 'e2e/keeping', 'e2e/show', 'e2e/control', 'e2e/histories'],
  ...['e2e/findings', 'e2e/carry', 'e2e/start', 'e2e/signal', 'e2e/in-the-hand', 'e2e/build'],
  ...['src/cli/cli', 'src/core/report/planted-by-hand', 'src/print/pdf', 'src/core/start/planted'],
  ...['src/core/build/board', 'src/core/report/tried', 'src/core/start/start'],
  ...['src/core/report/kept', 'src/core/show/finder/finder', 'src/core/solve/solve'],
  ...['src/core/rig/loop-holding', 'src/core/demo/demo', 'src/core/report/laws-of-files'],
  ...[
    'src/core/start/planted-anywhere',
    'src/core/build/power-program',
    'src/core/solve/as-it-was',
  ],
];

/** Where a file of tests stands among those that take longest; behind them all where it is not named. */
export const place = (path) => {
  const at = LONGEST.findIndex((name) => path.endsWith(`/${name}.test.ts`));
  return at < 0 ? LONGEST.length : at;
};

export default class LongestFirst {
  sort = (tests) =>
    [...tests].sort((a, b) => place(a.path) - place(b.path) || a.path.localeCompare(b.path));
  shard = (tests) => tests;
  allFailedTests = (tests) => tests;
  cacheResults() {}
}
