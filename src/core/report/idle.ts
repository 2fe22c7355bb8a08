import { isFork, PLAYED_THROUGH } from '../analysis';
import { byKey } from '../graph';
import { kindOf } from '../kinds';
import { isEngaged, stateIn } from '../rig/device-state';
import { leadFrom, leadInto } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Device, Rig } from '../rig/schema';
import type { Report } from './report';

/**
 * Pairs of jacks of which one side is plugged and the other is not: the right one alone, which hardly
 * anybody means, counts twice; an output of something wide once. The left one alone is how mono goes
 * into most boxes and comes out of them.
 */
const halfPairs = (rig: Rig, { id, kind }: Device, isWide: boolean): number =>
  kindOf(kind).jacks.reduce((sum, { id: jack, direction, pair }) => {
    const lead = direction === 'out' ? leadFrom : leadInto;
    if (!pair || lead(rig, id, jack) || !lead(rig, id, pair.with)) return sum;
    return sum + (pair.side === 'left' ? 2 : isWide && direction === 'out' ? 1 : 0);
  }, 0);

/** Whether a box that passes on what it is given has leads out and none in. */
function isUnfed({ kind }: Device, ins: number, outs: number): boolean {
  const { job, jacks } = kindOf(kind);
  const takes = jacks.some((j) => j.signal === 'audio' && j.direction === 'in');
  return takes && job !== 'instrument' && outs > 0 && ins === 0;
}

/**
 * How much of a rig stands there for nothing: forks that feed fewer than two, boxes that feed
 * something and are fed by nothing, sides that nothing is plugged into, and effects that a sound
 * switches on and that nothing goes through in it, once for each sound. Of several leads that would
 * each do, the one that was there leaves least idle.
 */
export function idleIn(rig: Rig, report: Report): number {
  const signal = rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type));
  const from = byKey(signal, (l) => l.from.device);
  const into = byKey(signal, (l) => l.to.device);
  const wide = new Set(
    report.sounds.flatMap((s) =>
      s.stations.flatMap((x) => (x.width === 'stereo' ? [x.device] : [])),
    ),
  );
  const boxes = rig.devices.reduce((sum, d) => {
    const [outs, ins] = [from, into].map((leads) => leads.get(d.id)?.length ?? 0);
    const isLone = isFork(d.kind) && outs === 1;
    return (
      sum +
      Number(isLone) +
      Number(isUnfed(d, ins ?? 0, outs ?? 0)) +
      halfPairs(rig, d, wide.has(d.id))
    );
  }, 0);
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
  return boxes + idle.length;
}
