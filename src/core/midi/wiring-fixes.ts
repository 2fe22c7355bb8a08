import { sure, at as entryAt } from '../outcome';
import { byKey, nearestFirst } from '../graph';
import type { Fix } from '../findings/finding';
import { kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, endWords } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, End, Lead, Rig } from '../rig/schema';
import { circleOf } from './circle';
import { midiGraph, outJacks, reachIn, sendsOwn, type Way } from './graph';
import { allOf } from '../units';

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
 * anybody who leads or calls sounds sends; and whether messages do not go round by them.
 */
function works(rig: Rig, edits: readonly Edit[], sender: string, device: string): boolean {
  const done = applyEdits(rig, edits);
  if (!done.ok) return false;
  const [before, after] = [midiGraph(rig), midiGraph(done.value.rig)];
  return (
    reachIn(after, sender).has(device) &&
    (circleOf(before) !== undefined || circleOf(after) === undefined) &&
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

/** Where a lead could begin or end, with what has to be done for it first and what that is called. */
interface Footing {
  end: End;
  edits: Edit[];
  box?: string;
}

type Ids = ReturnType<typeof freshIds>;

const midiLead = (ids: Ids, from: End, to: End, metres: number): Edit => ({
  edit: 'connect',
  lead: { id: ids.lead('midi-lead'), from, to, type: 'midi', metres },
});
/** Puts a thru box, which sends anew what it gets, half way into a long lead. */
export function halfWayFix(rig: Rig, { id, from, to, metres }: Lead): Fix {
  const ids = freshIds(rig);
  const box = ids.device('thru-box');
  const half = (a: End, b: End): Edit => ({
    edit: 'connect',
    lead: { id: ids.lead('half-lead'), from: a, to: b, type: 'midi', metres: metres / 2 },
  });
  return {
    words: `Put a thru box half way to ${sure(deviceOf(rig, to.device)).name}`,
    edits: [
      { edit: 'disconnect', lead: id },
      boxOf(box, 'midi-thru-box', 'Thru box'),
      half(from, { device: box, jack: 'midiIn' }),
      half({ device: box, jack: 'thru1' }, to),
    ],
  };
}

const boxOf = (id: string, kind: string, name: string): Edit => ({
  edit: 'addDevice',
  device: { id, kind, name },
});

/**
 * Where a sender's messages can be had by a DIN lead, the least work first: at a free output of its
 * own or of something that passes them on already (a host, a merge, a thru box); behind a thru box on
 * the output that is taken; behind a host on its USB, where that is all it has.
 */
function beginnings(rig: Rig, sender: string, ids: Ids): Footing[] {
  const graph = midiGraph(rig);
  const m = graph.devices.get(sender);
  if (!m) return [];
  const onward = [sender, ...reachIn(graph, sender).keys()].flatMap((id): Footing[] => {
    const end = freeOut(rig, id, 'midi');
    return end ? [{ end, edits: [] }] : [];
  });
  const out = outJacks(m).find((j) => j.signal === 'midi' && sendsOwn(m, j));
  const taken = out && rig.leads.find((l) => l.from.device === sender && l.from.jack === out.id);
  const usb = m.kind.jacks.find((j) => j.usb === 'device');
  const behindThru = (held: Lead): Footing => {
    const box = ids.device('thru-box');
    return {
      end: { device: box, jack: 'thru2' },
      box: 'a thru box',
      edits: [
        { edit: 'disconnect', lead: held.id },
        boxOf(box, 'midi-thru-box', 'Thru box'),
        midiLead(ids, held.from, { device: box, jack: 'midiIn' }, 0.5),
        midiLead(ids, { device: box, jack: 'thru1' }, held.to, held.metres),
      ],
    };
  };
  const behindHost = (jack: string): Footing => {
    const box = ids.device('usb-host');
    const from = { device: sender, jack };
    const to = { device: box, jack: 'usb1' };
    const lead: Lead = { id: ids.lead('usb-lead'), from, to, type: 'usb', metres: 1 };
    return {
      end: { device: box, jack: 'midiOut' },
      box: 'a USB MIDI host',
      edits: [boxOf(box, 'usb-midi-host', 'USB host'), { edit: 'connect', lead }],
    };
  };
  return [
    ...onward,
    ...(taken ? [behindThru(taken)] : []),
    ...(!out && usb && !isUsed(rig, { device: sender, jack: usb.id }) ? [behindHost(usb.id)] : []),
  ];
}

/**
 * Where a DIN lead to a device can end: where what leads to it already begins with an open input; at
 * its own input; or in a merge box before it where that is taken.
 */
const endings = (rig: Rig, device: string, ids: Ids): Footing[] =>
  [headOf(rig, device), ending(rig, device, ids)].filter((end) => end !== undefined);

/**
 * The open MIDI input of the first box of the chain that leads to a device, where that box sends nothing
 * of its own.
 */
function headOf(rig: Rig, device: string): Footing | undefined {
  const { devices } = midiGraph(rig);
  const seen = new Set<string>();
  for (let at = device; !seen.has(at);) {
    seen.add(at);
    const m = devices.get(at);
    const input = m?.kind.jacks.find((j) => j.midi === 'in');
    const held = input && rig.leads.find((l) => l.to.device === at && l.to.jack === input.id);
    if (held) at = held.from.device;
    else if (!m || !input || at === device || outJacks(m).some((j) => sendsOwn(m, j)))
      return undefined;
    else return { end: { device: at, jack: input.id }, edits: [] };
  }
  return undefined;
}

function ending(rig: Rig, device: string, ids: Ids): Footing | undefined {
  const input = midiGraph(rig)
    .devices.get(device)
    ?.kind.jacks.find((j) => j.midi === 'in');
  if (!input) return undefined;
  const held = rig.leads.find((l) => l.to.device === device && l.to.jack === input.id);
  if (!held) return { end: { device, jack: input.id }, edits: [] };
  const merge = ids.device('merge-box');
  return {
    end: { device: merge, jack: 'in2' },
    box: 'a merge box',
    edits: [
      { edit: 'disconnect', lead: held.id },
      boxOf(merge, 'midi-merge', 'Merge box'),
      midiLead(ids, held.from, { device: merge, jack: 'in1' }, held.metres),
      midiLead(ids, { device: merge, jack: 'midiOut' }, { device, jack: input.id }, 0.5),
    ],
  };
}

/**
 * Brings a sender to a device that it is not wired to. Each way was tried on a copy: it brings the
 * messages there, takes none from anybody, and closes no circle.
 */
export function joinFix(rig: Rig, sender: string, device: string): Fix[] {
  const ids = freshIds(rig);
  const [from, to] = [deviceOf(rig, sender), deviceOf(rig, device)];
  if (!from || !to) return [];
  const ways = endings(rig, device, ids).flatMap((end) =>
    beginnings(rig, sender, ids).map((begin) => ({ begin, end })),
  );
  const found = ways.map(({ begin, end }): Fix => {
    const boxes = [begin.box, end.box].filter((b) => b !== undefined);
    const at = begin.end.device === sender || begin.box ? from : deviceOf(rig, begin.end.device);
    return {
      words:
        boxes.length && at === from
          ? `Join ${from.name} and ${to.name} with ${allOf(boxes)}`
          : `Run a MIDI lead from ${(at ?? from).name} to ${nameAt(rig, end, to)}` +
            boxes.map((b) => `, with ${b} before it`).join(''),
      edits: [...begin.edits, ...end.edits, midiLead(ids, begin.end, end.end, 2)],
    };
  });
  const good = found.find((f) => works(rig, f.edits, sender, device));
  return good ? [good] : [];
}

/** What a lead ends at, in words: the device, or the box that leads to it. */
const nameAt = (rig: Rig, { end }: Footing, to: Device): string =>
  (deviceOf(rig, end.device) ?? to).name;

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
