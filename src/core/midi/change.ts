import { sure } from '../outcome';
import { kindOf } from '../kinds';
import type { Rig, SettingValue } from '../rig/schema';
import { allScenes, type Scene } from '../control/scene';
import { addressIn, mappedValue, type Orders, ordersOf, timed } from './commands';
import { clockJitter, type Jitter, runBus, type Traffic } from './bus';
import {
  copyOf,
  type Effect,
  type Machine,
  type Standing,
  type Memory,
  memoryOf,
  standingIn,
  take,
} from './stand-in';
import { type Message } from './message';
import type { MidiDevice } from './setup';

/** A simulated bus with the devices on it, ready to run changes. */
export interface Stage {
  orders: Orders;
  memory: Memory;
  scene: (id: string) => Scene | undefined;
}

/** Sets the stage: scenes default to all sounds and what songs make of them. */
export function setStage(rig: Rig, scenes: readonly Scene[] = allScenes(rig)): Stage {
  const orders = ordersOf(rig, scenes);
  const byId = new Map(scenes.map((s) => [s.id, s]));
  return { orders, memory: memoryOf(orders), scene: (id) => byId.get(id) };
}

/**
 * What a message did, and when it had done it: the time its last byte arrived and the device's own
 * response.
 */
export interface Landing {
  device: string;
  at: number;
  arrived: number;
  effect: Effect;
  message: Message;
  silentFrom?: number;
}

/**
 * Why something is not as the scene wants it: nothing told the device, a flip went the wrong way, it
 * was called at a number that is another's or nobody's, it keeps the scene nowhere, a message for
 * another device moved it, a program that loaded meanwhile went over it, no message moves this of it,
 * no message reaches it at all, or messages go round without end.
 */
export type Because =
  | 'missed'
  | 'toggled'
  | 'wrong program'
  | 'no program'
  | 'unknown program'
  | 'meant for another'
  | 'overwritten'
  | 'not sent'
  | 'by hand'
  | 'endless';

/** The key of the program that a device stands on, beside those of its settings. */
export const programKey = (device: string): string => `${device} program`;

/** A setting, or the program that a device stands on, that is not what the scene wants, and why. */
export interface Mismatch {
  device: string;
  key: string;
  wanted: SettingValue;
  got: SettingValue | undefined;
  because: Because;
}

/** A change of sound as it happens. Times in ms from the press. */
export interface Change {
  from: string;
  to: string;
  /** Senders on which something is pressed. */
  pressed: string[];
  traffic: Traffic;
  landings: Landing[];
  /** When the last device is in place. */
  doneMs: number;
  /** Devices in the order in which they are in place. */
  order: { device: string; at: number }[];
  /** How long at least one device in place of the old sound is silent while it loads. */
  silentMs: number;
  end: Machine;
  mismatches: Mismatch[];
  jitter: Jitter[];
}

export interface ChangeOptions {
  bpm?: number;
  start?: Machine;
  quiet?: boolean;
  pressed?: readonly string[];
  /** Where between two ticks of the clock the press falls, as a share; unsaid, all are looked at for jitter. */
  phase?: number;
}

/** Devices whose state MIDI sets in a scene: they are told by somebody, or are called on themselves. */
export function underMidi({ orders }: Stage, scene: Scene): string[] {
  const roots = orders.roots(scene);
  return [...orders.graph.devices.keys()].filter(
    (id) => roots.includes(id) || orders.commanderOf.has(id),
  );
}

/**
 * A scene is called on a device itself: it goes to the program of that scene, and sends its list
 * when it is there. None where it holds no programs, or none for that scene.
 */
function pressOn(
  { orders, memory }: Stage,
  m: MidiDevice,
  standing: Standing,
  to: Scene,
): Landing | undefined {
  const address = addressIn(to, m.device.id);
  if (!m.recalls || !address) return undefined;
  standing.bank = address.bank ?? 0;
  const { number } = address;
  const effect = take(orders, memory, m, standing, {
    type: 'program',
    channel: m.channel === 'all' ? 1 : m.channel,
    number,
  });
  return {
    device: m.device.id,
    at: m.programMs,
    arrived: 0,
    effect,
    message: { type: 'program', channel: 1, number },
    silentFrom: m.gapMs > 0 ? m.programMs - m.gapMs : undefined,
  };
}

