import { sure, at as entryAt } from '../outcome';
import type { Draft } from 'immer';
import { kindOf, type Loop } from '../kinds';
import type { Refusal } from './refusal';
import { deviceOf, isPlugged, leadFrom, leadInto, leadsFrom, leadsInto, partnerEnd } from './find';
import { unplugControl } from './chain-edits';
import { CONTROL_LEADS } from './lead-types';
import type { Rig } from './schema';

/** Inner points of a host that face a loop's jacks. */
export const innerSend = (jack: string): string =>
  `to${jack.charAt(0).toUpperCase()}${jack.slice(1)}`;
export const innerReturn = (jack: string): string =>
  `from${jack.charAt(0).toUpperCase()}${jack.slice(1)}`;

const loopOf = (rig: Rig, host: string, id: string): Loop | undefined =>
  kindOf(sure(deviceOf(rig, host)).kind).loops?.find((l) => l.id === id);

/** Whether nothing is plugged into a loop of a host, and nothing inside uses it. */
export function isFreeLoop(rig: Rig, host: string, loop: Loop): boolean {
  const points = new Set([
    ...loop.send,
    ...loop.return,
    ...loop.send.map(innerSend),
    ...loop.return.map(innerReturn),
  ]);
  return !(
    leadsFrom(rig, host).some((l) => points.has(l.from.jack)) ||
    leadsInto(rig, host).some((l) => points.has(l.to.jack))
  );
}

/**
 * The ways through a device: its main one, and the other side of a stereo pair where anything is
 * linked to that side.
 */
export function waysOf(rig: Rig, device: string): { into: string; outOf: string }[] {
  const way = kindOf(sure(deviceOf(rig, device)).kind).through;
  if (!way) return [];
  const [inR, outR] = [
    partnerEnd(rig, { device, jack: way.in })?.jack,
    partnerEnd(rig, { device, jack: way.out })?.jack,
  ];
  const isUsed = (jack: string) => isPlugged(rig, device, jack);
  return [
    { into: way.in, outOf: way.out },
    ...(inR && outR && (isUsed(inR) || isUsed(outR)) ? [{ into: inR, outOf: outR }] : []),
  ];
}

/**
 * Takes a block out of its host and hangs it, as a real device, on free sends and returns at the
 * very place where it stood.
 */
export function moveToLoop(
  rig: Draft<Rig>,
  deviceId: string,
  loops: string[],
  newLeads: string[],
): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  const host = device.host;
  if (host === undefined) return `${device.name} already stands outside.`;
  if (kindOf(device.kind).jacks.every((j) => j.connector === 'inside'))
    return `${device.name} exists only inside a host.`;
  const ways = waysOf(rig, deviceId);
  if (!ways.length) return `${device.name} has no way through, so no loop can hold it.`;
  if (ways.length > loops.length)
    return `${device.name} is linked on both sides; it needs two sends and returns.`;
  for (const [n, way] of ways.entries()) {
    const loop = loopOf(rig, host, entryAt(loops, n));
    if (!loop) return `${sure(deviceOf(rig, host)).name} has no loop "${entryAt(loops, n)}".`;
    if (!isFreeLoop(rig, host, loop))
      return `${loop.label} of ${sure(deviceOf(rig, host)).name} is in use already.`;
    const [send, back] = [entryAt(loop.send, 0), entryAt(loop.return, 0)];
    // A side that nothing feeds, or that feeds nothing, gets no lead: mono in and stereo out stays so.
    let [fed, feeds] = [n === 0, n === 0];
    for (const l of rig.leads) {
      if (l.to.device === deviceId && l.to.jack === way.into)
        [l.to, fed] = [{ device: host, jack: innerSend(send) }, true];
      if (l.from.device === deviceId && l.from.jack === way.outOf)
        [l.from, feeds] = [{ device: host, jack: innerReturn(back) }, true];
    }
    if (fed)
      rig.leads.push({
        id: entryAt(newLeads, 2 * n),
        from: { device: host, jack: send },
        to: { device: deviceId, jack: way.into },
        type: 'instrument',
        metres: 1,
      });
    if (feeds)
      rig.leads.push({
        id: entryAt(newLeads, 2 * n + 1),
        from: { device: deviceId, jack: way.outOf },
        to: { device: host, jack: back },
        type: 'instrument',
        metres: 1,
      });
  }
  // Links to jacks that no loop carries cannot follow it out.
  rig.leads = rig.leads.filter(
    (l) => l.type !== 'inside' || (l.from.device !== deviceId && l.to.device !== deviceId),
  );
  delete device.host;
}

/**
 * Takes a device that hangs alone on a host's sends and returns into the host, at the very place
 * where the loop stood.
 */
export function moveFromLoop(rig: Draft<Rig>, deviceId: string): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  const kind = kindOf(device.kind);
  if (!kind.block && !kind.hosts)
    return `${device.name} cannot live inside a host: it has no block form.`;
  const held = hostLoopOf(rig, deviceId);
  if (!held) return `${device.name} does not hang on the sends and returns of a host.`;
  for (const { send, back, into, outOf } of held.ways) {
    rig.leads = rig.leads.filter(
      (l) =>
        !(l.from.device === held.host && l.from.jack === send && l.to.device === deviceId) &&
        !(l.to.device === held.host && l.to.jack === back && l.from.device === deviceId),
    );
    for (const l of rig.leads) {
      if (send !== undefined && l.to.device === held.host && l.to.jack === innerSend(send))
        l.to = { device: deviceId, jack: into };
      if (back !== undefined && l.from.device === held.host && l.from.jack === innerReturn(back))
        l.from = { device: deviceId, jack: outOf };
    }
  }
  unplugControl(rig, deviceId);
  device.host = held.host;
  delete device.supply;
  delete device.place;
}

/**
 * One side of a device on a host's loop: from which send it is fed and on which return it comes
 * back, where it does.
 */
export interface HostLoopWay {
  send: string | undefined;
  back: string | undefined;
  into: string;
  outOf: string;
}

/**
 * The host on whose sends and returns a device hangs, with which jack goes where; nothing where a
 * lead of it goes elsewhere.
 */
export function hostLoopOf(
  rig: Rig,
  deviceId: string,
): { host: string; ways: HostLoopWay[] } | undefined {
  const found: HostLoopWay[] = [];
  const joined = rig.leads.filter(
    (l) =>
      !CONTROL_LEADS.includes(l.type) && (l.from.device === deviceId || l.to.device === deviceId),
  );
  const host = joined.find((l) => l.to.device === deviceId)?.from.device;
  const kind = host === undefined ? undefined : kindOf(sure(deviceOf(rig, host)).kind);
  if (host === undefined || !kind?.hosts) return undefined;
  for (const { into, outOf } of waysOf(rig, deviceId)) {
    const [before, after] = [leadInto(rig, deviceId, into), leadFrom(rig, deviceId, outOf)];
    if (
      before &&
      (before.from.device !== host || !kind.loops?.some((l) => l.send.includes(before.from.jack)))
    )
      return undefined;
    if (
      after &&
      (after.to.device !== host || !kind.loops?.some((l) => l.return.includes(after.to.jack)))
    )
      return undefined;
    if (found.length === 0 && (!before || !after)) return undefined;
    found.push({ send: before?.from.jack, back: after?.to.jack, into, outOf });
  }
  const held = found.reduce(
    (n, w) => n + (w.send === undefined ? 0 : 1) + (w.back === undefined ? 0 : 1),
    0,
  );
  return found.length && joined.length === held ? { host, ways: found } : undefined;
}
