import { sure, at as entryAt } from '../outcome';
import TinyQueue from 'tinyqueue';
import { echoAt, type MidiGraph, outJacks, sendsOwn, type Way } from './graph';
import { bytesOf, isRealtime } from './message-sorts';
import { BYTE_MS } from './wire-time';
import { CLOCKS_PER_QUARTER, type Message } from './message';
import type { MidiDevice } from './setup';

/**
 * One message on one way: when its first byte begins and its last byte ends, in ms; `bytes` as they
 * went, `ready` when it wanted to go.
 */
export interface Sent {
  lead: string;
  from: string;
  to: string;
  jack: string;
  message: Message;
  bytes: number[];
  ready: number;
  start: number;
  end: number;
}

/** A message whose last byte has arrived at a device. */
export interface Received {
  device: string;
  jack: string;
  message: Message;
  at: number;
  lead: string;
}

/**
 * USB carries messages in frames of 1 ms, digital links in blocks; both are taken as one whole
 * step, without queues (a simplification).
 */
export const STEP_MS = { usb: 1, digital: 1 } as const;
/** A hardware thru delays by about two gates of an opto-isolator, in ms. */
export const COPY_MS = 0.002;
/** More messages than any rig sends for one change: a loop is going round. */
const TOO_MANY = 5000;

export interface BusOptions {
  /**
   * Clock of this tempo comes from every device that leads, from `clockFrom` ms before the first
   * message to `clockUntil` ms after.
   */
  bpm?: number;
  clockFrom?: number;
  clockUntil?: number;
  /** Senders that lead with clock. */
  clockSenders?: readonly string[];
  /**
   * Asked whenever a device has received a message; what it says is sent after that delay in ms, as
   * the device's own.
   */
  onReceive?: (r: Received) => { after: number; messages: Message[] } | undefined;
  /** Whether every message sent is to be noted; off, only what is received counts. */
  quiet?: boolean;
}

/** What went over the bus. `endless` is true where messages would go round for ever. */
export interface Traffic {
  sent: Sent[];
  received: Received[];
  endless: boolean;
}

/** A jack that sends: what waits, what is on its way, and the status that the other end remembers. */
interface Port {
  device: MidiDevice;
  jack: string;
  ways: Way[];
  waiting: { message: Message; ready: number }[];
  realtime: { message: Message; ready: number }[];
  busy: boolean;
  now?: Sent;
  left: number[];
  status: number;
}

type Event = { t: number; order: number } & (
  | { is: 'own'; device: string; message: Message }
  | { is: 'byte'; port: Port; clock?: Sent }
  | { is: 'queue'; port: Port; message: Message; ready: number }
  | { is: 'arrive'; received: Received }
);

/**
 * Runs messages over the MIDI graph, byte by byte. Each DIN or TRS output sends one byte at a time,
 * 320 µs each; messages keep their order, clock goes between bytes and never inside one. A hardware
 * thru copies as it comes; software reads a message to its end and sends it again. Time 0 is when
 * the first message may go.
 */