/** Calls a scene on the simulated rig, from the states of another, and lets everything land. */
export function runChange(
  stage: Stage,
  from: Scene,
  to: Scene,
  options: ChangeOptions = {},
): Change {
  const { orders, memory } = stage;
  const { graph } = orders;
  const machine = options.start ? copyOf(options.start) : standingIn(orders, memory, from);
  const pressed = options.pressed ?? orders.roots(to);
  const landings: Landing[] = [];
  const sent: { device: string; at: number; message: Message }[] = [];
  const touched = new Map<string, Set<string>>();
  const because = new Map<string, Because>();
  const recall = (device: string, scene: Scene) => timed(orders.commands(scene).get(device) ?? []);
  for (const id of pressed) {
    const m = sure(graph.devices.get(id));
    const called = pressOn(stage, m, sure(machine.get(id)), to);
    if (called) {
      landings.push(called);
      touched.set(id, new Set(['program']));
    }
    for (const { message, afterMs } of recall(id, to))
      sent.push({ device: id, at: (called?.at ?? 0) + afterMs, message });
  }
  const clockSenders = [...graph.devices.values()]
    .filter((m) => m.clock === 'send')
    .map((m) => m.device.id);
  const every = options.bpm ? 60_000 / options.bpm / 24 : 0;
  const traffic = runBus(graph, sent, {
    quiet: options.quiet,
    bpm: options.bpm,
    clockSenders,
    clockFrom: -every * (options.phase ?? 0),
    clockUntil: options.bpm ? Math.max(every * 24, 200) : 0,
    onReceive: (r) => {
      const m = sure(graph.devices.get(r.device));
      const standing = sure(machine.get(r.device));
      const effect = take(orders, memory, m, standing, r.message);
      if (effect.what === 'nothing') return undefined;
      const ms = msUntilDone(m, effect);
      landings.push({
        device: r.device,
        at: r.at + ms,
        arrived: r.at,
        effect,
        message: r.message,
        silentFrom: effect.what === 'program' && m.gapMs > 0 ? r.at + ms - m.gapMs : undefined,
      });
      noteEffect(r.device, effect, touched, because);
      if (effect.what === 'program' && m.recalls) {
        return recall(r.device, effect.recalled).map(({ message, afterMs }) => ({
          message,
          afterMs: ms + afterMs,
        }));
      }
      return undefined;
    },
  });
  landings.sort((a, b) => a.at - b.at);
  const end = landed(stage, options.start ?? standingIn(orders, memory, from), landings, because);
  const last = new Map<string, number>();
  for (const l of landings) if (l.effect.what !== 'bank') last.set(l.device, l.at);
  return {
    from: from.id,
    to: to.id,
    pressed: [...pressed],
    traffic,
    landings,
    doneMs: Math.max(0, ...last.values()),
    order: [...last].map(([device, at]) => ({ device, at })).sort((a, b) => a.at - b.at),
    silentMs: unionMs(
      landings.flatMap((l) =>
        l.silentFrom === undefined ? [] : [[Math.max(0, l.silentFrom), l.at] as const],
      ),
    ),
    end,
    mismatches: mismatchesOf(stage, to, end, touched, because),
    jitter: jitterOf(stage, from, to, options, traffic),
  };
}

/** Phases of the press that are looked at for jitter, evenly between two ticks. */
const PHASES = 8;

/**
 * Clock jitter at each device: the worst that it is wherever between two ticks the press falls, and
 * what it is on average over all of them.
 */
function jitterOf(
  stage: Stage,
  from: Scene,
  to: Scene,
  options: ChangeOptions,
  traffic: Traffic,
): Jitter[] {
  const { bpm } = options;
  if (!bpm) return [];
  const here = clockJitter(traffic, bpm);
  if (options.phase !== undefined) return here;
  const others = Array.from(
    { length: PHASES - 1 },
    (_, k) =>
      runChange(stage, from, to, { ...options, phase: (k + 1) / PHASES, quiet: true }).jitter,
  );
  return here.map((j) => {
    const all = [j, ...others.flatMap((o) => o.filter((x) => x.device === j.device))];
    return {
      ...j,
      worstMs: Math.max(...all.map((x) => x.worstMs)),
      typicalMs: all.reduce((sum, x) => sum + x.typicalMs, 0) / all.length,
    };
  });
}

/** How long after it was read a message has done what it does, in ms. */
const msUntilDone = (m: MidiDevice, { what }: Effect): number =>
  what === 'control' ? m.controlMs : what === 'bank' ? 0 : m.programMs;

/**
 * The rig once everything has landed, in the order in which it does, whatever order it was sent in: a
 * program that lands late goes over what a control set while it loaded. Notes which settings those are.
 */
