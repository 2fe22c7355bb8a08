import { sure } from '../outcome';
import { isEngaged, settingOf, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Send, WrittenMessage } from '../rig/midi-schema';
import type { Address, Rig, SettingValue, State } from '../rig/schema';
import type { Scene } from '../control/scene';
import { type MidiGraph, midiGraph, reachIn } from './graph';
import { type Message, MOST_FINE, wireMessages } from './message';
import type { Mapped, MidiDevice } from './setup';

/** A message that a sender gives for a scene, whom it is for, and whether a person wrote it. */
export interface Command {
  from: string;
  to?: string;
  message: Message;
  written: boolean;
  /** How long after the one before it in the list it goes out, in ms. */
  waitMs?: number;
  /** What the foot does that sends it; press where it is left out. */
  when?: Send['when'];
}

/** The program at which a device keeps a scene. */
export const addressIn = (scene: Scene, device: string): Address | undefined =>
  stateIn(scene.sound, device)?.program;

/** Value of a mapped setting in a scene. */
export function mappedValue(rig: Rig, scene: Scene, c: Mapped): SettingValue | undefined {
  const device = deviceOf(rig, c.device);
  if (!device) return undefined;
  const kind = kindOf(device.kind);
  const state: State | undefined = stateIn(scene.sound, c.device);
  return c.setting === 'engaged'
    ? isEngaged(kind, device, state)
    : settingOf(kind, device, state, c.setting);
}

/** The largest value that moves a setting, by what moves it: of seven bits or of fourteen. */
export const mostOf = (c: Mapped): number =>
  c.as === 'fine' || c.as === 'nrpn' || c.as === 'bend' ? MOST_FINE : 127;

/**
 * A setting's value as a message carries it, from 0 to the largest: switches either of them, knobs
 * from end to end, choices by their place.
 */
export function asCarried(rig: Rig, c: Mapped, value: SettingValue): number {
  const most = mostOf(c);
  if (typeof value === 'boolean') return value ? most : 0;
  const device = deviceOf(rig, c.device);
  const p = device && kindOf(device.kind).parameters.find((x) => x.id === c.setting);
  if (p?.type === 'knob') return Math.round((most * (Number(value) - p.min)) / (p.max - p.min));
  if (p?.type === 'choice')
    return Math.max(
      0,
      p.options.findIndex((o) => o.value === value),
    );
  return 0;
}

/** What a setting becomes by a value that a message carries; the inverse of `asCarried` up to its steps. */
export function fromCarried(rig: Rig, c: Mapped, value: number): SettingValue {
  const most = mostOf(c);
  if (c.setting === 'engaged') return value > most / 2;
  const device = deviceOf(rig, c.device);
  const p = device && kindOf(device.kind).parameters.find((x) => x.id === c.setting);
  if (p?.type === 'knob') return p.min + ((p.max - p.min) * value) / most;
  if (p?.type === 'choice') return (p.options[value] ?? sure(p.options.at(-1))).value;
  return value > most / 2;
}

/** Everything about who tells whom what: worked out once for a rig and its scenes. */
export interface Orders {
  rig: Rig;
  graph: MidiGraph;
  scenes: readonly Scene[];
  /** Who sends a device its messages. */
  commanderOf: ReadonlyMap<string, string>;
  /** Settings that control changes have to set, by device: those that differ between scenes. */
  needed: ReadonlyMap<string, Mapped[]>;
  /** What each sender gives for a scene, in order. */
  commands: (scene: Scene) => ReadonlyMap<string, Command[]>;
  /** Senders on which a person calls the scene: those that no other sender calls it on. */
  roots: (scene: Scene) => string[];
}

/**
 * Whether a device can be the one that tells others: it sends programs or control changes of its
 * own when a sound is called.
 */
const tells = (m: MidiDevice): boolean =>
  (m.commands || m.recalls) && m.sends.some((s) => s === 'program' || s === 'control');

