import equal from 'fast-deep-equal';
import memoizeOne from 'memoize-one';
import { createContext, useContext, useMemo } from 'react';
import { useStore } from 'zustand';
import { useStoreWithEqualityFn } from 'zustand/traditional';
import type { SoundReport } from '../../core/report';
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

/**
 * What a part of the page draws of the document, the same for as long as it reads the same: an edit of
 * something else does not have it drawn again.
 */
export function useDrawn<T>(of: (rig: Rig) => T): T {
  // Much that changes in the store is not the document: for that nothing is worked out anew.
  const drawn = useMemo(() => memoizeOne(of), [of]);
  return useStoreWithEqualityFn(useRigStore(), (s) => drawn(s.history.rig), equal);
}

/**
 * The figures of the chosen sound; nothing while they are still being worked out. The document is a
 * step ahead of its figures while the worker runs, so what is no longer in it is left out.
 */
export function useSoundReport(): SoundReport | undefined {
  const rig = useDocument();
  const report = useRig((s) => s.report.sounds.find((r) => r.sound === s.sound));
  return useMemo(() => {
    if (!report) return undefined;
    const devices = new Set(rig.devices.map((d) => d.id));
    const leads = new Set(rig.leads.map((l) => l.id));
    const whole =
      report.stations.every((s) => devices.has(s.device)) &&
      report.steps.every((s) => s.leads.every((l) => leads.has(l)));
    return whole
      ? report
      : {
          ...report,
          stations: report.stations.filter((s) => devices.has(s.device)),
          steps: report.steps.filter((s) => s.leads.every((l) => leads.has(l))),
          destinations: report.destinations.filter((d) => devices.has(d.device)),
        };
  }, [report, rig.devices, rig.leads]);
}

/** Which revision is on the screen, in words for paper. */
export const useRevision = (): string =>
  useRig((s) =>
    s.unsaved.length ? `after revision ${s.revision}, not saved yet` : `revision ${s.revision}`,
  );
