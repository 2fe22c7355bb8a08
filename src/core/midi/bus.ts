import { sure, at as entryAt } from '../outcome';
import TinyQueue from 'tinyqueue';
import { echoAt, type MidiGraph, outJacks, sendsOwn, type Way } from './graph';
import { bytesOf, isRealtime, SYSTEM } from './message-sorts';
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
/** More messages than any rig sends for one change. */
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
   * Asked whenever a device has received a message; what it says is sent after that many ms, as the
   * device's own.
   */
  onReceive?: (r: Received) => readonly { message: Message; afterMs: number }[] | undefined;
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
  waiting: Waiting[];
  realtime: Waiting[];
  busy: boolean;
  now?: Sent;
  /** Devices that have handed on the message that is on its way. */
  hops: number;
  left: number[];
  status: number;
}

/** A message that waits for a port, since when, and how many devices have handed it on. */
interface Waiting {
  message: Message;
  ready: number;
  hops: number;
}

type Event = { t: number; order: number } & (
  | { is: 'own'; device: string; message: Message; hops: number }
  | { is: 'byte'; port: Port; clock?: { sent: Sent; hops: number } }
  | ({ is: 'queue'; port: Port } & Waiting)
  | { is: 'arrive'; received: Received; hops: number }
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
  const run = new Run(graph, options);
  for (const o of own) run.own(o.at, o.device, o.message);
  run.clocks();
  return run.toTheEnd();
}

/**
 * One run of the bus. The idea: nothing happens but at events, kept in one queue by time and, at
 * one time, in the order in which they were put there. "own" is a device that sends; its message
 * waits at each of its ports ("queue") until the port is free. A port that is free takes the oldest
 * message and sends a byte ("byte") every 320 µs; at each of these moments a clock that waits goes
 * first. When a message has gone over a lead whole, it arrives there ("arrive"), and whoever passes
 * it on puts it into the queue again: hardware as it came, software after it was read. One that more
 * devices have handed on than there are goes round for ever, and the run ends there.
 */
class Run {
  private readonly events = new TinyQueue<Event>([], (a, b) => a.t - b.t || a.order - b.order);
  private order = 0;
  private count = 0;
  private endless = false;
  private readonly ports = new Map<string, Port>();
  private readonly sent: Sent[] = [];
  private readonly received: Received[] = [];

  constructor(
    private readonly graph: MidiGraph,
    private readonly options: BusOptions,
  ) {}

  /** A device sends a message of its own at a time in ms. */
  own(t: number, device: string, message: Message, hops = 0): void {
    this.push({ t, is: 'own', device, message, hops });
  }

  /** Clock from every device that leads, while the options ask for it. */
  clocks(): void {
    const { bpm, clockSenders = [], clockFrom = 0, clockUntil = 0 } = this.options;
    if (!bpm) return;
    const every = 60_000 / bpm / CLOCKS_PER_QUARTER;
    for (const device of clockSenders)
      for (let t = clockFrom; t <= clockUntil; t += every) this.own(t, device, { type: 'clock' });
  }

  /** Takes event after event until nothing is left, or messages go round for ever. */
  toTheEnd(): Traffic {
    for (let e = this.events.pop(); e && !this.endless; e = this.events.pop()) {
      if (e.is === 'own') this.sendOwn(e.t, e.device, e);
      else if (e.is === 'queue') this.send(e.t, e.port, e);
      else if (e.is === 'byte') this.byteGone(e.t, e.port, e.clock);
      else this.arrived(e.t, e.received, e.hops);
    }
    return { sent: this.sent, received: this.received, endless: this.endless };
  }

  private push(
    e: Event extends infer E ? (E extends Event ? Omit<E, 'order'> : never) : never,
  ): void {
    this.events.push({ order: this.order++, ...e });
  }

  private portOf(m: MidiDevice, jack: string): Port | undefined {
    const key = `${m.device.id}/${jack}`;
    const known = this.ports.get(key);
    if (known) return known;
    const ways = (this.graph.from.get(key) ?? []).filter((w) => !w.broken);
    if (!ways.length) return undefined;
    const port: Port = {
      device: m,
      jack,
      ways,
      waiting: [],
      realtime: [],
      busy: false,
      left: [],
      hops: 0,
      status: -1,
    };
    this.ports.set(key, port);
    return port;
  }

  private sendOwn(
    t: number,
    device: string,
    { message, hops }: Pick<Waiting, 'message' | 'hops'>,
  ): void {
    const m = this.graph.devices.get(device);
    for (const out of m ? outJacks(m) : []) {
      const port = sendsOwn(m!, out) ? this.portOf(m!, out.id) : undefined;
      if (port) this.send(t, port, { message, ready: t, hops });
    }
  }

