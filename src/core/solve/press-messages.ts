import { midiGraph, midiOf, outJacks, type Presses, reachIn } from '../midi';
import type { MidiGraph } from '../midi/graph';
import type { MidiDevice } from '../midi/setup';
import { sure } from '../outcome';
import type { Edit } from '../rig/edits';
import { deviceOf, nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, End, Rig } from '../rig/schema';
import { type Try } from './press-ways';

/**
 * Lets a controller call what knows MIDI and is not called yet: a lead, a channel of its own, and a
 * program for each sound.
 */
export function byMessages(rig: Rig, before: Presses): Try | undefined {
  const willing = [...new Set([...before.presses, ...before.turns].map((p) => p.device))]
    .map((id) => sure(deviceOf(rig, id)))
    .filter(
      (d) =>
        d.host === undefined &&
        midiOf(d) &&
        !sure(midiOf(d)).commands &&
        !before.presses.some((p) => p.device === d.id && p.calls),
    );
  if (!willing.length) return undefined;
  const graph = midiGraph(rig);
  const { sender, edits, end } = senderOf(rig, graph);
  let from = end;
  const leads = new Set(rig.leads.map((l) => l.id));
  const channels = new Set([...graph.devices.values()].map((m) => m.channel));
  const told: string[] = [];
  for (const d of willing) {
    const m = sure(midiOf(d));
    if (!reachIn(graph, sender).has(d.id)) {
      const into = m.kind.jacks.find(
        (j) =>
          j.midi === 'in' && !rig.leads.some((l) => l.to.device === d.id && l.to.jack === j.id),
      );
      if (!from || !into) continue;
      const id = freshId(`${d.id}-midi`, [...leads]);
      leads.add(id);
      const to = { device: d.id, jack: into.id };
      edits.push({ edit: 'connect', lead: { id, from, to, type: 'midi', metres: 3 } });
      const out =
        m.kind.jacks.find((j) => j.midi === 'thru') ??
        m.kind.jacks.find((j) => j.midi === 'out' && m.thru !== 'none');
      from = out && { device: d.id, jack: out.id };
    }
    edits.push(...ownChannel(d, m, graph, channels), ...programsFor(rig, d, m));
    told.push(d.name);
  }
  if (!told.length) return undefined;
  return {
    words:
      `Let ${edits[0]?.edit === 'addDevice' ? 'a foot controller' : nameOf(rig, sender)} ` +
      `call ${told.join(', ')}`,
    why: 'They know MIDI: one press then sends each its program or its values.',
    edits,
  };
}

/**
 * Who sends: a controller that is there, with the furthest free output that its messages reach, or a
 * new one.
 */
function senderOf(
  rig: Rig,
  graph: MidiGraph,
): { sender: string; edits: Edit[]; end: End | undefined } {
  const there = [...graph.devices.values()].find(
    (m) => m.commands && m.kind.jacks.some((j) => j.signal === 'midi'),
  )?.device.id;
  if (there === undefined) {
    const id = freshId(
      'foot-controller',
      rig.devices.map((d) => d.id),
    );
    const device = {
      id,
      kind: 'foot-controller',
      name: 'Foot controller',
      place: 'floor',
    } as const;
    return {
      sender: id,
      edits: [{ edit: 'addDevice', device }],
      end: { device: id, jack: 'midiOut' },
    };
  }
  let end: End | undefined;
  for (const id of [there, ...reachIn(graph, there).keys()]) {
    const m = graph.devices.get(id);
    const isFree = (jack: string) =>
      !rig.leads.some((l) => l.from.device === id && l.from.jack === jack);
    const free = m && outJacks(m).find((j) => j.signal === 'midi' && isFree(j.id));
    if (free) end = { device: id, jack: free.id };
  }
  return { sender: there, edits: [], end };
}

/** A channel that nobody else listens to, where somebody else listens to this device's. */
function ownChannel(
  d: Device,
  m: MidiDevice,
  graph: MidiGraph,
  channels: Set<MidiDevice['channel']>,
): Edit[] {
  const channel = Array.from({ length: 16 }, (_, i) => i + 1).find((n) => !channels.has(n));
  const isHeard = [...graph.devices.values()].some(
    (o) => o !== m && (o.channel === m.channel || o.channel === 'all'),
  );
  if (channel === undefined || !isHeard) return [];
  channels.add(channel);
  return [{ edit: 'setMidi', device: d.id, midi: { ...d.midi, channel } }];
}

/** A program for each sound, one after the other, where the device has none yet. */
function programsFor(rig: Rig, d: Device, m: MidiDevice): Edit[] {
  if (!m.programs || rig.sounds.some((s) => s.states[d.id]?.program)) return [];
  const size = m.bank !== 'none' && m.shows.size ? m.shows.size : 128;
  return rig.sounds.map((s, i) => ({
    edit: 'setProgram',
    device: d.id,
    sound: s.id,
    program:
      m.bank === 'none' ? { number: i % 128 } : { bank: Math.floor(i / size), number: i % size },
  }));
}
