import { checkRig, type Problem, problemLines, type Rig } from '../core/rig';

/**
 * A revision in the database that this program cannot read: it says what is wrong, and which
 * revision it is. The routes answer it in words, and the page offers the file and the way back.
 */
export class UnreadableRevision extends Error {
  constructor(
    readonly rig: string,
    readonly revision: number,
    readonly problems: Problem[],
  ) {
    super(
      `Revision ${revision} of this rig cannot be read: ${problemLines(problems).slice(0, 3).join('; ')}`,
    );
  }
}

/**
 * Reads a stored document through the same door as a file: checked, and brought up to date where an
 * earlier version of the program wrote it.
 */
export function readStored(rig: string, revision: number, document: unknown): Rig {
  const read = checkRig(document);
  if (!read.ok) throw new UnreadableRevision(rig, revision, read.problems);
  return read.value;
}