export function runBus(
  graph: MidiGraph,
  own: readonly { device: string; at: number; message: Message }[],
  options: BusOptions = {},
): Traffic {
  // The idea: nothing happens but at events, kept in one queue by time and, at one time, in the order
  // in which they were put there. "own" is a device that sends; its message waits at each of its
  // ports ("queue") until the port is free. A port that is free takes the oldest message and sends a
  // byte ("byte") every 320 µs; at each of these moments a clock that waits goes first. When a
  // message has gone over a lead whole, it arrives there ("arrive"), and whoever passes it on puts
  // it into the queue again: hardware as it came, software after it was read. A count of all that
  // moved ends messages that go round for ever.
  const events = new TinyQueue<Event>([], (a, b) => a.t - b.t || a.order - b.order);
  let order = 0;
  const push = (e: Event extends infer E ? (E extends Event ? Omit<E, 'order'> : never) : never) =>
    events.push({ ...e, order: order++ });
  const sent: Sent[] = [];
  const received: Received[] = [];
  const ports = new Map<string, Port>();
  let count = 0;
  const portOf = (m: MidiDevice, jack: string): Port | undefined => {
    const key = `${m.device.id}/${jack}`;
    let port = ports.get(key);
    const ways = (graph.from.get(key) ?? []).filter((w) => !w.broken);
    if (!port && ways.length)
      ports.set(
        key,
        (port = {
          device: m,
          jack,
          ways,
          waiting: [],
          realtime: [],
          busy: false,
          left: [],
          status: -1,
        }),
      );
    return port;
  };
  const note = (s: Sent) => {
    if (!options.quiet) sent.push(s);
  };
  /** A message has gone over a way whole: it arrives, and hardware thrus behind have copied it as it went. */
  const gone = (way: Way, s: Sent) => {
    if (count++ > TOO_MANY) return;
    note(s);
    push({
      t: s.end,
      is: 'arrive',
      received: {
        device: way.to.device,
        jack: way.to.jack,
        message: s.message,
        at: s.end,
        lead: way.lead.id,
      },
    });
    const here = graph.devices.get(way.to.device);
    for (const out of here ? outJacks(here) : []) {
      if (echoAt(here!, way.to.jack, out) !== 'hardware') continue;
      for (const next of graph.from.get(`${way.to.device}/${out.id}`) ?? []) {
        if (!next.broken)
          gone(next, {
            ...s,
            lead: next.lead.id,
            from: next.from.device,
            to: next.to.device,
            jack: out.id,
            start: s.start + COPY_MS,
            end: s.end + COPY_MS,
          });
      }
    }
  };
  const send = (t: number, port: Port, message: Message, ready: number) => {
    for (const way of port.ways) {
      if (way.medium === 'din') continue;
      gone(way, {
        lead: way.lead.id,
        from: way.from.device,
        to: way.to.device,
        jack: port.jack,
        message,
        bytes: bytesOf(message),
        ready,
        start: t,
        end: t + STEP_MS[way.medium],
      });
    }
    if (!port.ways.some((w) => w.medium === 'din')) return;
    (isRealtime(message) ? port.realtime : port.waiting).push({ message, ready });
    if (!port.busy) nextByte(t, port);
  };
  const din = (port: Port): Way => sure(port.ways.find((w) => w.medium === 'din'));
  const nextByte = (t: number, port: Port) => {
    const tick = port.realtime.shift();
    const way = din(port);
    const base = { lead: way.lead.id, from: way.from.device, to: way.to.device, jack: port.jack };
    if (tick) {
      port.busy = true;
      push({
        t: t + BYTE_MS,
        is: 'byte',
        port,
        clock: {
          ...base,
          message: tick.message,
          bytes: bytesOf(tick.message),
          ready: tick.ready,
          start: t,
          end: t + BYTE_MS,
        },
      });
      return;
    }
    if (!port.now) {
      const next = port.waiting.shift();
      if (!next) return void (port.busy = false);
      const whole = bytesOf(next.message);
      const bytes = port.device.runningStatus && whole[0] === port.status ? whole.slice(1) : whole;
      port.status = entryAt(whole, 0);
      port.now = { ...base, message: next.message, bytes, ready: next.ready, start: t, end: t };
      port.left = [...bytes];
    }
    port.busy = true;
    port.left.shift();
    push({ t: t + BYTE_MS, is: 'byte', port });
  };

  for (const o of own) push({ t: o.at, is: 'own', device: o.device, message: o.message });
  if (options.bpm) {
    const every = 60_000 / options.bpm / CLOCKS_PER_QUARTER;
    for (const device of options.clockSenders ?? [])
      for (let t = options.clockFrom ?? 0; t <= (options.clockUntil ?? 0); t += every)
        push({ t, is: 'own', device, message: { type: 'clock' } });
  }
  for (let e = events.pop(); e; e = events.pop()) {
    if (count > TOO_MANY) break;
    if (e.is === 'own') {
      const m = graph.devices.get(e.device);
      for (const out of m ? outJacks(m) : []) {
        const port = sendsOwn(m!, out) ? portOf(m!, out.id) : undefined;
        if (port) send(e.t, port, e.message, e.t);
      }
    } else if (e.is === 'queue') send(e.t, e.port, e.message, e.ready);
    else if (e.is === 'byte') {
      const { port } = e;
      if (e.clock) gone(din(port), e.clock);
      else if (!port.left.length) {
        const whole = { ...port.now!, end: e.t };
        port.now = undefined;
        gone(din(port), whole);
      }
      nextByte(e.t, port);
    } else {
      received.push(e.received);
      const m = graph.devices.get(e.received.device);
      if (!m) continue;
      for (const out of outJacks(m)) {
        const echo = echoAt(m, e.received.jack, out);
        const port = echo === 'software' || echo === 'merged' ? portOf(m, out.id) : undefined;
        // Clock is passed on at once; other messages after they have been read.
        if (port)
          push({
            t: e.t + (isRealtime(e.received.message) ? 0 : m.thruMs),
            is: 'queue',
            port,
            message: e.received.message,
            ready: e.t,
          });
      }
      const more = options.onReceive?.(e.received);
      if (more)
        for (const message of more.messages)
          push({ t: e.t + more.after, is: 'own', device: m.device.id, message });
    }
  }
  return { sent, received, endless: count > TOO_MANY };
}

/** How unevenly clock arrives, in ms later than its steadiest: at worst, and on average. */
export interface Jitter {
  device: string;
  ticks: number;
  worstMs: number;
  typicalMs: number;
}

/** Clock jitter at each device that received clock: each tick's delay over the least delayed one. */
export function clockJitter(traffic: Traffic, bpm: number, from = 0): Jitter[] {
  const every = 60_000 / bpm / CLOCKS_PER_QUARTER;
  const by = new Map<string, number[]>();
  for (const r of traffic.received)
    if (r.message.type === 'clock') by.set(r.device, [...(by.get(r.device) ?? []), r.at]);
  return [...by].map(([device, times]) => {
    const late = times.map((t, i) => t - from - i * every);
    const least = Math.min(...late);
    const over = late.map((x) => x - least);
    return {
      device,
      ticks: times.length,
      worstMs: Math.max(...over),
      typicalMs: over.reduce((a, b) => a + b, 0) / over.length,
    };
  });
}
