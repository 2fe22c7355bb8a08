import * as z from 'zod';
import { done, type Outcome, refused } from '../../outcome';
import { issueWords } from '../issue-words';
import { textProblems } from '../text';
import { sheetProblems } from './sheet-problems';
import { type Sheet, sheetSchema } from './sheet-schema';

/** What a file of a sheet is marked as. */
export const SHEET_FORMAT = 'yantrel-sheet';

const fileSchema = z.looseObject({
  format: z.literal(SHEET_FORMAT),
  version: z.literal(1),
  sheet: z.unknown(),
});

/** Reads a sheet from the text of a file; what cannot be is refused with its place. */
export function readSheet(text: string): Outcome<Sheet> {
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refused('This is not whole JSON. The file may be torn; export it again.');
  }
  const file = fileSchema.safeParse(raw);
  return file.success
    ? checkSheet(file.data.sheet)
    : refused(
        `This is not the file of a sheet: its "format" should be "${SHEET_FORMAT}".`,
        'format',
      );
}

/** Checks a sheet that is already parsed. */
export function checkSheet(raw: unknown): Outcome<Sheet> {
  const unstorable = textProblems(raw);
  if (unstorable.length) return { ok: false, problems: unstorable };
  const shaped = sheetSchema.safeParse(raw);
  if (!shaped.success)
    return {
      ok: false,
      problems: shaped.error.issues.map((i) => ({ where: i.path.join('.'), what: issueWords(i) })),
    };
  const problems = sheetProblems(shaped.data);
  return problems.length ? { ok: false, problems } : done(shaped.data);
}

/** A sheet as the text of a file. */
export const writeSheet = (sheet: Sheet): string =>
  `${JSON.stringify({ format: SHEET_FORMAT, version: 1, sheet }, null, 2)}\n`;
