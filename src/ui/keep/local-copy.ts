import { get, set } from 'idb-keyval';
import type { Rig } from '../../core/rig';

/** The rig as this browser last had it, with the words of what the server does not have yet. It survives a reload. */
export interface LocalCopy {
  rig: Rig;
  base: number;
  words: string[];
}

const key = (id: string) => `yantrel rig ${id}`;

/** This browser's copy of a rig, if there is one. A browser that keeps nothing gives nothing. */
export const readLocalCopy = (id: string): Promise<LocalCopy | undefined> =>
  get<LocalCopy>(key(id)).catch(() => undefined);
export const writeLocalCopy = (id: string, copy: LocalCopy): Promise<void> =>
  set(key(id), copy).catch(() => undefined);
