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

/** Where a path of a host is opened: at one inner point, or at both of a stereo pair. */
interface Opening {
  /** Before the point where the path ends, else behind the one where it begins. */
  isLast: boolean;
  points: [string] | [string, string];
}

/**
 * Hangs a device, whose way is free, on a free loop of a host, and opens the host's path there: first
 * behind its input, or last before its outputs for echoes, reverberation and modulation. A stereo path
 * is opened on both sides, by this loop and the next; where that cannot be, the device goes first,
 * before the path is stereo. False where nothing is linked inside, so that there is no path to open.
 */
export function plugIntoHost(rig: Draft<Rig>, deviceId: string, host: string, loop: Loop): boolean {
  const loops = kindOf(sure(deviceOf(rig, host)).kind).loops ?? [];
  const next = loops[loops.findIndex((l) => l.id === loop.id) + 1];
  const kind = kindOf(sure(deviceOf(rig, deviceId)).kind);
  const through = sure(kind.through);
  const pairOf = (jack: string) => kind.jacks.find((j) => j.id === jack)?.pair?.with;
  const [inR, outR] = [pairOf(through.in), pairOf(through.out)];
  const canBoth = outR !== undefined && next !== undefined && isFreeLoop(rig, host, next);
  const opening = openingFor(rig, host, LAST.has(kind.job), canBoth);
  if (!opening) return false;
  const [left, right] = opening.points;
  hang(rig, host, loop, opening, left, { device: deviceId, into: through.in, outOf: through.out });
  if (right !== undefined && next && outR !== undefined)
    hang(rig, host, next, opening, right, { device: deviceId, into: inR, outOf: outR });
  return true;
}

/** Where a device goes into the path of a host; nothing where there is none. */
function openingFor(
  rig: Rig,
  host: string,
  belongsLast: boolean,
  canBoth: boolean,
): Opening | undefined {
  const holder = sure(deviceOf(rig, host));
  const pointsOf = (is: 'input' | 'output') =>
    rig.leads.flatMap((l) => {
      const { device, jack } = is === 'input' ? l.from : l.to;
      const isOne = device === host && jackOf(holder, jack)?.faces?.is === is;
      return l.type === 'inside' && isOne ? [jack] : [];
    });
  const [[first], ends] = [pointsOf('input'), pointsOf('output')];
  const [last] = ends;
  const other = last === undefined ? undefined : jackOf(holder, last)?.pair?.with;
  const isStereo = other !== undefined && ends.includes(other);
  if (belongsLast && last !== undefined && (!isStereo || canBoth))
    return { isLast: true, points: isStereo ? [last, other] : [last] };
  return first === undefined ? undefined : { isLast: false, points: [first] };
}

/** Opens the path at one point, by one loop, with one side of a device in it. */
function hang(
  rig: Draft<Rig>,
  host: string,
  { send, return: back }: Loop,
  { isLast }: Opening,
  point: string,
  side: { device: string; into: string | undefined; outOf: string },
): void {
  const [out, home] = [sure(send[0]), sure(back[0])];
  const at = (jack: string): End => ({ device: host, jack });
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
  for (const l of rig.leads) {
    if (l.type !== 'inside') continue;
    if (isLast && l.to.device === host && l.to.jack === point) l.to = at(innerSend(out));
    if (!isLast && l.from.device === host && l.from.jack === point) l.from = at(innerReturn(home));
  }
  if (isLast) add(at(innerReturn(home)), at(point));
  else add(at(point), at(innerSend(out)));
  if (side.into !== undefined) add(at(out), { device: side.device, jack: side.into });
  add({ device: side.device, jack: side.outOf }, at(home));
}