/** Works out who sends what to whom when a scene is called. */
export function ordersOf(rig: Rig, scenes: readonly Scene[]): Orders {
  const graph = midiGraph(rig);
  const senders = [...graph.devices.values()].filter(tells);
  const commanderOf = commandersOf(rig, graph, senders, scenes);
  const needed = neededIn(rig, graph, scenes);
  const memory = new Map<string, ReadonlyMap<string, Command[]>>();
  const commands = (scene: Scene) => {
    const hit = memory.get(scene.id);
    if (hit) return hit;
    const lists = new Map<string, Command[]>();
    for (const { device } of senders) {
      const written = writtenBy(graph, device.id, scene);
      const list = written.length
        ? written
        : [...graph.devices.values()]
            .filter((m) => commanderOf.get(m.device.id) === device.id)
            .flatMap((m) => derived(rig, device.id, m, needed.get(m.device.id) ?? [], scene));
      if (list.length) lists.set(device.id, list);
    }
    memory.set(scene.id, lists);
    return lists;
  };
  const orders = { rig, graph, scenes, commanderOf, needed, commands };
  const roots = (scene: Scene) =>
    senders.filter((s) => isRoot(orders, senders, s, scene)).map((s) => s.device.id);
  return { ...orders, roots };
}

/** Who tells each device: the one that was chosen, where it can; else the nearest that can. */
function commandersOf(
  rig: Rig,
  graph: MidiGraph,
  senders: readonly MidiDevice[],
  scenes: readonly Scene[],
): Map<string, string> {
  // A switcher that no sound has a program on is never called, so it tells nobody anything.
  const isCalled = ({ device, commands }: MidiDevice) =>
    commands ||
    hasPrograms(scenes, device.id) ||
    rig.sounds.some((s) => s.sends?.some((x) => x.from === device.id));
  const commanderOf = new Map<string, string>();
  for (const { device } of graph.devices.values()) {
    const hopsFrom = (s: MidiDevice) => sure(reachIn(graph, s.device.id).get(device.id)).hops;
    const near = senders
      .filter(
        (s) =>
          s.device.id !== device.id && isCalled(s) && reachIn(graph, s.device.id).has(device.id),
      )
      .sort((a, b) => hopsFrom(a) - hopsFrom(b));
    const chosen = near.find((s) => s.device.id === device.midi?.commander) ?? near[0];
    if (chosen) commanderOf.set(device.id, chosen.device.id);
  }
  return commanderOf;
}

const hasPrograms = (scenes: readonly Scene[], id: string): boolean =>
  scenes.some((s) => addressIn(s, id) !== undefined);

/** Settings of each device without programs that differ between scenes and can be sent. */
function neededIn(rig: Rig, graph: MidiGraph, scenes: readonly Scene[]): Map<string, Mapped[]> {
  const needed = new Map<string, Mapped[]>();
  for (const m of graph.devices.values()) {
    if (!m.mapped.length || hasPrograms(scenes, m.device.id)) continue;
    const differing = m.mapped.filter(
      (c) => new Set(scenes.map((s) => JSON.stringify(mappedValue(rig, s, c)))).size > 1,
    );
    if (differing.length) needed.set(m.device.id, differing);
  }
  return needed;
}

/** What a sound says itself that a sender gives. */
const writtenBy = (graph: MidiGraph, from: string, scene: Scene): Command[] =>
  (scene.sound.sends ?? [])
    .filter((x) => x.from === from)
    .flatMap(({ to, message, waitMs, times = 1, when }) =>
      Array.from({ length: times }, () =>
        wireMessages(
          message,
          (to && graph.devices.get(to)?.bank) ||
            (message.type === 'program' ? bankOfListener(graph, from, message.channel) : 'none'),
        ).map(
          // A bank and its program go out as one.
          (sent, i): Command => ({
            from,
            to,
            message: sent,
            written: true,
            ...(waitMs && i === 0 && { waitMs }),
            ...(when && when !== 'press' && { when }),
          }),
        ),
      ).flat(),
    );

/** What sends a message, in words. */
export const WHEN_WORDS: Record<NonNullable<Send['when']>, string> = {
  press: 'press',
  release: 'release',
  long: 'long press',
};

/** How long a foot stays on a switch that it presses, and how long it has to for a long press, in ms: usual. */
export const PRESS_MS = 150;
export const LONG_PRESS_MS = 600;

