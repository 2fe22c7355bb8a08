import { walkOrder } from '../walk';
import { effectiveSound, heardIn } from '../control';
import { kindOf, settingWith } from '../kinds';
import { midiGraph, midiOf, outJacks, type Presses, pressesBetween, reachIn } from '../midi';
import type { MidiGraph } from '../midi/graph';
import type { MidiDevice } from '../midi/setup';
import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import { cutText } from '../rig';
import { applyEdits } from '../rig/apply';
import { isEngaged, resolveState, stateIn } from '../rig/device-state';
import type { Edit } from '../rig/edits';
import { deviceOf, leadInto, nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Assignment, Device, End, Rig, Sound } from '../rig/schema';
import { showChange } from '../units';

/**
 * A way to bring a change down to one press: what to do, as edits, what it then takes, and what it
 * changes at the destinations.
 */
export interface OnePress {
  words: string;
  why: string;
  edits: Edit[];
  before: Presses;
  after: Presses;
  changes: string[];
}

const count = (p: Presses): number => p.presses.length + p.turns.length;

/**
 * Ways to bring a wanted change down to one press, fewest left-over presses first; each was tried
 * on a copy, and those that gain nothing are left out.
 */
export function proposeOnePress(rig: Rig, from: string, to: string): Outcome<OnePress[]> {
  const [a, b] = [from, to].map((id) => rig.sounds.find((s) => s.id === id));
  if (!a || !b) return refused('One of the two sounds is not in this rig.');
  const before = pressesBetween(rig, a, b);
  if (count(before) <= 1)
    return refused(
      `From ${a.name} to ${b.name} it takes ${count(before) === 0 ? 'nothing' : 'one press'} as it is.`,
    );
  const tries = [
    byControl(rig, a, b, before),
    byMessages(rig, before),
    byLoops(rig, before),
    byLoopsAndMessages(rig, before),
  ];
  const found = tries
    .flatMap((t): OnePress[] => {
      const made = t && applyEdits(rig, t.edits);
      if (!t || !made?.ok) return [];
      const after = pressesBetween(
        made.value.rig,
        ...([a, b].map((s) => sure(made.value.rig.sounds.find((x) => x.id === s.id))) as [
          Sound,
          Sound,
        ]),
      );
      return count(after) < count(before)
        ? [{ ...t, before, after, changes: audible(rig, made.value.rig) }]
        : [];
    })
    .sort((x, y) => count(x.after) - count(y.after) || x.edits.length - y.edits.length);
  return found.length
    ? done(found)
    : refused(
        `Nothing in this rig brings ${a.name} to ${b.name} below ${count(before)} presses: ` +
          'what has to change is neither in a loop, nor in a host, nor set by messages, and ' +
          'cannot be put there.',
      );
}

/** What edits change at the destinations, in any sound, in words. */
function audible(before: Rig, after: Rig): string[] {
  const found: string[] = [];
  for (const s of before.sounds) {
    const [one, two] = [
      heardIn(before, effectiveSound(before, s)),
      heardIn(after, effectiveSound(after, sure(after.sounds.find((x) => x.id === s.id)))),
    ];
    for (const d of one) {
      const e = two.find((x) => x.device === d.device);
      const [x, y] = [d.levelDbu?.normal ?? null, e?.levelDbu?.normal ?? null];
      if ((x === null) !== (y === null))
        found.push(`${d.name} ${y === null ? 'falls silent' : 'is heard'} in ${s.name}`);
      else if (x !== null && y !== null && Math.abs(y - x) > 0.3)
        found.push(`${d.name} ${showChange(y - x)} in ${s.name}`);
    }
  }
  return found;
}

type Try = Pick<OnePress, 'words' | 'why' | 'edits'>;

/** The outermost device around a block. */
const outer = (rig: Rig, d: Device): Device =>
  d.host === undefined ? d : outer(rig, sure(deviceOf(rig, d.host)));

/**
 * A switch whose assignments move everything that differs: inside one host, or over control changes
 * from a controller that reaches all of it.
 */
