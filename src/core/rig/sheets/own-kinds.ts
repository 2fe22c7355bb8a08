import { hash } from 'ohash';
import { type Kind, KINDS, learnKind } from '../../kinds';
import type { Problem } from '../../outcome';
import type { Rig } from '../schema';
import { assembledKind } from './assembled-kind';
import { changedKind } from './changed-kind';
import { sheetProblems } from './sheet-problems';
import type { Sheet } from './sheet-schema';

/** What the ids of kinds begin with that a sheet describes. */
const OWN = 'own.';
/** Letters of the mark by which two versions of a sheet are told apart: 72 bits. */
const MARK = 12;

const isSound = new WeakSet<Sheet>();
const idsKnown = new WeakMap<Sheet, string>();

/**
 * The id of the kind that a sheet describes: its own id, and a mark of all that it says. The same id
 * is the same kind wherever it comes from, so that kinds can be asked for by id alone, and two rigs
 * may hold two versions of one sheet.
 */
export function kindIdOf(sheet: Sheet): string {
  let id = idsKnown.get(sheet);
  if (id === undefined) {
    // As it would stand in a file, so that it is the same before it is written and after it is read.
    const written: unknown = JSON.parse(JSON.stringify(sheet));
    idsKnown.set(sheet, (id = `${OWN}${sheet.id}.${hash(written).slice(0, MARK)}`));
  }
  return id;
}

/** The sheet that a kind's id speaks of, whichever version: "own.twin-drive.Xy…" of "twin-drive". */
export const sheetIdOf = (kind: string): string | undefined =>
  kind.startsWith(OWN) ? kind.slice(OWN.length).split('.')[0] : undefined;

/** The kind that a sheet describes. The sheet must have no problems. */
export const kindOfSheet = (sheet: Sheet): Kind =>
  learnKind(kindIdOf(sheet), (id) =>
    sheet.is === 'changes' ? changedKind(id, sheet) : assembledKind(id, sheet),
  );

/**
 * Makes the kinds of a rig's sheets known, and tells what is wrong with those that make none. Called
 * wherever a document comes in or is changed; costs nothing where they are known already.
 */
export function learnSheets(sheets: readonly Sheet[] | undefined): Problem[] {
  return (sheets ?? []).flatMap((sheet, row) => {
    const problems = isSound.has(sheet) ? [] : sheetProblems(sheet);
    if (!problems.length) kindOfSheet(sheet);
    if (!problems.length) isSound.add(sheet);
    return problems.map(({ where, what }) => ({ where: `sheets[${row}].${where}`, what }));
  });
}

/**
 * A rig whose devices are of the kinds that its sheets describe now. A file may name a sheet without
 * its mark ("own.twin-drive"), and after two people changed one sheet the mark of neither is right.
 */
export function withMarks(rig: Rig): Rig {
  if (!rig.sheets?.length) return rig;
  const now = new Map(rig.sheets.map((s) => [s.id, kindIdOf(s)]));
  const kindNow = (kind: string) => now.get(sheetIdOf(kind) ?? '') ?? kind;
  if (rig.devices.every((d) => kindNow(d.kind) === d.kind)) return rig;
  return { ...rig, devices: rig.devices.map((d) => ({ ...d, kind: kindNow(d.kind) })) };
}

/** A rig whose devices name their sheets alone, whatever these say: so two versions of it can be joined. */
export function withoutMarks(rig: Rig): Rig {
  if (!rig.sheets?.length) return rig;
  const bare = (kind: string) => {
    const sheet = sheetIdOf(kind);
    return sheet === undefined ? kind : `${OWN}${sheet}`;
  };
  return { ...rig, devices: rig.devices.map((d) => ({ ...d, kind: bare(d.kind) })) };
}

/** All kinds that a device of a rig can be of: those of its own sheets first, then those that ship. */
export const kindsFor = (sheets: readonly Sheet[] | undefined): readonly Kind[] =>
  sheets?.length ? [...sheets.map(kindOfSheet), ...KINDS] : KINDS;