  /** Over USB and digital links at once and whole; into the row of bytes on a DIN or TRS output. */
  private send(t: number, port: Port, { message, ready, hops }: Waiting): void {
    for (const way of port.ways) {
      if (way.medium === 'din') continue;
      const sent = {
        lead: way.lead.id,
        from: way.from.device,
        to: way.to.device,
        jack: port.jack,
        message,
        bytes: bytesOf(message),
        ready,
        start: t,
        end: t + STEP_MS[way.medium],
      };
      this.gone(way, sent, hops);
    }
    if (!port.ways.some((w) => w.medium === 'din')) return;
    (isRealtime(message) ? port.realtime : port.waiting).push({ message, ready, hops });
    if (!port.busy) this.nextByte(t, port);
  }

  /** A message has gone over a way whole: it arrives, and hardware thrus behind have copied it as it went. */
  private gone(way: Way, s: Sent, hops: number): void {
    if (this.endless) return;
    this.endless = hops > this.graph.devices.size || this.count++ > TOO_MANY;
    if (!this.options.quiet) this.sent.push(s);
    const { device, jack } = way.to;
    this.push({
      t: s.end,
      is: 'arrive',
      received: { device, jack, message: s.message, at: s.end, lead: way.lead.id },
      hops,
    });
    const here = this.graph.devices.get(device);
    for (const out of here ? outJacks(here) : []) {
      if (echoAt(here!, jack, out) !== 'hardware') continue;
      for (const next of this.graph.from.get(`${device}/${out.id}`) ?? []) {
        if (next.broken) continue;
        const copy = {
          ...s,
          lead: next.lead.id,
          from: next.from.device,
          to: next.to.device,
          jack: out.id,
          start: s.start + COPY_MS,
          end: s.end + COPY_MS,
        };
        this.gone(next, copy, hops + 1);
      }
    }
  }

  /** A free port takes what waits longest, clock before all, and sends one byte of it. */
  private nextByte(t: number, port: Port): void {
    const tick = port.realtime.shift();
    const way = din(port);
    const base = { lead: way.lead.id, from: way.from.device, to: way.to.device, jack: port.jack };
    if (tick) {
      port.busy = true;
      const { message, ready } = tick;
      const bytes = bytesOf(message);
      const sent = { message, bytes, ready, start: t, end: t + BYTE_MS, ...base };
      this.push({ t: t + BYTE_MS, is: 'byte', port, clock: { sent, hops: tick.hops } });
      return;
    }
    if (!port.now) {
      const next = port.waiting.shift();
      if (!next) return void (port.busy = false);
      const whole = bytesOf(next.message);
      const bytes = port.device.runningStatus && whole[0] === port.status ? whole.slice(1) : whole;
      // What is for everybody ends a running status.
      port.status = entryAt(whole, 0) < SYSTEM ? entryAt(whole, 0) : -1;
      port.now = { message: next.message, bytes, ready: next.ready, start: t, end: t, ...base };
      port.left = [...bytes];
      port.hops = next.hops;
    }
    port.busy = true;
    port.left.shift();
    this.push({ t: t + BYTE_MS, is: 'byte', port });
  }

  private byteGone(t: number, port: Port, clock: { sent: Sent; hops: number } | undefined): void {
    if (clock) this.gone(din(port), clock.sent, clock.hops);
    else if (!port.left.length) {
      const whole = { ...port.now!, end: t };
      port.now = undefined;
      this.gone(din(port), whole, port.hops);
    }
    this.nextByte(t, port);
  }

  /** Whoever passes it on puts it into the row again; whoever answers sends something of its own. */
  private arrived(t: number, received: Received, hops: number): void {
    this.received.push(received);
    const m = this.graph.devices.get(received.device);
    if (!m) return;
    const { message } = received;
    for (const out of outJacks(m)) {
      const echo = echoAt(m, received.jack, out);
      const port = echo === 'software' || echo === 'merged' ? this.portOf(m, out.id) : undefined;
      // Clock is passed on at once; other messages after they have been read.
      const after = isRealtime(message) ? 0 : m.thruMs;
      if (port) this.push({ t: t + after, is: 'queue', port, message, ready: t, hops: hops + 1 });
    }
    for (const answer of this.options.onReceive?.(received) ?? [])
      this.own(t + answer.afterMs, m.device.id, answer.message, hops + 1);
  }
}

const din = (port: Port): Way => sure(port.ways.find((w) => w.medium === 'din'));

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
