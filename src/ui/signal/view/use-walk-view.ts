import { useMemo } from 'react';
import { soundDifferences } from '../../../core/changes';
import { walkView, type WalkView } from '../../../core/draw';
import { useDocument, useRig, useSoundReport } from '../../store/use-rig';
import type { Compared } from '../walk-looks';
import type { Looking } from '../walk-tools';

/** The walk of the chosen sound as it is looked at; nothing while its figures are worked out. */
export function useWalkView(looking: Looking): WalkView | undefined {
  const { devices } = useDocument();
  const report = useSoundReport();
  return useMemo(
    () =>
      report &&
      walkView({ devices }, report, {
        folded: new Set(looking.folded),
        follow: devices.some((d) => d.id === looking.follow) ? looking.follow : null,
        quiet: looking.quiet,
      }),
    [devices, report, looking],
  );
}

/** What differs from the sound that is compared with; nothing where none is. */
export function useCompared(looking: Looking): (Compared & { name: string }) | null {
  const rig = useDocument();
  const report = useSoundReport();
  const soundId = useRig((s) => s.sound);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const against = rig.sounds.find((s) => s.id === looking.compare && s.id !== soundId);
  const other = useRig((s) => s.report.sounds.find((r) => r.sound === against?.id));
  return useMemo(() => {
    if (!against || !sound || !other || !report) return null;
    const level = (r: typeof report, station: string) =>
      r.stations.find((s) => s.id === station)?.output.levelDbu?.normal;
    return {
      name: against.name,
      words: soundDifferences(rig, against, sound),
      levelDb: (station) => {
        const [a, b] = [level(other, station), level(report, station)];
        return a === undefined || b === undefined ? null : b - a;
      },
    };
  }, [against, sound, other, report, rig]);
}
