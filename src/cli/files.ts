import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { done, type Outcome, problemLines, refused } from '../core/outcome';
import { readRig, type Rig } from '../core/rig';
import { refuse } from './command';

const messageOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** npm runs scripts in the project's folder; a file is meant from where the person is. */
const fromHere = (path: string): string => resolve(process.env.INIT_CWD ?? '.', path);

/** Files as they were named; a folder stands for the rig files in it, in order of name. */
export function filesIn(paths: readonly string[]): string[] {
  return paths.flatMap((path) => {
    const at = fromHere(path);
    if (!statSync(at, { throwIfNoEntry: false })?.isDirectory()) return [path];
    const inside = readdirSync(at).filter((name) => name.endsWith('.json'));
    if (!inside.length) refuse(`There is no rig file (.json) in the folder ${path}.`);
    return inside.sort().map((name) => join(path, name));
  });
}

/** Reads a rig file; one that cannot be opened or read says why, line by line. */
export function load(file: string): Outcome<Rig> {
  let text: string;
  try {
    text = readFileSync(fromHere(file), 'utf8');
  } catch (error) {
    return refused(`Cannot open ${file}: ${messageOf(error)}`);
  }
  const read = readRig(text);
  return read.ok
    ? done(read.value)
    : {
        ok: false,
        problems: [`${file} cannot be read:`, ...problemLines(read.problems)].map((what) => ({
          where: '',
          what,
        })),
      };
}

export function save(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(fromHere(path), content);
  } catch (error) {
    refuse(`Cannot write ${path}: ${messageOf(error)}`);
  }
}
