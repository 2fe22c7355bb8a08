import { sure, at as entryAt } from '../outcome';
import { byKey, nearestFirst } from '../graph';
import type { Fix } from '../findings/finding';
import { kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, endWords, jackOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { End, Lead, Rig } from '../rig/schema';
import { midiGraph, outJacks, reachIn, sendsOwn, type Way } from './graph';

const isUsed = (rig: Rig, e: End): boolean =>
  rig.leads.some((l) => [l.from, l.to].some((x) => x.device === e.device && x.jack === e.jack));

/** An unused output of a device, of the signal of a lead. */
export function freeOut(rig: Rig, device: string, signal: string): End | undefined {
  const m = midiGraph(rig).devices.get(device);
  const jack =
    m && outJacks(m).find((j) => j.signal === signal && !isUsed(rig, { device, jack: j.id }));
  return jack && { device, jack: jack.id };
}

/**
 * Puts a thru box in front of a device, with what hung behind it beside it: `into` is the lead to
 * it, `behind` the lead that carries nothing.
 */
export function thruBoxFix(rig: Rig, into: Lead, behind: Lead): Fix {
  const box = freshId(
    'thru-box',
    rig.devices.map((d) => d.id),
  );
  const ids = [0, 1, 2].reduce<string[]>(
    (list) => [...list, freshId(`${box}-lead`, [...rig.leads.map((l) => l.id), ...list])],
    [],
  );
  const at = (jack: string): End => ({ device: box, jack });
  return {
    words: `Put a thru box in front of ${sure(deviceOf(rig, into.to.device)).name}`,
    edits: [
      { edit: 'disconnect', lead: into.id },
      { edit: 'disconnect', lead: behind.id },
      {
        edit: 'addDevice',
        device: {
          id: box,
          kind: 'midi-thru-box',
          name: 'Thru box',
          place: sure(deviceOf(rig, into.to.device)).place,
        },
      },
      {
        edit: 'connect',
        lead: {
          id: entryAt(ids, 0),
          from: into.from,
          to: at('midiIn'),
          type: 'midi',
          metres: into.metres,
        },
      },
      {
        edit: 'connect',
        lead: { id: entryAt(ids, 1), from: at('thru1'), to: into.to, type: 'midi', metres: 0.5 },
      },
      {
        edit: 'connect',
        lead: {
          id: entryAt(ids, 2),
          from: at('thru2'),
          to: behind.to,
          type: 'midi',
          metres: behind.metres,
        },
      },
    ],
  };
}

/** Takes messages for a device from a free output further up. */
function replugFix(rig: Rig, behind: Lead, from: End): Fix {
  return {
    words: `Run the lead to ${sure(deviceOf(rig, behind.to.device)).name} from ${endWords(rig, from)} instead`,
    edits: [
      { edit: 'disconnect', lead: behind.id },
      { edit: 'connect', lead: { ...behind, from } },
    ],
  };
}

/** Has two devices change places, where the one behind passes messages on. */
function reorderFix(rig: Rig, into: Lead, behind: Lead): Fix | undefined {
  const { device } = behind.to;
  const out = kindOf(sure(deviceOf(rig, device)).kind).jacks.find(
    (j) => j.midi === 'thru' && !isUsed(rig, { device, jack: j.id }),
  );
  if (!out || into.type !== 'midi' || behind.type !== 'midi') return undefined;
  return {
    words: `Put ${sure(deviceOf(rig, device)).name} in front of ${sure(deviceOf(rig, into.to.device)).name}`,
    edits: [
      { edit: 'disconnect', lead: into.id },
      { edit: 'disconnect', lead: behind.id },
      { edit: 'connect', lead: { ...into, to: behind.to } },
      { edit: 'connect', lead: { ...behind, from: { device, jack: out.id }, to: into.to } },
    ],
  };
}

/**
 * Whether edits can be made, bring a sender's messages to a device, and take from nobody what
 * anybody who leads or calls sounds sends.
 */
function works(rig: Rig, edits: readonly Edit[], sender: string, device: string): boolean {
  const done = applyEdits(rig, edits);
  if (!done.ok) return false;
  const [before, after] = [midiGraph(rig), midiGraph(done.value.rig)];
  return (
    reachIn(after, sender).has(device) &&
    [...before.devices.values()].every(
      (s) =>
        !(s.commands || s.recalls || s.clock === 'send') ||
        [...reachIn(before, s.device.id).keys()].every((id) => reachIn(after, s.device.id).has(id)),
    )
  );
}

/** Ids for new devices and leads, one after the other, all free. */
function freshIds(rig: Rig): { device: (word: string) => string; lead: (word: string) => string } {
  const [devices, leads] = [rig.devices.map((d) => d.id), rig.leads.map((l) => l.id)];
  const take = (taken: string[]) => (word: string) => {
    const id = freshId(word, taken);
    taken.push(id);
    return id;
  };
  return { device: take(devices), lead: take(leads) };
}

/**
 * Joins what comes into a sender that passes nothing on with what it sends itself: a thru box in
 * front of it, a merge box behind it.
 */
function mergeAroundFix(rig: Rig, into: Lead, behind: Lead): Fix {
  const ids = freshIds(rig);
  const [box, merge] = [ids.device('thru-box'), ids.device('merge-box')];
  const connect = (from: End, to: End, metres: number): Edit => ({
    edit: 'connect',
    lead: { id: ids.lead('merge-lead'), from, to, type: 'midi', metres },
  });
  return {
    words: `Put a thru box in front of ${sure(deviceOf(rig, into.to.device)).name} and a merge box behind it`,
    edits: [
      { edit: 'disconnect', lead: into.id },
      { edit: 'disconnect', lead: behind.id },
      { edit: 'addDevice', device: { id: box, kind: 'midi-thru-box', name: 'Thru box' } },
      { edit: 'addDevice', device: { id: merge, kind: 'midi-merge', name: 'Merge box' } },
      connect(into.from, { device: box, jack: 'midiIn' }, into.metres),
      connect({ device: box, jack: 'thru1' }, into.to, 0.5),
      connect({ device: box, jack: 'thru2' }, { device: merge, jack: 'in1' }, 0.5),
      connect(behind.from, { device: merge, jack: 'in2' }, 0.5),
      connect({ device: merge, jack: 'midiOut' }, behind.to, behind.metres),
    ],
  };
}

/**
 * Brings a sender to a device that it is not wired to: a lead from a free output (or a thru box
 * where its output is taken) to a free input (or a merge box where that is taken, as two senders
 * meet there). Tried on a copy.
 */
export function joinFix(rig: Rig, sender: string, device: string): Fix[] {
  const [from, to] = [midiGraph(rig).devices.get(sender), midiGraph(rig).devices.get(device)];
  const out = from && outJacks(from).find((j) => j.signal === 'midi' && sendsOwn(from, j));
  const input = to?.kind.jacks.find((j) => j.midi === 'in');
  if (!out || !input) return [];
  const ids = freshIds(rig);
  const edits: Edit[] = [];
  const connect = (a: End, b: End, metres: number) =>
    void edits.push({
      edit: 'connect',
      lead: { id: ids.lead(`${sender}-midi`), from: a, to: b, type: 'midi', metres },
    });
  const free = freeOut(rig, sender, 'midi');
  let start: End = free ?? { device: sender, jack: out.id };
  const words: string[] = [];
  if (!free) {
    const taken = sure(rig.leads.find((l) => l.from.device === sender && l.from.jack === out.id));
    const box = ids.device('thru-box');
    edits.push(
      { edit: 'disconnect', lead: taken.id },
      { edit: 'addDevice', device: { id: box, kind: 'midi-thru-box', name: 'Thru box' } },
    );
    connect(taken.from, { device: box, jack: 'midiIn' }, 0.5);
    connect({ device: box, jack: 'thru1' }, taken.to, taken.metres);
    start = { device: box, jack: 'thru2' };
    words.push('a thru box');
  }
  const held = rig.leads.find((l) => l.to.device === device && l.to.jack === input.id);
  if (held) {
    const merge = ids.device('merge-box');
    edits.push(
      { edit: 'disconnect', lead: held.id },
      { edit: 'addDevice', device: { id: merge, kind: 'midi-merge', name: 'Merge box' } },
    );
    connect(held.from, { device: merge, jack: 'in1' }, held.metres);
    connect(start, { device: merge, jack: 'in2' }, 2);
    connect({ device: merge, jack: 'midiOut' }, { device, jack: input.id }, 0.5);
    words.push('a merge box');
  } else connect(start, { device, jack: input.id }, 2);
  const fix = {
    words: words.length
      ? `Join ${from.device.name} and ${to!.device.name} with ${words.join(' and ')}`
      : `Run a MIDI lead from ${from.device.name} to ${to!.device.name}`,
    edits,
  };
  return works(rig, edits, sender, device) ? [fix] : [];
}

/**
 * Where a sender's messages stop on their way to a device: the lead that carries nothing, the
 * device that passes nothing on, and the lead into that.
 */
export function whereCut(
  rig: Rig,
  sender: string,
  device: string,
): { behind: Lead; stopper: string; into?: Way } | undefined {
  const graph = midiGraph(rig);
  const reached = reachIn(graph, sender);
  const into = byKey(graph.ways, (w) => w.to.device);
  const before = (at: string) => (into.get(at) ?? []).map((way) => way.from.device);
  for (const at of nearestFirst([device], before)) {
    for (const way of into.get(at) ?? []) {
      const from = way.from.device;
      if (from === sender || reached.has(from))
        return { behind: way.lead, stopper: from, into: reached.get(from)?.way };
    }
  }
  return undefined;
}

/**
 * What would bring a sender's messages to a device behind one that passes nothing on, the least
 * work first; each was tried on a copy.
 */
export function reachFixes(rig: Rig, sender: string, device: string): Fix[] {
  const cut = whereCut(rig, sender, device);
  if (!cut) return [];
  const { behind, stopper, into } = cut;
  const found: Fix[] = [];
  const m = midiGraph(rig).devices.get(stopper);
  for (const thru of m?.kind.midi!.thrus ?? []) {
    if (thru !== 'none' && m!.thru !== thru)
      found.push({
        words: `Set ${m!.device.name} to pass on what comes in (${thru})`,
        edits: [{ edit: 'setMidi', device: stopper, midi: { ...m!.device.midi, thru } }],
      });
  }
  // A free output of something that the messages reach already.
  for (const up of [...(into ? [into.from.device] : []), sender]) {
    const from = freeOut(rig, up, 'midi');
    if (from && behind.type === 'midi') found.push(replugFix(rig, behind, from));
  }
  if (into?.medium === 'din' && behind.type === 'midi') {
    const swapped = reorderFix(rig, into.lead, behind);
    found.push(
      thruBoxFix(rig, into.lead, behind),
      ...(swapped ? [swapped] : []),
      mergeAroundFix(rig, into.lead, behind),
    );
  }
  const taken = new Set<string>();
  return found.filter(
    (f) => !taken.has(f.words) && taken.add(f.words) && works(rig, f.edits, sender, device),
  );
}
/** Connects two devices that can only follow to a box that leads. */
export function usbHostFix(rig: Rig, lead: Lead): Fix {
  const box = freshId(
    'usb-host',
    rig.devices.map((d) => d.id),
  );
  const usb = (e: End) => jackOf(sure(deviceOf(rig, e.device)), e.jack)?.usb;
  const ids = [0, 1].reduce<string[]>(
    (list) => [...list, freshId(`${box}-lead`, [...rig.leads.map((l) => l.id), ...list])],
    [],
  );
  return {
    words:
      usb(lead.from) === 'device'
        ? 'Put a USB MIDI host between them'
        : 'Take the lead out: two hosts cannot be joined',
    edits:
      usb(lead.from) === 'host'
        ? [{ edit: 'disconnect', lead: lead.id }]
        : [
            { edit: 'disconnect', lead: lead.id },
            { edit: 'addDevice', device: { id: box, kind: 'usb-midi-host', name: 'USB host' } },
            {
              edit: 'connect',
              lead: { ...lead, id: entryAt(ids, 0), to: { device: box, jack: 'usb1' } },
            },
            {
              edit: 'connect',
              lead: {
                ...lead,
                id: entryAt(ids, 1),
                from: { device: box, jack: 'usb2' },
                to: lead.to,
              },
            },
          ],
  };
}
