import { parse, type ParseError } from 'jsonc-parser';
import { done, type Outcome, type Problem, refused } from '../outcome';
import { textProblems } from './text';
import { integrityProblems } from './integrity';
import { issueWords } from './issue-words';
import { type Rig, RIG_VERSION, rigSchema } from './schema';
import { shapedSchema } from './shaped';
import { learnSheets, withMarks } from './sheets';
import { upgrade } from './upgrade';

/** The largest file that is read, in characters. */
export const MAX_FILE = 8_000_000;

/** At most this many problems are listed; more would not help anyone. */
const MOST = 40;

/**
 * Reads a rig from the text of a file. Unknown fields are kept, older versions are brought up to
 * date, and what cannot be read is refused with the row and field of each problem.
 *
 *     const read = readRig(await file.text());
 *     if (!read.ok) show(problemLines(read.problems));
 */
export function readRig(text: string): Outcome<Rig> {
  if (text.length > MAX_FILE)
    return refused(
      `The file is too large (${Math.round(text.length / 1e6)} MB); a rig file has at most ${MAX_FILE / 1e6} MB.`,
    );
  const bare = text.replace(/^\uFEFF/, '');
  let raw: unknown;
  try {
    raw = JSON.parse(bare);
  } catch {
    return refused(
      `This is not whole JSON: ${placed(bare)}. The file may be torn; export it again.`,
    );
  }
  return checkRig(raw);
}

/**
 * Checks a document that is already parsed, as {@link readRig} does for text. Parts that were checked
 * before, as the very same objects, are not looked at again.
 */
export function checkRig(raw: unknown): Outcome<Rig> {
  if (
    typeof raw !== 'object' ||
    raw === null ||
    Array.isArray(raw) ||
    (raw as { format?: unknown }).format !== 'yantrel-rig'
  ) {
    return refused(
      'This is not a rig file: it should be an object whose "format" is "yantrel-rig".',
      'format',
    );
  }
  const version = (raw as { version?: unknown }).version;
  if (typeof version === 'number' && version > RIG_VERSION) {
    return refused(
      `The file has version ${version}; this program reads up to ${RIG_VERSION}. Open it with a newer Yantrel.`,
      'version',
    );
  }
  const unstorable = textProblems(raw);
  if (unstorable.length) return { ok: false, problems: capped(unstorable) };
  const document = upgrade(raw);
  const shaped = shapedSchema.safeParse(document);
  if (!shaped.success) {
    const issues = rigSchema.safeParse(document).error?.issues ?? [];
    return {
      ok: false,
      problems: capped(issues.map((i) => ({ where: pathWords(i.path), what: issueWords(i) }))),
    };
  }
  const rig = withMarks(shaped.data as Rig);
  const problems = [...learnSheets(rig.sheets), ...integrityProblems(rig)];
  return problems.length ? { ok: false, problems: capped(problems) } : done(rig);
}

const capped = (problems: Problem[]): Problem[] =>
  problems.length > MOST
    ? [
        ...problems.slice(0, MOST),
        { where: '', what: `and ${problems.length - MOST} more problems` },
      ]
    : problems;

/** A path as people write it: `leads[3].to.jack`. */
export const pathWords = (path: readonly PropertyKey[]): string =>
  path.map((p, i) => (typeof p === 'number' ? `[${p}]` : `${i ? '.' : ''}${String(p)}`)).join('');

/** Where JSON breaks off or goes wrong: the line and column of the first place that does not fit. */
function placed(text: string): string {
  const errors: ParseError[] = [];
  parse(text, errors, { disallowComments: true });
  const at = errors[0]?.offset ?? text.length;
  const before = text.slice(0, at).split('\n');
  const column = (before[before.length - 1]?.length ?? 0) + 1;
  return `it breaks off or goes wrong at line ${before.length}, column ${column}`;
}
