import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { SoundReport } from '../../core/analysis';
import type { Rig } from '../../core/rig';
import type { RigState, RigStore } from './rig-store';

export const RigContext = createContext<RigStore | null>(null);

export function useRigStore(): RigStore {
  const store = useContext(RigContext);
  if (!store) throw new Error('no rig is open here');
  return store;
}

/** A slice of the open rig's state. */
export const useRig = <T>(slice: (state: RigState) => T): T => useStore(useRigStore(), slice);

/** The document as it stands. */
export const useDocument = (): Rig => useRig((s) => s.history.rig);

/** The figures of the chosen sound; of the first one while a new sound is still being figured. */
export const useSoundReport = (): SoundReport | undefined => useRig((s) => s.report.sounds.find((r) => r.sound === s.sound) ?? s.report.sounds[0]);
