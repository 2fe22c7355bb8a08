import { isMetal } from '../circuit';
import { type Kind, kindOf, type Loop } from '../kinds';
import type { Device, End, Lead, Rig } from '../rig/schema';

/** A loop whose chain comes home by another jack than its own return. */
export interface CrossedLoop {
  device: string;
  /** The send that it leaves by, and the input that it comes home to. */
  send: End;
  home: End;
}

/**
 * Loops of which what leaves by the send comes home to the same device by another return, or by an input:
 * plugs in each other's jack, or a modeler that is meant so. Loops of two devices may lie in one another, as
 * an amplifier's does in that of a gate. Followed from the input of each box to its output; a modeler is
 * not gone through.
 */
export function crossedLoops(rig: Pick<Rig, 'devices' | 'leads'>): CrossedLoop[] {
  const followed = followedOf(rig);
  return rig.devices.flatMap((device) =>
    (kindOf(device.kind).loops ?? []).flatMap((loop): CrossedLoop[] =>
      loop.send
        .flatMap((jack): CrossedLoop[] => {
          const send = { device: device.id, jack };
          const home = homeOf(followed, send);
          if (!home) return [];
          const isOwn = loop.return.includes(home.jack);
          return home.device === device.id && !isOwn ? [{ device: device.id, send, home }] : [];
        })
        .concat(intoReturns(followed, device, loop)),
    ),
  );
}

/** What is asked at each step along a chain. */
interface Followed {
  devices: Map<string, Device>;
  /** The first lead from each jack. */
  leads: Map<string, Lead>;
}

const endKey = ({ device, jack }: End): string => `${device}\n${jack}`;

function followedOf({ devices, leads }: Pick<Rig, 'devices' | 'leads'>): Followed {
  const from = new Map<string, Lead>();
  for (const lead of leads) {
    const key = endKey(lead.from);
    if (!from.has(key)) from.set(key, lead);
  }
  return { devices: new Map(devices.map((d) => [d.id, d])), leads: from };
}

/** Where the chain that hangs on a send ends: the first jack of something that is no simple box. */
function homeOf({ devices, leads }: Followed, send: End): End | undefined {
  const seen = new Set<string>();
  let lead = leads.get(endKey(send));
  while (lead && isMetal(lead)) {
    const box = devices.get(lead.to.device);
    const kind = box && kindOf(box.kind);
    if (!box || !kind?.through || kind.hosts || box.id === send.device) return lead.to;
    if (isAtLoop(kind, lead.to.jack)) return lead.to;
    if (seen.has(box.id)) return undefined;
    seen.add(box.id);
    lead = leads.get(endKey({ device: box.id, jack: outOf(kind, lead.to.jack) }));
    // What goes in on the right comes out there, or on both sides of one that is played in mono.
    lead ??= leads.get(endKey({ device: box.id, jack: kind.through.out }));
  }
  return undefined;
}

/** Whether a jack of a box with loops is none that leads through the box. */
function isAtLoop({ through, jacks, loops }: Kind, jack: string): boolean {
  const partner = jacks.find((j) => j.id === through?.in)?.pair?.with;
  return loops !== undefined && jack !== through?.in && jack !== partner;
}

/** The output that goes with an input: the right one with the right one, of a box with two sides. */
function outOf({ through, jacks }: Kind, into: string): string {
  const side = jacks.find((j) => j.id === into)?.pair?.side;
  const main = jacks.find((j) => j.id === through?.out);
  return (side === 'right' ? main?.pair?.with : undefined) ?? main?.id ?? '';
}

/** Chains from a main output of a device into a return of its own. */
const intoReturns = (followed: Followed, { id, kind }: Device, loop: Loop): CrossedLoop[] => {
  const sends = new Set(kindOf(kind).loops?.flatMap((l) => l.send));
  return kindOf(kind)
    .jacks.filter((j) => j.direction === 'out' && j.signal === 'audio' && !sends.has(j.id))
    .flatMap(({ id: jack }): CrossedLoop[] => {
      const from = { device: id, jack };
      const home = homeOf(followed, from);
      return home?.device === id && loop.return.includes(home.jack)
        ? [{ device: id, send: from, home }]
        : [];
    });
};
