import { readdir } from 'node:fs/promises';
import { join } from 'node:path';

const FOLDER = join(process.env.YANTREL_DIST ?? '.next', 'static');
/** Beside each script lies its packed copy, and what says where it came from: no page asks for those. */
const BESIDE = /\.(br|map)$/;

let listed: Promise<string[]> | undefined;

/**
 * The paths of all scripts, styles and typefaces of this build, which a browser keeps so that every place opens
 * while the server is away. Empty where nothing was built (`npm run dev`).
 */
export function pageFiles(): Promise<string[]> {
  return (listed ??= readdir(FOLDER, { recursive: true, withFileTypes: true }).then(
    (all) =>
      all
        .filter((f) => f.isFile() && !BESIDE.test(f.name))
        .map((f) => `/_next/static${join(f.parentPath, f.name).slice(FOLDER.length)}`)
        .sort(),
    () => [],
  ));
}
