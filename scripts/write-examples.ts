import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { DEMO_RIGS } from '../src/core/demo';
import { writeRig } from '../src/core/rig';

/** Writes the demo rigs as rig files into `examples/`; with `--check`, says which are not current. */
const isCheck = process.argv.includes('--check');
mkdirSync('examples', { recursive: true });
const stale = DEMO_RIGS.filter((rig) => {
  const path = `examples/${rig.id}.json`;
  const text = writeRig(rig);
  if (!isCheck) writeFileSync(path, text);
  try {
    return readFileSync(path, 'utf8') !== text;
  } catch {
    return true;
  }
});
for (const rig of stale)
  process.stderr.write(`examples/${rig.id}.json is not current; run "npm run docs"\n`);
process.exitCode = stale.length ? 1 : 0;
