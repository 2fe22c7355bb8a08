import { kindOf, type Job } from '../kinds';
import { leadTypeFor } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, End, Lead, Rig } from '../rig/schema';

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
const WIDENING: readonly Job[] = ['modulation', 'delay', 'reverb'];

export const jobOf = (d: Device): Job => kindOf(d.kind).job;

/** The other side of a jack, where it has one. */
export function otherSide({ device, jack }: End, kind: string): End | undefined {
  const other = kindOf(kind).jacks.find((j) => j.id === jack)?.pair?.with;
  return other === undefined ? undefined : { device, jack: other };
}

/** The jacks of the way through a device, with the other sides that it has; none where it has no way through. */
function endsOf(d: Device) {
  const way = kindOf(d.kind).through;
  if (!way) return undefined;
  const [into, out] = [
    { device: d.id, jack: way.in },
    { device: d.id, jack: way.out },
  ];
  return { in: into, inRight: otherSide(into, d.kind), out, outRight: otherSide(out, d.kind) };
}

/** What waits behind a device, whether one side or two. */
function behind(now: Waiting, d: Device, mayWiden: boolean): Waiting {
  const ends = endsOf(d);
  if (!ends) return now;
  const isWide =
    ends.outRight !== undefined &&
    ((now.right !== undefined && ends.inRight !== undefined) ||
      (mayWiden && WIDENING.includes(jobOf(d))));
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

  add(kind: string, name: string, rest: Partial<Device> = {}): Device {
    const id = freshId(
      name,
      this.devices.map((d) => d.id),
    );
    const device: Device = { id, kind, name, ...rest };
    this.devices.push(device);
    return device;
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
  through(at: Waiting, row: readonly Device[], mayWiden = false): Waiting {
    let now = at;
    for (const d of row) {
      const into = endsOf(d);
      if (!into) continue;
      this.join(now.left, into.in, now.metres);
      if (now.right && into.inRight) this.join(now.right, into.inRight, now.metres);
      now = behind(now, d, mayWiden);
    }
    return now;
  }

  /** What was made so far, as a rig that can be asked about. */
  asRig = (): Rig => ({
    ...{ format: 'yantrel-rig', version: 1, id: 'start', name: 'Start', sounds: [] },
    // Copies: what is asked is kept by the list that it was asked of, and these still grow.
    devices: this.devices.map((d) => ({ ...d })),
    leads: [...this.leads],
  });
}
