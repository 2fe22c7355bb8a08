import { isMetal } from '../circuit';
import { kindOf, type Loop } from '../kinds';
import { deviceOf, leadFrom } from '../rig/find';
import type { Device, End, Rig } from '../rig/schema';
import { kindIn } from './open-ends';

/** A loop whose chain comes home by another jack than its own return. */
export interface CrossedLoop {
  device: string;
  /** The send that it leaves by, and the input that it comes home to, at whichever device. */
  send: End;
  home: End;
}

/**
 * Loops of which what leaves by the send comes home by another return, or by an input of the same
 * device: plugs in each other's jack, or a modeler that is meant so. Followed through simple boxes
 * alone: what goes on through something with loops of its own is not told.
 */
export function crossedLoops(rig: Rig): CrossedLoop[] {
  return rig.devices.flatMap((device) =>
    (kindOf(device.kind).loops ?? []).flatMap((loop): CrossedLoop[] =>
      loop.send
        .flatMap((jack): CrossedLoop[] => {
          const send = { device: device.id, jack };
          const home = homeOf(rig, send);
          if (!home) return [];
          const isOwn = home.device === device.id && loop.return.includes(home.jack);
          const isHome =
            home.device === device.id ||
            kindIn(rig, home.device)?.loops?.some((l) => l.return.includes(home.jack));
          return isHome && !isOwn ? [{ device: device.id, send, home }] : [];
        })
        .concat(intoReturns(rig, device, loop)),
    ),
  );
}

/** Where the chain that hangs on a send ends: the first jack of something that is no simple box. */
function homeOf(rig: Rig, send: End): End | undefined {
  const seen = new Set<string>();
  let lead = leadFrom(rig, send.device, send.jack);
  while (lead && isMetal(lead)) {
    const box = deviceOf(rig, lead.to.device);
    const kind = box && kindOf(box.kind);
    if (!box || !kind?.through || kind.loops || kind.hosts) return lead.to;
    if (seen.has(box.id)) return undefined;
    seen.add(box.id);
    lead = leadFrom(rig, box.id, kind.through.out);
  }
  return undefined;
}

/** Chains from a main output of a device into a return of its own. */
const intoReturns = (rig: Rig, { id, kind }: Device, loop: Loop): CrossedLoop[] => {
  const sends = new Set(kindOf(kind).loops?.flatMap((l) => l.send));
  return kindOf(kind)
    .jacks.filter((j) => j.direction === 'out' && j.signal === 'audio' && !sends.has(j.id))
    .flatMap(({ id: jack }): CrossedLoop[] => {
      const from = { device: id, jack };
      const home = homeOf(rig, from);
      return home?.device === id && loop.return.includes(home.jack)
        ? [{ device: id, send: from, home }]
        : [];
    });
};
