import type { Draft } from 'immer';
import { kindOf, type Kind, type Loop } from '../kinds';
import { sure } from '../outcome';
import { addDevice, heal, splice } from './chain-edits';
import {
  deviceOf,
  insideOf,
  jackOf,
  leadFrom,
  leadsFrom,
  leadsInto,
  leadTypeFor,
  nameOf,
} from './find';
import { freshId } from './fresh-id';
import { usualMetres } from './joining';
import { waysOf } from './loop-edits';
import { plugIntoHost } from './inside-loop';
import type { Refusal } from './refusal';
import { CONTROL_LEADS } from './lead-types';
import type { Device, End, Lead, Rig } from './schema';

/** Where a point of a loop is plugged: its jack, and the conductor of it where two points share one. */
interface Plug {
  jack: string;
  conductor?: 'tip' | 'ring';
}

function plugOf(kind: Kind, point: string): Plug | undefined {
  const own = kind.jacks.find((j) => j.id === point);
  if (own) return { jack: point, ...((own.insert ?? own.stereo) && { conductor: 'tip' as const }) };
  const shared = kind.jacks.find((j) => j.stereo === point || j.insert === point);
  return shared && { jack: shared.id, conductor: 'ring' };
}

/** The lead at one side of a loop, where one is plugged: out of a send, or into a return. */
function leadAt(rig: Rig, host: string, point: string, side: 'send' | 'return'): Lead | undefined {
  const plug = plugOf(kindOf(sure(deviceOf(rig, host)).kind), point);
  const plugged = side === 'send' ? leadsFrom(rig, host) : leadsInto(rig, host);
  return plugged.find(
    (l) =>
      (side === 'send' ? l.from : l.to).jack === plug?.jack &&
      (l.type !== 'insert' || (l.conductor ?? 'tip') === (plug?.conductor ?? 'tip')),
  );
}

/** What hangs in a loop: nothing, a way that comes back, or plugs that do not belong together. */
export type LoopState =
  | { is: 'free' }
  | { is: 'closed'; send: Lead; back: Lead; devices: string[] }
  | { is: 'open'; devices: string[] };

/**
 * What hangs in a loop of a device: walked from its send along the main ways through, until it comes
 * back. A way that splits or ends elsewhere is open.
 */
export function loopState(rig: Rig, host: string, loop: Loop): LoopState {
  const [send, back] = [
    leadAt(rig, host, sure(loop.send[0]), 'send'),
    leadAt(rig, host, sure(loop.return[0]), 'return'),
  ];
  if (!send && !back) return { is: 'free' };
  const devices: string[] = [];
  for (let lead = send; lead && lead !== back && !devices.includes(lead.to.device);) {
    const { device } = lead.to;
    if (device === host) break;
    devices.push(device);
    const out = kindOf(sure(deviceOf(rig, device)).kind).through?.out;
    lead = out === undefined ? undefined : leadFrom(rig, device, out);
    if (lead && lead === back) return { is: 'closed', send: sure(send), back, devices };
  }
  return { is: 'open', devices };
}

/** The loop of a device, and of which, in which another hangs, if any. */
export function loopAround(rig: Rig, device: string): { host: string; loop: Loop } | undefined {
  for (const host of rig.devices)
    for (const loop of kindOf(host.kind).loops ?? []) {
      const state = loopState(rig, host.id, loop);
      if (state.is === 'closed' && state.devices.includes(device)) return { host: host.id, loop };
    }
  return undefined;
}

/**
 * Puts a device into a loop, last before its return: one that is there moves and heals where it
 * stood, a new one is added. Where the loop is free it is plugged from send to return, on both sides
 * where both have two (a modeler's path is opened for it, see `plugIntoHost`); the type, the conductors
 * and the usual length of the leads follow from their ends.
 */
export function putInLoop(rig: Draft<Rig>, device: Device, host: string, id: string): Refusal {
  const holder = deviceOf(rig, host);
  if (!holder) return `There is no device "${host}" any more.`;
  const loop = kindOf(holder.kind).loops?.find((l) => l.id === id);
  if (!loop) return `${holder.name} has no loop "${id}".`;
  if (device.id === host) return `${holder.name} cannot hang in a loop of its own.`;
  if (!kindOf(device.kind).through)
    return `${device.name} has no way through, so it cannot hang in a loop.`;
  const isHere = deviceOf(rig, device.id) !== undefined;
  if (
    isHere &&
    loopState(rig, host, loop).is === 'closed' &&
    standsLast(rig, device.id, host, loop)
  )
    return `${device.name} stands there already.`;
  if (!isHere) {
    const refusal = addDevice(rig, device);
    if (refusal) return refusal;
  } else {
    const outside = insideOf(rig, { device: host, jack: sure(loop.send[0]) });
    heal(rig, device.id, device.host === outside ? 'only its place' : 'all');
    delete sure(rig.devices.find((d) => d.id === device.id)).host;
  }
  const state = loopState(rig, host, loop);
  if (state.is === 'open')
    return (
      `${holder.name} has ${loop.label} plugged on one side only, or what hangs in it does not come ` +
      'back. Plug its return first.'
    );
  if (state.is === 'closed')
    return splice(rig, device.id, state.back.id, [freshLead(rig), freshLead(rig, 1)]);
  if (!kindOf(holder.kind).hosts || !plugIntoHost(rig, device.id, host, loop))
    plugRound(rig, device.id, host, loop);
}

