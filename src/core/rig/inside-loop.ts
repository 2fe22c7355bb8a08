import type { Draft } from 'immer';
import { type Job, kindOf, type Loop } from '../kinds';
import { sure } from '../outcome';
import { deviceOf, jackOf, leadTypeFor } from './find';
import { freshId } from './fresh-id';
import { usualMetres } from './joining';
import { innerReturn, innerSend, isFreeLoop } from './loop-edits';
import type { End, Rig } from './schema';

/** What belongs behind the amplifier: it goes last on a modeler's path, everything else first. */
const LAST: ReadonlySet<Job> = new Set(['delay', 'reverb', 'modulation', 'looper']);

/**
 * Hangs a device, whose way is free, on a free loop of a host, and opens the host's path there: first
 * behind its input, or last before its outputs for echoes, reverberation and modulation. On a stereo
 * path a stereo device takes the next loop too where it is free. False where nothing is linked inside,
 * so that there is no path to open.
 */
export function plugIntoHost(rig: Draft<Rig>, deviceId: string, host: string, loop: Loop): boolean {
  const holder = kindOf(sure(deviceOf(rig, host)).kind);
  const kind = kindOf(sure(deviceOf(rig, deviceId)).kind);
  const through = sure(kind.through);
  const pairOf = (jack: string) => kind.jacks.find((j) => j.id === jack)?.pair?.with;
  const links = (is: 'input' | 'output') =>
    rig.leads.filter((l) => {
      const end = is === 'input' ? l.from : l.to;
      const jack = end.device === host && jackOf(sure(deviceOf(rig, host)), end.jack);
      return l.type === 'inside' && jack && jack.faces?.is === is;
    });
  const [first, last] = [links('input')[0]?.from.jack, links('output')[0]?.to.jack];
  const goesLast = LAST.has(kind.job) && last !== undefined;
  const point = goesLast ? last : first;
  const other = goesLast ? holder.jacks.find((j) => j.id === point)?.pair?.with : undefined;
  const isTwo = other !== undefined && links('output').some((l) => l.to.jack === other);
  const next = (holder.loops ?? [])[(holder.loops ?? []).findIndex((l) => l.id === loop.id) + 1];
  const [inR, outR] = [pairOf(through.in), pairOf(through.out)];
  const both = isTwo && next && outR !== undefined && isFreeLoop(rig, host, next);
  const add = (from: End, to: End) =>
    rig.leads.push({
      id: freshId(
        'lead',
        rig.leads.map((l) => l.id),
      ),
      from,
      to,
      type: leadTypeFor(rig, from, to),
      metres: usualMetres(rig, from, to),
    });
  const at = (jack: string): End => ({ device: host, jack });
  const hang = (
    { send, return: back }: Loop,
    into: string | undefined,
    outOf: string,
    inner: string,
  ) => {
    const [out, home] = [sure(send[0]), sure(back[0])];
    for (const l of rig.leads) {
      if (l.type !== 'inside') continue;
      if (goesLast && l.to.device === host && l.to.jack === inner) l.to = at(innerSend(out));
      if (!goesLast && l.from.device === host && l.from.jack === inner)
        l.from = at(innerReturn(home));
    }
    if (goesLast) add(at(innerReturn(home)), at(inner));
    else add(at(inner), at(innerSend(out)));
    if (into !== undefined) add(at(out), { device: deviceId, jack: into });
    add({ device: deviceId, jack: outOf }, at(home));
  };
  if (point === undefined) return false;
  hang(loop, through.in, through.out, point);
  if (both) hang(next, inR, outR, other);
  return true;
}
