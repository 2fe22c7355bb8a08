import { createStore, useStore } from 'zustand';
import type { Problem } from '../../../core/outcome';
import { checkSheet, type Sheet } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';

/** What was changed of sheets and cannot stand yet, by rig and sheet: kept while the page is open. */
const unfinished = createStore<Record<string, Sheet | undefined>>(() => ({}));
const leave = (key: string, sheet?: Sheet) => unfinished.setState({ [key]: sheet });

export interface SheetAtWork {
  sheet: Sheet;
  problems: readonly Problem[];
  /** Changes the sheet: in the rig at once where it can stand, else here until it can. */
  change: (next: Sheet) => void;
  /** Lets go of what cannot stand. */
  forget: () => void;
}

/** A sheet under somebody's hands: what can stand goes into the rig, what cannot stays to be mended. */
export function useSheet(stored: Sheet): SheetAtWork {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const key = `${rig.id} ${stored.id}`;
  const sheet = useStore(unfinished, (s) => s[key]) ?? stored;
  const checked = checkSheet(sheet);
  return {
    sheet,
    problems: checked.ok ? [] : checked.problems,
    change: (next) => {
      const made = checkSheet(next);
      const stands = made.ok && edit({ edit: 'putSheet', sheet: made.value }).ok;
      leave(key, stands ? undefined : next);
    },
    forget: () => leave(key),
  };
}
