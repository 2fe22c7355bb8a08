import { analyse, type Report, type SoundReport } from '../core/report';
import type { Rig } from '../core/rig';
import { refuse } from './command';
import { round } from './round';

export const soundName = (rig: Rig, id: string): string =>
  rig.sounds.find((s) => s.id === id)?.name ?? 'As it stands';

/** The figures of a sound by name or id; of the first one where none is named. */
export function soundReport(rig: Rig, wanted?: string, report: Report = analyse(rig)): SoundReport {
  const found = report.sounds.find(
    (s) =>
      wanted === undefined ||
      s.sound === wanted ||
      soundName(rig, s.sound).toLowerCase() === wanted.toLowerCase(),
  );
  const has = rig.sounds.map((s) => s.name).join(', ');
  return found ?? refuse(`There is no sound "${wanted}" in ${rig.name}. It has: ${has}.`);
}

/** The stations of a walk as they are met, with their figures; those named, or all. */
export const walkOf = (rig: Rig, report: SoundReport, ids?: readonly string[]) =>
  report.stations
    .filter((s) => !ids || ids.includes(s.id))
    .sort((a, b) => a.column - b.column || a.lane - b.lane)
    .map((s) => ({
      device: s.device,
      name: rig.devices.find((d) => d.id === s.device)?.name ?? s.device,
      in: s.ins,
      out: s.outs,
      state: s.state,
      lane: s.lane,
      levelDbu: round(s.output.levelDbu?.normal ?? null),
      noiseDbu: round(s.output.noiseDbu),
      channels: s.width,
    }));
