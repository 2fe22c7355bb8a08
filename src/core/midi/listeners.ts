import type { Scene } from '../control/scene';
import type { Fix, Remark } from '../findings/finding';
import { nameOf } from '../rig/find';
import { sure } from '../outcome';
import { addressIn, type Command, type Orders } from './commands';
import { reachIn } from './graph';
import type { Message } from './message';
import { sortOf } from './message-sorts';
import { type Ready, withFixes } from './ready';
import type { MidiDevice } from './setup';
import { allOf } from '../units';

/** Devices that react to messages meant for another one: they listen on the same channel. */
export function listenerRemarks(orders: Orders): Remark[] {
  const found = new Map<string, Ready>();
  for (const scene of orders.scenes)
    for (const [sender, list] of orders.commands(scene))
      for (const command of list)
        for (const remark of overheard(orders, scene, sender, command))
          if (!found.has(remark.about)) found.set(remark.about, remark);
  return [...found.values()].map(withFixes);
}

/** Who else takes one message that a sender gives for a scene. */
function overheard(
  orders: Orders,
  scene: Scene,
  sender: string,
  { message, to, written }: Command,
): (Ready & { about: string })[] {
  const { rig, graph } = orders;
  if (message.type !== 'program' && message.type !== 'control') return [];
  const within = [...reachIn(graph, sender).keys()];
  const wanted = to ?? within.find((id) => reacts(graph.devices.get(id), message));
  return within.flatMap((id) => {
    const m = sure(graph.devices.get(id));
    if (id === wanted || !reacts(m, message)) return [];
    if (wanted && sharedOnPurpose(orders, wanted, id)) return [];
    const mover = written && wanted ? m : (graph.devices.get(wanted ?? id) ?? m);
    const both = wanted ? [nameOf(rig, wanted), m.device.name] : [m.device.name];
    return [
      {
        rule: 'midi-double',
        severity: 'fault',
        subjects: wanted ? [id, wanted] : [id],
        about: [wanted ?? '', id].sort().join('+'),
        what: `${allOf(both)} both listen on channel ${message.channel}.`,
        why:
          `${sortOf(message).title(message)}, ` +
          `which ${nameOf(rig, sender)} sends ${wanted ? `for ${nameOf(rig, wanted)}` : ''} ` +
          `in ${scene.name}, changes ${m.device.name} too.`,
        fixes: toFreeChannel(orders, mover),
      },
    ];
  });
}

/** A device moved to the lowest channel that nobody listens on, where there is one. */
function toFreeChannel(orders: Orders, { device }: MidiDevice): Fix[] {
  const free = freeChannel(orders);
  if (free === undefined) return [];
  return [
    {
      words: `Move ${device.name} to channel ${free}`,
      edits: [{ edit: 'setMidi', device: device.id, midi: { ...device.midi, channel: free } }],
    },
  ];
}

/** Whether a message makes a device do something. */
export const reacts = (m: MidiDevice | undefined, message: Message): boolean =>
  m !== undefined && sortOf(message).isTaken(message, m);

/** Two devices on one channel that keep every sound at the same number were set up so on purpose. */
function sharedOnPurpose({ scenes }: Orders, a: string, b: string): boolean {
  const same = scenes.map((s) => [addressIn(s, a), addressIn(s, b)] as const);
  return (
    same.some(([x]) => x) &&
    same.every(
      ([x, y]) => x !== undefined && y !== undefined && x.number === y.number && x.bank === y.bank,
    )
  );
}

/** The lowest channel that nobody listens on. */
function freeChannel({ graph }: Orders): number | undefined {
  const taken = new Set([...graph.devices.values()].map((m) => m.channel));
  return Array.from({ length: 16 }, (_, i) => i + 1).find((n) => !taken.has(n));
}
