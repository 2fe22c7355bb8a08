import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { root, run } from './machine.mjs';

const INPUTS = ['src', 'public', 'next.config.ts', 'tsconfig.json', 'package-lock.json'];

function fingerprint() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory())
      readdirSync(path)
        .sort()
        .forEach((name) => visit(join(path, name)));
    else if (!/\.test\.tsx?$/.test(path))
      hash.update(path.slice(root.length)).update(readFileSync(path));
  };
  INPUTS.forEach((name) => visit(join(root, name)));
  return hash.digest('hex');
}

/** Makes a production build in `folder` where there is none of the present sources. */
export async function build(folder) {
  const stamp = join(root, folder, 'yantrel-sources');
  const now = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.log('Building the application …');
  run('npx', ['next', 'build'], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      YANTREL_DIST: folder,
      NEXT_TELEMETRY_DISABLED: '1',
      DATABASE_URL: '',
    },
  });
  await pack(join(root, folder, 'static'));
  writeFileSync(stamp, now);
}

/** Packs scripts and styles once, as small as can be, so that the server need not at every request. */
async function pack(folder) {
  const compress = promisify(brotliCompress);
  const params = { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY };
  const paths = readdirSync(folder, { recursive: true })
    .filter((name) => /\.(js|css)$/.test(name))
    .map((name) => join(folder, name))
    .filter((path) => statSync(path).size >= 1000);
  await Promise.all(
    paths.map(async (path) =>
      writeFileSync(`${path}.br`, await compress(readFileSync(path), { params })),
    ),
  );
}
