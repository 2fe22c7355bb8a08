import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { RULES } from './rules';

const core = join(__dirname, '..');
const sources = readdirSync(core, { recursive: true, encoding: 'utf8' })
  .filter((name) => /\.ts$/.test(name) && !/\.test\.ts$|findings.rules\.ts$/.test(name))
  .map((name) => readFileSync(join(core, name), 'utf8'))
  .join('\n');

test.each(Object.keys(RULES))('%s is looked for somewhere', (id) => {
  const [, family, rest] = /^(board|rack|mains)-(.*)$/.exec(id) ?? [];
  const isNamed = sources.includes(`'${id}'`);
  const isMade = family !== undefined && sources.includes(`\`${family}-\${`);
  expect(isNamed || (isMade && sources.includes(`'${rest}'`))).toBe(true);
});

test('every rule has words of its own and at least one severity', () => {
  const words = Object.values(RULES).map((r) => r.words);
  expect(new Set(words).size).toBe(words.length);
  for (const { severities } of Object.values(RULES)) expect(severities.length).toBeGreaterThan(0);
});
