/**
 * Files that take longest begin first, or the last of them runs while the other core has nothing to
 * do. Their order is by what they took when it was measured; a file that is not named comes after.
 */
const LONGEST = [
  ...['e2e/access', 'e2e/own-gear', 'e2e/keeping', 'e2e/show', 'e2e/control', 'e2e/histories'],
  ...['e2e/findings', 'e2e/carry', 'e2e/start', 'e2e/signal', 'e2e/in-the-hand', 'e2e/build'],
  ...['src/cli/cli', 'src/core/show/drill', 'src/core/start/planted', 'src/core/build/board'],
  ...['src/core/start/start', 'src/print/pdf', 'src/core/solve/as-it-was'],
  ...['src/core/report/tried', 'src/core/start/planted-anywhere', 'src/core/solve/solve'],
];

const place = (path) => {
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
