import { sure } from '../outcome';
import { type Scene } from '../control/scene';
import { addressIn, type CalledBy, timed } from './commands';
import { clockJitter, type Jitter, runBus, type Traffic } from './bus';
import { copyOf, type Machine, type Standing, standingIn, take } from './stand-in';
import { type Message } from './message';
import type { MidiDevice } from './setup';
import { type Stage } from './stage';
import { type Landing, msUntilDone, landed, noteEffect } from './landing';
import { type Because, type Mismatch, mismatchesOf } from './mismatch';

/** A change of sound as it happens. Times in ms from the press. */
export interface Change {
  from: string;
  to: string;
  /** Senders on which something is pressed. */
  pressed: string[];
  traffic: Traffic;
  /** Every message that a sender gives, in the order in which they are given; one that is lost too. */
  given: { device: string; message: Message }[];
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
  /** Whether the foot stays for a long press. */
  held?: boolean;
  /** The message that gets lost at its sender, by its place among all that are given, from 0. */
  lost?: number;
  /** Where between two ticks of the clock the press falls, as a share; unsaid, all are looked at for jitter. */
  phase?: number;
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
  const given: { device: string; message: Message }[] = [];
  const recall = (device: string, scene: Scene, by: CalledBy) =>
    timed(orders.commands(scene).get(device) ?? [], by).filter(
      ({ message }) => given.push({ device, message }) - 1 !== options.lost,
    );
  for (const id of pressed) {
    const m = sure(graph.devices.get(id));
    const called = pressOn(stage, m, sure(machine.get(id)), to);
    if (called) {
      landings.push(called);
      touched.set(id, new Set(['program']));
    }
    for (const { message, afterMs } of recall(id, to, options.held ? 'held foot' : 'foot'))
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
        return recall(r.device, effect.recalled, 'message').map(({ message, afterMs }) => ({
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
    given,
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
