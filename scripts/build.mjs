import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { root, run } from './machine.mjs';

const INPUTS = [
  'src',
  'public',
  'next.config.ts',
  'postcss.config.cjs',
  'tsconfig.json',
  'package-lock.json',
];

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
export function build(folder) {
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
  pack(join(root, folder, 'static'));
  writeFileSync(stamp, now);
}

/** Packs scripts and styles once, so that the server need not at every request. */
function pack(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    const path = join(folder, name);
    if (!/\.(js|css)$/.test(name) || statSync(path).size < 1000) continue;
    const packed = brotliCompressSync(readFileSync(path), {
      params: { [constants.BROTLI_PARAM_QUALITY]: 9 },
    });
    writeFileSync(`${path}.br`, packed);
  }
}