/**
 * Who calls a list: a foot that presses and lets go, one that stays for a long press, or a message from
 * elsewhere, which knows neither release nor long press.
 */
export type CalledBy = 'foot' | 'held foot' | 'message';

/**
 * The messages of a list with how long after its first moment each goes out, in ms: what a press sends,
 * then what a long press does, then what a release does, each with the waits between them.
 */
export function timed(
  list: readonly Command[],
  by: CalledBy = 'foot',
): { message: Message; afterMs: number }[] {
  const up = by === 'held foot' ? LONG_PRESS_MS + PRESS_MS : PRESS_MS;
  const from = { press: 0, long: LONG_PRESS_MS, release: up };
  const counts = {
    press: true,
    long: by === 'held foot',
    release: by !== 'message',
  };
  return (['press', 'long', 'release'] as const).flatMap((when) => {
    let afterMs = from[when];
    return list
      .filter((c) => counts[when] && (c.when ?? 'press') === when)
      .map(({ message, waitMs = 0 }) => ({ message, afterMs: (afterMs += waitMs) }));
  });
}

/** What a device has to be told for a scene: its program, or the settings that differ. */
function derived(
  rig: Rig,
  from: string,
  m: MidiDevice,
  needed: readonly Mapped[],
  scene: Scene,
): Command[] {
  const channel = m.channel === 'all' ? 1 : m.channel;
  const to = m.device.id;
  const address = m.programs ? addressIn(scene, to) : undefined;
  if (address)
    return wireMessages(
      { type: 'program', channel, ...address },
      m.bank === 'none' && address.bank !== undefined ? 'none' : m.bank,
    ).map((message) => ({ from, to, message, written: false }));
  return needed.flatMap((c): Command[] => {
    const value = mappedValue(rig, scene, c);
    // A device that each message flips is told once where it should be on: a sender cannot know how
    // it stands.
    if (value === undefined || (c.way === 'toggle' && value !== true)) return [];
    const sent = c.way === 'toggle' ? mostOf(c) : asCarried(rig, c, value);
    return wireMessages(carrying(c, channel, sent), 'none').map((message) => ({
      from,
      to,
      message,
      written: false,
    }));
  });
}

/** The message that moves a setting to a value, as a person would write it. */
function carrying({ as, cc }: Mapped, channel: number, value: number): WrittenMessage {
  switch (as) {
    case 'control':
      return { type: 'control', channel, cc, value };
    case 'fine':
      return { type: 'fine', channel, cc, value };
    case 'nrpn':
      return { type: 'nrpn', channel, parameter: cc, value };
    case 'note':
      return value > 0
        ? { type: 'note-on', channel, note: cc, velocity: value }
        : { type: 'note-off', channel, note: cc };
    case 'bend':
      return { type: 'bend', channel, bend: value - (MOST_FINE + 1) / 2 };
    case 'pressure':
      return { type: 'pressure', channel, pressure: value };
  }
}

/** Whether a person calls a scene on a sender, since no other sender calls it there. */
function isRoot(
  { graph, commands }: Pick<Orders, 'graph' | 'commands'>,
  senders: readonly MidiDevice[],
  m: MidiDevice,
  scene: Scene,
): boolean {
  const id = m.device.id;
  const gives = commands(scene).has(id);
  if (m.commands || !m.recalls) return gives;
  const isCalled = senders.some(
    (s) =>
      s.device.id !== id &&
      (commands(scene).get(s.device.id) ?? []).some(
        (c) =>
          c.message.type === 'program' &&
          hears(m, c.message.channel) &&
          (c.to === undefined || c.to === id) &&
          reachIn(graph, s.device.id).has(id),
      ),
  );
  return (gives || addressIn(scene, id) !== undefined) && !isCalled;
}

/** Whether a device listens on a channel. */
export const hears = (m: MidiDevice, channel: number): boolean =>
  m.channel === 'all' || m.channel === channel;

/** How whoever listens on a channel behind a sender takes a bank. */
const bankOfListener = (graph: MidiGraph, sender: string, channel: number) =>
  [...reachIn(graph, sender).keys()]
    .map((id) => graph.devices.get(id))
    .find((m) => m && m.programs && hears(m, channel))?.bank ?? 'none';
