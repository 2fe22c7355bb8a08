/**
 * What tells one noise from another: what made it, and what has happened to it since. Copies of one
 * strain add as waves, others as powers. There is one object for each strain of a run.
 */
interface Strain {
  origin: string;
  device: string;
  lateMs: number;
  /** What has made it another wave than its origin's: an effect, or one side of a widened signal. */
  apart: string;
  /** What becomes of it on ways that were asked for before. */
  becomes: Map<Way, Strain>;
  /** Its place among strains that come together just now, and in which meeting that is. */
  place: number;
  meeting: number;
  of: Strains;
}

/** What happens to a noise besides its gain: so much later, and apart from its origin or not. */
interface Way {
  lateMs: number;
  apart: string;
}

/**
 * Noise at one place: its power in V², and its strains with the amplitude of each in V, signed, to
 * be taken `by` times. A gain changes `by` alone, so that a chain of gains costs nothing.
 */
export interface Hiss {
  power: number;
  strains: readonly Strain[];
  volts: readonly number[];
  by: number;
}

export const SILENT: Hiss = { power: 0, strains: [], volts: [], by: 1 };

/** Copies of one noise within 10 µs of one another are one wave. */
export const STEPS_A_MS = 100;

/** All strains of one run of signal through a circuit. */
export class Strains {
  private readonly known = new Map<string, Strain>();
  private readonly ways = new Map<string, Way>();

  get size(): number {
    return this.known.size;
  }

  /** Noise of a power in V² that a device makes by itself. */
  own(device: string, origin: string, power: number): Hiss {
    if (!(power > 0)) return SILENT;
    const strains = [this.strain(origin, device, 0, '')];
    return { power, strains, volts: [Math.sqrt(power)], by: 1 };
  }

  strain(origin: string, device: string, lateMs: number, apart: string): Strain {
    const key = `${origin} ${device} ${Math.round(lateMs * STEPS_A_MS)} ${apart}`;
    let strain = this.known.get(key);
    if (!strain) {
      const becomes = new Map<Way, Strain>();
      strain = { origin, device, lateMs, apart, becomes, place: -1, meeting: -1, of: this };
      this.known.set(key, strain);
    }
    return strain;
  }

  way(lateMs: number, apart: string): Way {
    const key = `${lateMs} ${apart}`;
    let way = this.ways.get(key);
    if (!way) this.ways.set(key, (way = { lateMs, apart }));
    return way;
  }
}

function onWay(strain: Strain, way: Way): Strain {
  let then = strain.becomes.get(way);
  if (!then) {
    const { origin, device, lateMs, apart, of } = strain;
    then = of.strain(origin, device, lateMs + way.lateMs, way.apart || apart);
    strain.becomes.set(way, then);
  }
  return then;
}

/**
 * A noise of less than this share of the power (35 dB under all of it) no longer knows its copies:
 * together with them it could change the whole by a hundredth of a decibel.
 */
export const FAINT = 3e-4;
/** So few are all followed. */
const FEW = 6;
/** More are never followed one by one: in a circle that takes time, every round would add copies. */
const MOST_STRAINS = 32;
/** Of what is not followed, so many devices are still known by name, the loudest. */
const MOST_NAMED = 8;

/**
 * Noises that meet. Copies of one noise that arrive at the same time add as waves, with their signs,
 * as the signal beside them does; what an effect has spread, and different noises, as powers.
 */
export function addHiss(list: readonly Hiss[]): Hiss {
  let first: Hiss | undefined;
  let all: Meeting | undefined;
  for (const h of list) {
    if (!(h.power > 0)) continue;
    if (!first) {
      first = h;
      continue;
    }
    if (!all) {
      all = new Meeting();
      all.addAll(first);
    }
    all.addAll(h);
  }
  return all ? all.hiss() : (first ?? SILENT);
}

/** Noise times a gain (negative where it is turned over), and what else happens to it on the way. */
export function scaleHiss(h: Hiss, gain: number, lateMs = 0, apart = ''): Hiss {
  const [one] = h.strains;
  if (!one || !h.power || !gain) return SILENT;
  const power = h.power * gain * gain;
  if (!lateMs && !apart) {
    if (gain === 1) return h;
    return { power, strains: h.strains, volts: h.volts, by: h.by * gain };
  }
  const way = one.of.way(lateMs, apart);
  const all = new Meeting();
  h.strains.forEach((s, i) => all.add(onWay(s, way), (h.volts[i] ?? 0) * h.by * gain));
  return { power, strains: all.strains, volts: all.volts, by: 1 };
}

/** The device that most of a noise comes from. */
export function noisiestOf({ strains, volts }: Hiss): string | undefined {
  const byDevice = new Map<string, number>();
  strains.forEach(({ device }, i) => {
    if (device) byDevice.set(device, (byDevice.get(device) ?? 0) + (volts[i] ?? 0) ** 2);
  });
  let most: string | undefined;
  let power = 0;
  for (const [device, p] of byDevice) if (p > power) [most, power] = [device, p];
  return most;
}

let meetings = 0;

/** Strains as they come together: each meets a copy of itself, or stands beside the others. */
class Meeting {
  readonly strains: Strain[] = [];
  readonly volts: number[] = [];
  private readonly number = ++meetings;

  addAll({ strains, volts, by }: Hiss): void {
    for (let i = 0; i < strains.length; i++) this.add(strains[i]!, volts[i]! * by);
  }

  add(strain: Strain, volts: number): void {
    if (strain.meeting !== this.number) {
      strain.meeting = this.number;
      strain.place = this.strains.length;
      this.strains.push(strain);
      this.volts.push(volts);
      return;
    }
    const was = this.volts[strain.place]!;
    this.volts[strain.place] = strain.apart ? Math.hypot(was, volts) : was + volts;
  }

  hiss(): Hiss {
    let power = 0;
    for (const v of this.volts) power += v * v;
    if (!(power > 0)) return SILENT;
    const { strains, volts } = this.strains.length > FEW ? this.withoutFaint(power) : this;
    return { power, strains, volts, by: 1 };
  }

  /** The louder ones one by one; the faint ones as powers, by device the loudest of them. */
  private withoutFaint(power: number): Meeting {
    const least = FAINT * power;
    const { volts } = this;
    let loud: number[] = [];
    let faint: number[] = [];
    for (let i = 0; i < volts.length; i++) (volts[i]! ** 2 < least ? faint : loud).push(i);
    if (loud.length > MOST_STRAINS) {
      loud.sort((a, b) => Math.abs(volts[b]!) - Math.abs(volts[a]!));
      faint = faint.concat(loud.slice(MOST_STRAINS));
      loud = loud.slice(0, MOST_STRAINS);
    }
    if (!faint.length) return this;
    const out = new Meeting();
    for (const i of loud) out.add(this.strains[i]!, volts[i]!);
    this.addRest(out, faint);
    return out;
  }

  private addRest(out: Meeting, faint: readonly number[]): void {
    const rests = new Map<string, number>();
    for (const i of faint) {
      const { device } = this.strains[i]!;
      rests.set(device, Math.hypot(rests.get(device) ?? 0, this.volts[i]!));
    }
    const { of } = this.strains[0]!;
    const order = [...rests];
    if (order.length > MOST_NAMED) order.sort((a, b) => b[1] - a[1]);
    order.forEach(([device, volts], i) => {
      const name = i < MOST_NAMED ? device : '';
      out.add(of.strain(`rest of ${name}`, name, 0, 'rest'), volts);
    });
  }
}