function byControl(rig: Rig, a: Sound, b: Sound, before: Presses): Try | undefined {
  const moved = rig.devices.filter(
    (d) =>
      before.presses.some((p) => p.device === d.id || p.device === outer(rig, d).id) ||
      before.turns.some((t) => t.device === d.id),
  );
  const assigns: Assignment[] = [];
  const graph = midiGraph(rig);
  const sender = [...graph.devices.values()].find(
    (m) => m.commands && moved.some((d) => reachIn(graph, m.device.id).has(outer(rig, d).id)),
  );
  for (const d of moved) {
    const kind = kindOf(d.kind);
    const m = midiOf(outer(rig, d));
    const can = (setting: string) =>
      d.host !== undefined ||
      (sender !== undefined &&
        reachIn(graph, sender.device.id).has(d.id) &&
        (m?.mapped.some(
          (c) => c.device === d.id && c.setting === setting && c.way === 'absolute',
        ) ??
          false));
    const [x, y] = [stateIn(a, d.id), stateIn(b, d.id)];
    const add = (
      setting: string,
      off: string | number | boolean,
      on: string | number | boolean,
    ) => {
      if (off !== on && can(setting))
        assigns.push({
          id: freshId(
            `${d.id}-${setting}`,
            assigns.map((q) => q.id),
          ),
          device: d.id,
          setting,
          off,
          on,
        });
    };
    if (!kind.alwaysOn) add('engaged', isEngaged(kind, d, x), isEngaged(kind, d, y));
    const [before_, after_] = [resolveState(kind, d, x), resolveState(kind, d, y)];
    for (const p of kind.parameters) {
      if (p.type === 'knob') add(p.id, before_.knob(p.id), after_.knob(p.id));
      else if (p.type === 'choice') add(p.id, before_.choice(p.id), after_.choice(p.id));
      else if (p.type === 'switch') add(p.id, before_.on(p.id), after_.on(p.id));
    }
  }
  const host = moved
    .map((d) => outer(rig, d))
    .find((d) => d.id !== sender?.device.id && kindOf(d.kind).switches);
  const at = sender?.device ?? host;
  if (assigns.length < 2 || !at) return undefined;
  const id = freshId(
    `${b.name} switch`,
    (rig.controls ?? []).map((c) => c.id),
  );
  return {
    words: `Put ${assigns.length} assignments on one switch of ${at.name}`,
    why:
      `${[...new Set(assigns.map((x) => nameOf(rig, x.device)))].join(', ')} can be moved ` +
      `together: off is ${a.name}, on is ${b.name}.`,
    edits: [
      {
        edit: 'addControl',
        control: {
          id,
          name: cutText(`${a.name} / ${b.name}`, 120),
          type: 'switch',
          device: at.id,
          action: 'latching',
          assigns,
        },
      },
      { edit: 'setPosition', sound: a.id, control: id, at: false },
      { edit: 'setPosition', sound: b.id, control: id, at: true },
    ],
  };
}

/**
 * Lets a controller call what knows MIDI and is not called yet: a lead, a channel of its own, and a
 * program for each sound.
 */