function landed(
  { memory }: Stage,
  start: Machine,
  landings: readonly Pick<Landing, 'device' | 'at' | 'effect'>[],
  because: Map<string, Because>,
): Machine {
  const machine = copyOf(start);
  const set = new Map<string, Map<string, SettingValue>>();
  for (const { device, effect } of landings) {
    const standing = machine.get(device);
    if (!standing) continue;
    // A bank that was told stays told: the next program is looked for there.
    if ('bank' in effect) standing.bank = effect.bank;
    if (effect.what === 'program' || effect.what === 'unknown') {
      standing.program = { bank: effect.bank, number: effect.number };
      if (effect.what === 'unknown') continue;
      standing.values = memory.intent(effect.recalled, device);
      for (const [key, value] of set.get(device) ?? [])
        if (standing.values.get(key) !== value) because.set(key, 'overwritten');
      set.delete(device);
    } else if (effect.what === 'control') {
      const { setting, toggled } = effect;
      const value = toggled ? standing.values.get(setting) !== true : effect.value;
      standing.values = new Map(standing.values).set(setting, value);
      set.set(device, (set.get(device) ?? new Map<string, SettingValue>()).set(setting, value));
    }
  }
  return machine;
}

/** Length of a union of intervals. */
function unionMs(intervals: (readonly [number, number])[]): number {
  let total = 0;
  let until = -Infinity;
  for (const [a, b] of intervals.sort((x, y) => x[0] - y[0])) {
    total += Math.max(0, b - Math.max(a, until));
    until = Math.max(until, b);
  }
  return total;
}

/** Values that a 7-bit control change cannot tell apart are the same. */
function agree(
  rig: Rig,
  key: string,
  wanted: SettingValue,
  got: SettingValue | undefined,
): boolean {
  if (wanted === got) return true;
  if (typeof wanted !== 'number' || typeof got !== 'number') return false;
  const [id, setting] = key.split(' ');
  const device = rig.devices.find((d) => d.id === id);
  const p = device && kindOf(device.kind).parameters.find((x) => x.id === setting);
  return p?.type === 'knob' && Math.abs(wanted - got) <= (p.max - p.min) / 127 / 1.9;
}

/** What of the devices under MIDI is not as the scene wants it. */
export function mismatchesOf(
  stage: Stage,
  to: Scene,
  machine: Machine,
  touched: ReadonlyMap<string, ReadonlySet<string>>,
  because: ReadonlyMap<string, Because>,
): Mismatch[] {
  const { orders, memory } = stage;
  const found: Mismatch[] = [];
  for (const id of underMidi(stage, to)) {
    const m = sure(orders.graph.devices.get(id));
    const standing = sure(machine.get(id));
    const intent = memory.intent(to, id);
    found.push(...programMismatch(to, m, standing, touched, because));
    if (intent === standing.values && addressIn(to, id)) continue;
    const keepsPrograms = m.programs && orders.scenes.some((s) => addressIn(s, id) !== undefined);
    if (keepsPrograms && !addressIn(to, id)) {
      const differing = [...intent].filter(
        ([key, wanted]) => !agree(orders.rig, key, wanted, standing.values.get(key)),
      );
      found.push(
        ...differing.map(([key, wanted]): Mismatch => ({
          device: id,
          key,
          wanted,
          got: standing.values.get(key),
          because: 'no program',
        })),
      );
      continue;
    }
    const keys = keepsPrograms
      ? [...intent.keys()]
      : (orders.needed.get(id) ?? []).map((c) => `${c.device} ${c.setting}`);
    for (const key of keys) {
      const wanted =
        intent.get(key) ??
        mappedValue(orders.rig, to, sure(m.mapped.find((c) => `${c.device} ${c.setting}` === key)));
      const got = standing.values.get(key);
      if (wanted === undefined || agree(orders.rig, key, wanted, got)) continue;
      const told = touched.get(id);
      const why =
        because.get(key) ??
        (keepsPrograms ? because.get(`${id} program`) : undefined) ??
        (keepsPrograms && told?.has('program')
          ? 'wrong program'
          : orders.commanderOf.has(id) && !told?.has(key) && toggles(m, key)
            ? 'toggled'
            : 'missed');
      found.push({ device: id, key, wanted, got, because: why });
    }
  }
  return [...found, ...meddled(stage, to, machine, touched, found)];
}

/** The program that a device stands on, where it is not the one at which it keeps the scene. */
export function programMismatch(
  to: Scene,
  m: MidiDevice,
  { program }: Standing,
  touched?: ReadonlyMap<string, ReadonlySet<string>>,
  because?: ReadonlyMap<string, Because>,
): Mismatch[] {
  const { id } = m.device;
  const wanted = addressIn(to, id);
  const bank = (a: { bank?: number }) => (m.bank === 'none' ? 0 : (a.bank ?? 0));
  if (!m.programs || !wanted) return [];
  if (program && program.number === wanted.number && bank(program) === bank(wanted)) return [];
  const words = (a: { bank?: number; number: number }) =>
    m.bank === 'none' ? `${a.number}` : `${bank(a)}/${a.number}`;
  return [
    {
      device: id,
      key: programKey(id),
      wanted: words(wanted),
      got: program && words(program),
      because:
        because?.get(programKey(id)) ??
        (touched?.get(id)?.has('program') ? 'wrong program' : 'missed'),
    },
  ];
}

