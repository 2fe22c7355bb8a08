import { isFork, PLAYED_THROUGH } from '../analysis';
import { kindOf } from '../kinds';
import { isEngaged, stateIn } from '../rig/device-state';
import { leadFrom } from '../rig/find';
import type { Device, Rig } from '../rig/schema';
import type { Report } from './report';

/**
 * Pairs of outputs of which one side is plugged and the other is not: the right one alone, or one of
 * something wide. The left one alone is how mono is taken from most boxes.
 */
const halfPairs = (rig: Rig, { id, kind }: Device, isWide: boolean): number =>
  kindOf(kind).jacks.filter(
    (j) =>
      j.direction === 'out' &&
      j.pair &&
      (isWide || j.pair.side === 'left') &&
      !leadFrom(rig, id, j.id) &&
      leadFrom(rig, id, j.pair.with),
  ).length;

/**
 * How much of a rig stands there for nothing: forks that feed fewer than two, a side of something
 * wide that nothing is plugged into, and effects that a sound switches on and that nothing goes through in it,
 * once for each sound. Of several leads that would each do, the one that was there leaves least idle.
 */
export function idleIn(rig: Rig, report: Report): number {
  const fed = new Map<string, number>();
  for (const { from } of rig.leads) fed.set(from.device, (fed.get(from.device) ?? 0) + 1);
  const forks = rig.devices.filter(
    (d) => isFork(d.kind) && fed.has(d.id) && fed.get(d.id)! < 2,
  ).length;
  const wide = new Set(
    report.sounds.flatMap((s) =>
      s.stations.flatMap((x) => (x.width === 'stereo' ? [x.device] : [])),
    ),
  );
  const sides = rig.devices.reduce((sum, d) => sum + halfPairs(rig, d, wide.has(d.id)), 0);
  const effects = rig.devices.filter((d) => PLAYED_THROUGH.has(kindOf(d.kind).job));
  const idle = report.sounds.flatMap(({ sound: id, stations }) => {
    const sound = rig.sounds.find((s) => s.id === id);
    const played = new Set(stations.filter((s) => s.input?.levelDbu).map((s) => s.device));
    return effects.filter(
      (d) =>
        sound !== undefined &&
        isEngaged(kindOf(d.kind), d, stateIn(sound, d.id)) &&
        !played.has(d.id),
    );
  });
  return forks + sides + idle.length;
}
