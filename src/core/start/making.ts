import { kindOf, type Job } from '../kinds';
import { leadTypeFor } from '../rig/find';
import { freeName, freshId } from '../rig/fresh-id';
import type { Control, Device, End, Lead, Rig, RigPromise } from '../rig/schema';

/** Where signal stands and waits to go on: one side or two, and how long the next lead is, in metres. */
export interface Waiting {
  left: End;
  right?: End;
  metres: number;
}

/** Usual lengths of a start, in metres. */
export const METRES = {
  /** From a player to the floor. */
  player: 3,
  /** From an instrument to the pack on the player. */
  pack: 0.8,
  /** From a receiver to the board. */
  receiver: 1.5,
  /** From pedal to pedal. */
  patch: 0.3,
  /** From the floor to an amplifier. */
  amp: 6,
  speaker: 1.5,
  air: 0.1,
  /** From the stage to the desk's box. */
  desk: 20,
} as const;

/** Effects that make one side two. */
export const WIDENING: readonly Job[] = ['modulation', 'delay', 'reverb'];

export const jobOf = (d: Device): Job => kindOf(d.kind).job;

/** The other side of a jack, where it has one. */
export function otherSide({ device, jack }: End, kind: string): End | undefined {
  const other = kindOf(kind).jacks.find((j) => j.id === jack)?.pair?.with;
  return other === undefined ? undefined : { device, jack: other };
}

/** Something that a row goes through: by its main way, or by the one that is named. */
export type Stop = Device | ByWay;

interface ByWay {
  device: Device;
  in: string;
  out: string;
}

const isByWay = (stop: Stop): stop is ByWay => typeof stop.device === 'object';

/** The jacks of the way through, with the other sides that it has; none where it has no way through. */
function endsOf(stop: Stop) {
  const d = isByWay(stop) ? stop.device : stop;
  const way = isByWay(stop) ? stop : kindOf(d.kind).through;
  if (!way) return undefined;
  const [into, out] = [
    { device: d.id, jack: way.in },
    { device: d.id, jack: way.out },
  ];
  return { in: into, inRight: otherSide(into, d.kind), out, outRight: otherSide(out, d.kind) };
}

/** What waits behind a device, whether one side or two. */
function behind(now: Waiting, stop: Stop, mayWiden: boolean): Waiting {
  const ends = endsOf(stop);
  if (!ends) return now;
  const isWide =
    ends.outRight !== undefined &&
    ((now.right !== undefined && ends.inRight !== undefined) ||
      (mayWiden && !isByWay(stop) && WIDENING.includes(jobOf(stop))));
  return {
    left: ends.out,
    ...(isWide && ends.outRight && { right: ends.outRight }),
    metres: METRES.patch,
  };
}

/** Whether two sides would wait behind a row that may be widened. */
export const widens = (at: Waiting, row: readonly Device[]): boolean =>
  row.reduce((now, d) => behind(now, d, true), at).right !== undefined;

/** A rig in the making: it grows from the instruments towards those who must hear them. */
export class Making {
  readonly devices: Device[] = [];
  readonly leads: Lead[] = [];
  readonly controls: Control[] = [];
  /** What was decided on the way and has to stay so. */
  readonly promises: RigPromise[] = [];
  /** Whom a device at the end of one of several lines hears alone, or does not hear. */
  readonly apart = new Map<string, { only?: string; not?: string }>();
  /** What is joined to a device as soon as a row has come to it. */
  private readonly hung = new Map<string, () => void>();
  /** Devices that a row goes through by another way than the usual one. */
  private readonly ways = new Map<string, { in: string; out: string }>();

  goesBy = (d: Device, way: { in: string; out: string }) => this.ways.set(d.id, way);

  onceFed = (d: Device, join: () => void) => this.hung.set(d.id, join);

  /** Hangs rows in the loops of a device, each between a send and a return of it. */
  hang = (d: Device, loops: readonly { send: string; back: string; row: readonly Stop[] }[]) =>
    this.onceFed(d, () => {
      for (const { send, back, row } of loops) {
        const out = this.through({ left: { device: d.id, jack: send }, metres: METRES.patch }, row);
        this.join(out.left, { device: d.id, jack: back }, METRES.patch);
      }
    });

  /** One more device; where its name is taken, it gets a number. */
  add(kind: string, wanted: string, rest: Partial<Device> = {}): Device {
    const name = freeName(
      wanted,
      this.devices.map((d) => d.name),
    );
    const id = freshId(
      name,
      this.devices.map((d) => d.id),
    );
    const device: Device = { id, kind, name, ...rest };
    this.devices.push(device);
    return device;
  }

  /** One conductor of an insert lead: both sides of what comes share a jack. */
  joinSide(from: End, to: End, conductor: 'tip' | 'ring'): void {
    this.join(from, to, METRES.patch, 'insert');
    const lead = this.leads.at(-1);
    if (lead) lead.conductor = conductor;
  }

  join(from: End, to: End, metres: number, type?: Lead['type']): void {
    const id = freshId(
      `lead-${this.leads.length + 1}`,
      this.leads.map((l) => l.id),
    );
    this.leads.push({ id, from, to, type: type ?? leadTypeFor(this.asRig(), from, to), metres });
  }

  /** Joins two points inside a host. */
  link(host: string, from: string, to: string): void {
    this.join({ device: host, jack: from }, { device: host, jack: to }, 0, 'inside');
  }

  /**
   * Joins a row of devices, one behind the other. From the first that makes the signal wide, where it
   * may, both sides go on, until a device has but one.
   */
  through(at: Waiting, row: readonly Stop[], mayWiden = false): Waiting {
    let now = at;
    for (const each of row) {
      const other = isByWay(each) ? undefined : this.ways.get(each.id);
      const stop = other && !isByWay(each) ? { device: each, ...other } : each;
      const way = endsOf(stop);
      if (!way) continue;
      this.join(now.left, way.in, now.metres);
      if (now.right && way.inRight) this.join(now.right, way.inRight, now.metres);
      this.hung.get(way.in.device)?.();
      now = behind(now, stop, mayWiden);
    }
    return now;
  }

  /** What was made so far, as a rig that can be asked about. */
  asRig = (): Rig => ({
    format: 'yantrel-rig',
    version: 1,
    id: 'start',
    name: 'Start',
    sounds: [],
    // Copies: what is asked is kept by the list that it was asked of, and these still grow.
    devices: this.devices.map((d) => ({ ...d })),
    leads: [...this.leads],
  });
}
