import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const UI = join(__dirname, '..');
const files = readdirSync(UI, { recursive: true })
  .map(String)
  .filter((name) => name.endsWith('.tsx'))
  .map((name) => ({ name, text: readFileSync(join(UI, name), 'utf8') }));

/** Every part that is fetched later, in the file that uses it: its name, and what else is said of it. */
const parts = files.flatMap(({ name, text }) =>
  [...text.matchAll(/dynamic\(\s*laterPart\('([^']+)',([^]*?)\n?\);?\n/g)].map((found) => ({
    name,
    text,
    part: found[1]!,
    how: found[2]!,
  })),
);

test('a part that comes with a hand leaves a gap of its own, and hides nothing of what it stands in', () => {
  expect(parts.length).toBeGreaterThan(30);
  const hiding = parts.filter(
    ({ name, text, how }) =>
      !/ssr: false|loading:/.test(how) &&
      // Places and the parts of one take the place of what was there.
      !text.includes('Views<') &&
      name !== 'frame/places.tsx',
  );
  expect(hiding.map(({ name, part }) => `${name}: ${part}`)).toEqual([]);
});

test('no two parts that are fetched later are called alike', () => {
  const names = parts.map(({ part }) => part);
  expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
});