/** What a message that was for another device has moved away from what the scene wants. */
function meddled(
  { orders, memory }: Stage,
  to: Scene,
  machine: Machine,
  touched: ReadonlyMap<string, ReadonlySet<string>>,
  known: readonly Mismatch[],
): Mismatch[] {
  return [...touched].flatMap(([id, keys]) => {
    const intent = memory.intent(to, id);
    const standing = machine.get(id);
    return [...keys].flatMap((key): Mismatch[] => {
      const wanted = intent.get(key);
      const got = standing?.values.get(key);
      const isKnown = known.some((k) => k.device === id && k.key === key);
      return isKnown || wanted === undefined || agree(orders.rig, key, wanted, got)
        ? []
        : [{ device: id, key, wanted, got, because: 'meant for another' }];
    });
  });
}

const toggles = (
  m: NonNullable<ReturnType<Orders['graph']['devices']['get']>>,
  key: string,
): boolean => m.mapped.some((c) => `${c.device} ${c.setting}` === key && c.way === 'toggle');

/**
 * A change as another one from elsewhere to the same scene went: what was received, and what was
 * recalled by it.
 */
export interface Recording {
  received: Traffic['received'];
  recalled: (string | undefined)[];
  pressed: readonly string[];
  doneMs: number;
}

/** Notes how a change went, to be played again from other states. */
export function record(stage: Stage, change: Change): Recording {
  const at = new Map(change.landings.map((l) => [`${l.device} ${l.arrived}`, l]));
  return {
    received: change.traffic.received,
    pressed: change.pressed,
    doneMs: change.doneMs,
    recalled: change.traffic.received.map((r) => {
      const l = at.get(`${r.device} ${r.at}`);
      return l?.effect.what === 'program' && sure(stage.orders.graph.devices.get(r.device)).recalls
        ? l.effect.recalled.id
        : undefined;
    }),
  };
}

/**
 * What a change leaves unlike the scene, from the states of another, by playing again what was
 * received. The bus carries the same whatever the devices were doing, unless a program that a
 * sender recalls is another one: then nothing is given, and the change has to be run.
 */
export function replay(
  stage: Stage,
  from: Scene,
  to: Scene,
  recording: Recording,
): Pick<Change, 'mismatches' | 'end'> | undefined {
  const { orders, memory } = stage;
  const start = standingIn(orders, memory, from);
  const machine = copyOf(start);
  const landings: Pick<Landing, 'device' | 'at' | 'effect'>[] = [];
  const touched = new Map<string, Set<string>>();
  const because = new Map<string, Because>();
  for (const id of recording.pressed) {
    const m = sure(orders.graph.devices.get(id));
    const address = addressIn(to, id);
    if (!m.recalls || !address) continue;
    sure(machine.get(id)).bank = address.bank ?? 0;
    const effect = take(orders, memory, m, sure(machine.get(id)), {
      type: 'program',
      channel: m.channel === 'all' ? 1 : m.channel,
      number: address.number,
    });
    landings.push({ device: id, at: m.programMs, effect });
    touched.set(id, new Set(['program']));
  }
  for (const [i, r] of recording.received.entries()) {
    const m = sure(orders.graph.devices.get(r.device));
    const effect = take(orders, memory, m, sure(machine.get(r.device)), r.message);
    if (
      m.recalls &&
      (effect.what === 'program' ? effect.recalled.id : undefined) !== recording.recalled[i]
    )
      return undefined;
    if (effect.what !== 'nothing')
      landings.push({ device: r.device, at: r.at + msUntilDone(m, effect), effect });
    noteEffect(r.device, effect, touched, because);
  }
  landings.sort((a, b) => a.at - b.at);
  const end = landed(stage, start, landings, because);
  return { mismatches: mismatchesOf(stage, to, end, touched, because), end };
}

/** Remembers what a message touched, and how it would have gone wrong. */
function noteEffect(
  device: string,
  effect: Effect,
  touched: Map<string, Set<string>>,
  because: Map<string, Because>,
): void {
  if (effect.what === 'nothing') return;
  const mine = touched.get(device) ?? new Set();
  touched.set(device, mine);
  mine.add(effect.what === 'control' ? effect.setting : 'program');
  if (effect.what === 'control') because.set(effect.setting, effect.toggled ? 'toggled' : 'missed');
  if (effect.what === 'unknown') because.set(`${device} program`, 'unknown program');
}
