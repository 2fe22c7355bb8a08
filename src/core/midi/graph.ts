import { sure } from '../outcome';
import { nearestFirst } from '../graph';
import { isControlJack, type Jack, kindOf } from '../kinds';
import { jackOf } from '../rig/find';
import type { Device, End, Lead, Rig } from '../rig/schema';
import { type MidiDevice, midiDevices } from './setup';

/** How fast messages travel on a way: serial byte by byte, or in frames. */
export type Medium = 'din' | 'usb' | 'digital';

/**
 * One way that messages can take, from a jack to a jack. `broken` says why nothing passes, where
 * that is so.
 */
export interface Way {
  lead: Lead;
  from: End;
  to: End;
  medium: Medium;
  broken?: 'type' | 'no host' | 'two hosts';
}

/** What happens at a jack that messages can leave by, to what came in elsewhere. */
export type Echo = 'none' | 'hardware' | 'software' | 'merged';

/** The ways of a rig, by the jack that they leave from, and the devices that know MIDI. */
export interface MidiGraph {
  devices: ReadonlyMap<string, MidiDevice>;
  ways: Way[];
  from: ReadonlyMap<string, Way[]>;
}

export const endKey = (e: End): string => `${e.device}/${e.jack}`;

const known = new WeakMap<Rig['leads'], { devices: Rig['devices']; graph: MidiGraph }>();

/** The MIDI graph of a rig: DIN and TRS leads, USB both ways, and digital links that carry control. */
export function midiGraph(rig: Rig): MidiGraph {
  const hit = known.get(rig.leads);
  if (hit?.devices === rig.devices) return hit.graph;
  const byId = new Map(rig.devices.map((d) => [d.id, d]));
  const jack = (e: End) => jackOf(sure(byId.get(e.device)), e.jack);
  const ways = rig.leads.flatMap((lead): Way[] => {
    const [a, b] = [jack(lead.from), jack(lead.to)];
    if (!a || !b) return [];
    const { from, to } = lead;
    if (lead.type === 'midi')
      return [
        {
          lead,
          from,
          to,
          medium: 'din',
          ...(typesDiffer(
            socketOf(sure(byId.get(from.device)), a),
            socketOf(sure(byId.get(to.device)), b),
            lead,
          ) && { broken: 'type' as const }),
        },
      ];
    if (lead.type === 'digital')
      return a.carriesControl && b.carriesControl ? [{ lead, from, to, medium: 'digital' }] : [];
    if (lead.type !== 'usb') return [];
    const broken =
      a.usb === b.usb
        ? a.usb === 'host'
          ? ('two hosts' as const)
          : ('no host' as const)
        : undefined;
    return [
      { lead, from, to, medium: 'usb', broken },
      { lead, from: to, to: from, medium: 'usb', broken },
    ];
  });
  const from = new Map<string, Way[]>();
  for (const w of ways) from.set(endKey(w.from), [...(from.get(endKey(w.from)) ?? []), w]);
  const graph = { devices: midiDevices(rig), ways, from };
  known.set(rig.leads, { devices: rig.devices, graph });
  return graph;
}

/** The socket of a MIDI jack: what was set on the device, else its kind's. */
export const socketOf = (device: Device, jack: Jack): Jack['connector'] =>
  jack.midi ? (device.midi?.socket ?? jack.connector) : jack.connector;

/**
 * Whether a straight lead between two TRS sockets joins the wrong contacts: type A and type B are
 * wired the other way round. Between DIN and TRS the lead is taken to be made for its socket.
 */
function typesDiffer(a: Jack['connector'], b: Jack['connector'], lead: Lead): boolean {
  const isTrs = (socket: Jack['connector']) => socket === 'TRS-A' || socket === 'TRS-B';
  return isTrs(a) && isTrs(b) && (a !== b) !== (lead.crossed ?? false);
}

const isOut = (j: Jack): boolean =>
  j.midi === 'out' ||
  j.midi === 'thru' ||
  j.usb !== undefined ||
  (j.carriesControl === true && j.direction === 'out');

/** Jacks by which messages can leave a device. */
export const outJacks = (m: MidiDevice): Jack[] =>
  m.kind.jacks.filter((j) => (isControlJack(j) || j.carriesControl) && isOut(j));

/**
 * What leaves by a jack of what came in by another. A thru jack repeats a DIN or TRS input whatever
 * the device is set to.
 */
export function echoAt(m: MidiDevice, inJack: string, out: Jack): Echo {
  if (out.id === inJack) return 'none';
  if (out.midi === 'thru')
    return kindOf(m.device.kind).jacks.find((j) => j.id === inJack)?.midi === 'in'
      ? 'hardware'
      : 'none';
  return m.thru;
}

/** Whether a device's own messages leave by a jack: not where it only repeats. */
export const sendsOwn = (m: MidiDevice, out: Jack): boolean =>
  out.midi !== 'thru' && (m.thru === 'none' || m.thru === 'merged');

/**
 * Where a sender's messages arrive: by which way, and through what. `hops` counts ways, `copies`
 * the hardware thrus in a row before it.
 */
export interface Arrived {
  device: string;
  way: Way;
  hops: number;
  copies: number;
  path: string[];
}

/** Every device that a sender's own messages reach, by the shortest way; its own are not counted. */
export function reachedFrom(graph: MidiGraph, sender: string): Map<string, Arrived> {
  const found = new Map<string, Arrived>();
  const m = graph.devices.get(sender);
  if (!m) return found;
  const over = (out: string, hops: number, copies: number, path: readonly string[]): Arrived[] =>
    (graph.from.get(out) ?? [])
      .filter((way) => !way.broken)
      .map((way) => {
        const device = way.to.device;
        return { device, way, hops, copies, path: [...path, device] };
      });
  const starts = outJacks(m)
    .filter((out) => sendsOwn(m, out))
    .flatMap((out) => over(`${sender}/${out.id}`, 1, 0, [sender]));
  const onward = (at: Arrived): Arrived[] => {
    const here = graph.devices.get(at.device);
    if (!here || at.device === sender) return [];
    return outJacks(here).flatMap((out) => {
      const echo = echoAt(here, at.way.to.jack, out);
      if (echo === 'none') return [];
      const copies = echo === 'hardware' ? at.copies + 1 : 0;
      return over(`${at.device}/${out.id}`, at.hops + 1, copies, at.path);
    });
  };
  for (const at of nearestFirst(starts, onward, (x) => endKey(x.way.to)))
    if (at.device !== sender && !found.has(at.device)) found.set(at.device, at);
  return found;
}

const reaches = new WeakMap<MidiGraph, Map<string, Map<string, Arrived>>>();

/** As `reachedFrom`, remembered with the graph. */
export function reachIn(graph: MidiGraph, sender: string): Map<string, Arrived> {
  let all = reaches.get(graph);
  if (!all) reaches.set(graph, (all = new Map<string, Map<string, Arrived>>()));
  let one = all.get(sender);
  if (!one) all.set(sender, (one = reachedFrom(graph, sender)));
  return one;
}