const standsLast = (rig: Rig, device: string, host: string, loop: Loop): boolean =>
  leadAt(rig, host, sure(loop.return[0]), 'return')?.from.device === device;

const freshLead = (rig: Rig, after = 0): string => {
  const ids = rig.leads.map((l) => l.id);
  for (let n = 0; n < after; n++) ids.push(freshId('lead', ids));
  return freshId('lead', ids);
};

/** Plugs a device, whose way is free, from the send of a free loop to its return. */
function plugRound(rig: Draft<Rig>, deviceId: string, host: string, loop: Loop): void {
  const kind = kindOf(sure(deviceOf(rig, host)).kind);
  const through = sure(kindOf(sure(deviceOf(rig, deviceId)).kind).through);
  const join = (from: End, to: End, conductor: Plug['conductor']) => {
    const type = leadTypeFor(rig, from, to);
    rig.leads.push({
      id: freshLead(rig),
      from,
      to,
      type,
      metres: usualMetres(rig, from, to),
      ...(type === 'insert' && { conductor: conductor ?? 'tip' }),
    });
  };
  const device = (jack: string): End => ({ device: deviceId, jack });
  const pairOf = (jack: string) => jackOf(sure(deviceOf(rig, deviceId)), jack)?.pair?.with;
  const sides: [string | undefined, string | undefined][] = [
    [through.in, through.out],
    [pairOf(through.in), pairOf(through.out)],
  ];
  for (const [n, [into, outOf]] of sides.entries()) {
    const [send, back] = [loop.send, loop.return].map((points) => {
      const point = points[n];
      return point === undefined ? undefined : plugOf(kind, point);
    });
    // A TRS jack on both ends takes both sides in one lead.
    const isCarried = (jack: string, plug: Plug) =>
      n > 0 && leadTypeFor(rig, { device: host, jack: plug.jack }, device(jack)) === 'stereo';
    if (send && into !== undefined && !isCarried(into, send))
      join({ device: host, jack: send.jack }, device(into), send.conductor);
    if (back && outOf !== undefined && !isCarried(outOf, back))
      join(device(outOf), { device: host, jack: back.jack }, back.conductor);
  }
}

/**
 * Exchanges two devices: each is plugged where the other was, along their ways through. What else is
 * plugged into them stays.
 */
export function exchange(rig: Draft<Rig>, a: string, b: string): Refusal {
  const [one, two] = [a, b].map((id) => deviceOf(rig, id));
  if (!one || !two) return `There is no device "${one ? b : a}" any more.`;
  if (a === b) return `${one.name} cannot be exchanged with itself.`;
  if (one.host !== two.host)
    return `${one.name} and ${two.name} are not in the same place: one lives inside a host.`;
  const [ways, others] = [waysOf(rig, a), waysOf(rig, b)];
  const sides = Math.max(ways.length, others.length);
  const jacksOf = (device: Device) => {
    const { through, jacks } = kindOf(device.kind);
    const pairOf = (id: string) => jacks.find((j) => j.id === id)?.pair?.with;
    return through
      ? [
          [through.in, through.out],
          [pairOf(through.in), pairOf(through.out)],
        ]
      : [];
  };
  const [mine, theirs] = [jacksOf(one), jacksOf(two)];
  const isLacking = (device: Device, all: (string | undefined)[][]): string | undefined =>
    all.length === 0
      ? `${device.name} has no way through, so it cannot change places.`
      : sides > 1 && all[1]?.includes(undefined)
        ? `${device.name} has one side only, and the other is plugged on two.`
        : undefined;
  const lacking = isLacking(one, mine) ?? isLacking(two, theirs);
  if (lacking) return lacking;
  const swapped = new Map<string, End>();
  for (let n = 0; n < sides; n++)
    for (const k of [0, 1]) {
      const [x, y] = [sure(mine[n]?.[k]), sure(theirs[n]?.[k])];
      swapped.set(`${a} ${x}`, { device: b, jack: y });
      swapped.set(`${b} ${y}`, { device: a, jack: x });
    }
  for (const l of rig.leads) {
    if (CONTROL_LEADS.includes(l.type)) continue;
    const [from, to] = [l.from, l.to].map((e) => swapped.get(`${e.device} ${e.jack}`));
    if (from) l.from = from;
    if (to) l.to = to;
    if (!from && !to) continue;
    const needed = leadTypeFor(rig, l.from, l.to);
    if (needed !== 'instrument' || (l.type !== 'balanced' && l.type !== 'stereo')) l.type = needed;
    if (l.type !== 'insert') delete l.conductor;
  }
}

/** A loop in words: "loop 2 of Switchyard". */
export const loopWords = (rig: Rig, host: string, id: string): string => {
  const device = deviceOf(rig, host);
  const loop = device && kindOf(device.kind).loops?.find((l) => l.id === id);
  return `${loop?.label ?? id} of ${nameOf(rig, host)}`;
};
