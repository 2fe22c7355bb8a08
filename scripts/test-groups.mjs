import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { place } from './longest-first.mjs';
import { root } from './machine.mjs';

/** One folder a run: two at once leave each other's alone. */
const FOLDER = `.test-groups/${process.pid}`;
const PARTS = ['core', 'cli', 'print', 'ui', 'worker'];
/** Few share most; many are spread better over the cores. */
const GROUPS = 8;

/** What runs as a file of its own: snapshots lie beside their file, mocks hold for all, programs are begun outside. */
const ALONE = [
  /\/as-it-was\.test\.ts$/,
  /^src\/cli\/cli\.test\.ts$/,
  /^src\/core\/report\/(additions|true-names)\.test\.ts$/,
  /^src\/ui\/keep\/keeper\.test\.ts$/,
  /^src\/worker\/solve-worker\.test\.ts$/,
];
const MUST_BE_ALONE = /toMatchSnapshot|jest\.(mock|doMock)/;

/**
 * Writes files that each run many files of the core's tests, and gives all files that make up its
 * tests then. What they import is so read, compiled and optimised once for all of them, where a file
 * of its own begins from nothing: most of what small files take. A test is called by its file and
 * its name; by itself a file runs as ever.
 */
export function groupedTests() {
  mkdirSync(join(root, FOLDER), { recursive: true });
  const files = PARTS.flatMap((part) =>
    readdirSync(join(root, 'src', part), { recursive: true }).map((name) => `src/${part}/${name}`),
  ).filter((name) => /\.test\.tsx?$/.test(name));
  const isAlone = (name) => ALONE.some((pattern) => pattern.test(name));
  const grouped = files
    .filter((name) => !isAlone(name))
    .map((name) => ({ name, text: readFileSync(join(root, name), 'utf8') }))
    .sort(
      (a, b) =>
        place(a.name) - place(b.name) ||
        b.text.length - a.text.length ||
        (a.name < b.name ? -1 : 1),
    );
  const wrong = grouped.find(({ text }) => MUST_BE_ALONE.test(text));
  if (wrong)
    throw new Error(
      `${wrong.name} has snapshots or mocks: scripts/test-groups.mjs must leave it alone.`,
    );
  // Dealt out to and fro, the longest first.
  const groups = Array.from({ length: GROUPS }, () => []);
  grouped.forEach(({ name }, i) => {
    const [round, at] = [Math.floor(i / GROUPS), i % GROUPS];
    groups[round % 2 ? GROUPS - 1 - at : at].push(name);
  });
  return [
    ...groups.map((names, i) => {
      const file = `${FOLDER}/group-${i + 1}.test.ts`;
      const lines = names.map(
        (name) => `describe('${name}', () => void require('../../${name}'));\n`,
      );
      writeFileSync(join(root, file), lines.join(''));
      return file;
    }),
    ...files.filter(isAlone),
  ];
}

/** Puts away what was written for a run. */
export const clearGroups = () => rmSync(join(root, FOLDER), { recursive: true, force: true });
