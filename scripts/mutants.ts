import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/**
 * Seeds mistakes into the core, one at a time, and sees whether the tests of the folder that each
 * is in find it. Run by hand: `npm run mutants -- [COUNT] [FOLDER]`. It works on the files
 * themselves and puts each back, also when it is stopped.
 */
const CORE = 'src/core';
const count = Number(process.argv[2] ?? 100);
const only = process.argv[3] === 'all' ? undefined : process.argv[3];

/** A place where a mistake can be made: what stands there, and what would stand there instead. */
interface Mutant {
  file: string;
  start: number;
  end: number;
  text: string;
  what: string;
}

const SWAPS: Partial<Record<ts.SyntaxKind, string>> = {
  [ts.SyntaxKind.PlusToken]: '-',
  [ts.SyntaxKind.MinusToken]: '+',
  [ts.SyntaxKind.AsteriskToken]: '/',
  [ts.SyntaxKind.SlashToken]: '*',
  [ts.SyntaxKind.LessThanToken]: '>=',
  [ts.SyntaxKind.LessThanEqualsToken]: '>',
  [ts.SyntaxKind.GreaterThanToken]: '<=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '<',
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: '!==',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: '===',
  [ts.SyntaxKind.AmpersandAmpersandToken]: '||',
  [ts.SyntaxKind.BarBarToken]: '&&',
};

const isText = (node: ts.Node, source: ts.SourceFile): boolean =>
  /['"`]/.test(node.getText(source).charAt(0));

function mutantsIn(file: string): Mutant[] {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const add = (node: ts.Node, replacement: string) =>
    found.push({
      file,
      start: node.getStart(source),
      end: node.end,
      text: replacement,
      what: `${node.getText(source)} → ${replacement}`,
    });
  const visit = (node: ts.Node): void => {
    if (ts.isBinaryExpression(node)) {
      const swap = SWAPS[node.operatorToken.kind];
      const joinsText = isText(node.left, source) || isText(node.right, source);
      if (swap && !joinsText) add(node.operatorToken, swap);
    }
    if (ts.isConditionalExpression(node))
      add(node.condition, `!(${node.condition.getText(source)})`);
    if (ts.isIfStatement(node)) add(node.expression, `!(${node.expression.getText(source)})`);
    if (ts.isNumericLiteral(node) && !ts.isLiteralTypeNode(node.parent))
      add(node, node.text === '0' ? '1' : `(${node.text} * 1.5 + 1)`);
    if (node.kind === ts.SyntaxKind.TrueKeyword && !ts.isLiteralTypeNode(node.parent))
      add(node, 'false');
    if (node.kind === ts.SyntaxKind.FalseKeyword && !ts.isLiteralTypeNode(node.parent))
      add(node, 'true');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const folders = readdirSync(CORE, { withFileTypes: true })
  .filter((d) => d.isDirectory() && (!only || d.name === only))
  .map((d) => d.name)
  .filter((name) => !['testing'].includes(name));

/** The same places every time for one seed: a small generator of its own. */
let seed = Number(process.argv[4] ?? 20_261);
const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;

const perFolder = Math.max(1, Math.ceil(count / folders.length));
let killed = 0;
let seeded = 0;
for (const folder of folders) {
  const files = readdirSync(join(CORE, folder), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !f.endsWith('index.ts'))
    .map((f) => join(CORE, folder, f));
  const all = files.flatMap(mutantsIn);
  let own = 0;
  const survived: string[] = [];
  const wanted = Math.min(perFolder, all.length);
  for (let i = 0; i < wanted; i++) {
    const mutant = all[Math.floor(random() * all.length)];
    if (!mutant) break;
    const text = readFileSync(mutant.file, 'utf8');
    const putBack = () => writeFileSync(mutant.file, text);
    process.once('exit', putBack);
    writeFileSync(mutant.file, text.slice(0, mutant.start) + mutant.text + text.slice(mutant.end));
    // Jest itself, not npx: a test that a mutant sends round for ever is ended with it.
    const run = spawnSync(
      process.execPath,
      [
        '--max-semi-space-size=64',
        '--interrupt-budget=540000',
        'node_modules/jest/bin/jest.js',
        '--selectProjects',
        'core',
        '--bail',
        '--silent',
        '--testPathPatterns',
        `core/${folder}/`,
      ],
      { encoding: 'utf8', timeout: 240_000, killSignal: 'SIGKILL' },
    );
    putBack();
    process.removeListener('exit', putBack);
    seeded++;
    if (run.status !== 0) {
      own++;
      killed++;
    } else {
      const line = text.slice(0, mutant.start).split('\n').length;
      survived.push(`${mutant.file}:${line}: ${mutant.what.replace(/\s+/g, ' ').slice(0, 100)}`);
    }
  }
  console.log(`${folder}: ${own} of ${wanted} killed`);
  for (const s of survived) console.log(`  lived  ${s}`);
}
console.log(
  `${killed} of ${seeded} killed (${Math.round((100 * killed) / Math.max(1, seeded))} %)`,
);
