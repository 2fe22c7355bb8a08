import { get, set } from 'idb-keyval';
import { checkRig, type Rig } from '../../core/rig';

/** The rig as this browser last had it, with the words of what the server does not have yet. It survives a reload. */
export interface LocalCopy {
  rig: Rig;
  base: number;
  words: string[];
}

const key = (id: string) => `yantrel rig ${id}`;
/** Where a copy goes that this program cannot read: it is put aside, and never thrown away. */
const aside = (id: string) => `yantrel unreadable rig ${id}`;

/**
 * This browser's copy of a rig, if there is one, read through the same door as a file: checked, and
 * brought up to date. One that cannot be read is put aside; a browser that keeps nothing gives
 * nothing.
 */
export async function readLocalCopy(id: string): Promise<LocalCopy | undefined> {
  try {
    const copy = await get<LocalCopy>(key(id));
    if (!copy) return undefined;
    const read = checkRig(copy.rig);
    if (read.ok) return { ...copy, rig: read.value };
    await set(aside(id), copy);
    return undefined;
  } catch {
    return undefined;
  }
}

export const writeLocalCopy = (id: string, copy: LocalCopy): Promise<void> =>
  set(key(id), copy).catch(() => undefined);