function byMessages(rig: Rig, before: Presses): Try | undefined {
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

/** Devices on the walk that are switched by themselves, know no MIDI and can stand in a loop. */
const loopable = (rig: Rig, before: Presses): Device[] => {
  const order = walkOrder(rig);
  return [...new Set(before.presses.map((p) => p.device))]
    .map((id) => sure(deviceOf(rig, id)))
    .filter(
      (d) =>
        d.host === undefined &&
        !midiOf(d) &&
        kindOf(d.kind).through &&
        !kindOf(d.kind).alwaysOn &&
        !kindOf(d.kind).earth &&
        leadInto(rig, d.id, kindOf(d.kind).through!.in),
    )
    .sort((x, y) => order.indexOf(x.id) - order.indexOf(y.id));
};

/**
 * Puts what is switched by hand into loops of a switcher with programs, one that is there or a new
 * one where the first of them stands.
 */
function byLoops(rig: Rig, before: Presses): Try | undefined {
  const devices = loopable(rig, before);
  if (!devices.length) return undefined;
  const free = (d: Device) =>
    (kindOf(d.kind).loops ?? []).filter(
      (l) =>
        !rig.leads.some(
          (x) =>
            (x.from.device === d.id && l.send.includes(x.from.jack)) ||
            (x.to.device === d.id && l.return.includes(x.to.jack)),
        ),
    );
  const there = rig.devices.find(
    (d) =>
      settingWith(kindOf(d.kind), 'loop order') &&
      d.host === undefined &&
      free(d).length >= devices.length,
  );
  const edits: Edit[] = [];
  const ids: string[] = rig.leads.map((l) => l.id);
  const lead = (word: string) => {
    const id = freshId(word, ids);
    ids.push(id);
    return id;
  };
  const switcher =
    there?.id ??
    freshId(
      'loop-switcher',
      rig.devices.map((d) => d.id),
    );
  const loops = there ? free(there) : (kindOf('loop-switcher').loops ?? []);
  if (loops.length < devices.length) return undefined;
  const first = entryAt(devices, 0);
  if (!there) {
    const into = sure(leadInto(rig, first.id, kindOf(first.kind).through!.in));
    edits.push({
      edit: 'insertInLead',
      lead: into.id,
      device: { id: switcher, kind: 'loop-switcher', name: 'Loop switcher', place: 'floor' },
      newLeads: [lead('switcher'), lead('switcher')],
    });
  }
  const number = new Map(
    devices.map((d, i) => [d.id, Number(entryAt(loops, i).id.replace(/\D/g, ''))]),
  );
  for (const [i, d] of devices.entries()) {
    const way = lead(`loop-${d.id}`);
    edits.push({
      edit: 'connect',
      lead: {
        id: way,
        from: { device: switcher, jack: entryAt(entryAt(loops, i).send, 0) },
        to: { device: switcher, jack: entryAt(entryAt(loops, i).return, 0) },
        type: entryAt(loops, i).send.length > 1 ? 'stereo' : 'instrument',
        metres: 0.5,
      },
    });
    edits.push({
      edit: 'moveDevice',
      device: d.id,
      lead: way,
      newLeads: [lead(`loop-${d.id}`), lead(`loop-${d.id}`)],
    });
    edits.push({ edit: 'setEngaged', device: d.id, engaged: true });
  }
  for (const s of rig.sounds) {
    const on = devices
      .filter((d) => isEngaged(kindOf(d.kind), d, stateIn(s, d.id)))
      .map((d) => sure(number.get(d.id)));
    const was = there
      ? String(stateIn(s, there.id)?.settings?.order ?? there.settings?.order ?? '')
      : '';
    edits.push({
      edit: 'setSetting',
      device: switcher,
      sound: s.id,
      setting: 'order',
      value: [was, ...on].filter((x) => x !== '').join(' '),
    });
    for (const d of devices)
      edits.push({ edit: 'setEngaged', device: d.id, sound: s.id, engaged: true });
  }
  return {
    words: `Put ${devices.map((d) => d.name).join(', ')} into loops of ${there?.name ?? 'a loop switcher'}`,
    why: 'They stay on, and each sound says which loops are in: the switcher changes all of them at once.',
    edits,
  };
}

/**
 * Both together: pedals into loops, and the switcher and whatever else knows MIDI called by one
 * controller.
 */
function byLoopsAndMessages(rig: Rig, before: Presses): Try | undefined {
  const loops = byLoops(rig, before);
  const made = loops && applyEdits(rig, loops.edits);
  if (!loops || !made?.ok) return undefined;
  const first = loops.edits.find((e) => e.edit === 'insertInLead');
  const switcher =
    first?.edit === 'insertInLead'
      ? first.device.id
      : rig.devices.find((d) => settingWith(kindOf(d.kind), 'loop order'))?.id;
  const rest = {
    presses: [
      ...before.presses.filter((p) => deviceOf(made.value.rig, p.device)),
      ...(switcher ? [{ device: switcher, changes: [] }] : []),
    ],
    turns: before.turns,
  };
  const messages = byMessages(made.value.rig, rest);
  return (
    messages && {
      words: `${loops.words}, and let it be called with the rest`,
      why: `${loops.why} ${messages.why}`,
      edits: [...loops.edits, ...messages.edits],
    }
  );
}
