/**
 * What tells one noise from another: what made it, and what has happened to it since. Copies of one
 * strain add as waves, others as powers.
 */
interface Strain {
  key: string;
  origin: string;
  device: string;
  lateMs: number;
  /** What has made it another wave than its origin's: an effect, or one side of a widened signal. */
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
const strainOf = (origin: string, device: string, lateMs: number, apart: string): Strain => ({
  key: `${origin} ${lateMs ? Math.round(lateMs * 100) : ''} ${apart}`,
  origin,
  device,
  lateMs,
  apart,
});

/**
 * A noise of less than this share of the power (35 dB under all of it) no longer knows its copies:
 * together with them it could change the whole by a hundredth of a decibel.
 */
const FAINT = 3e-4;
/** So few are all followed. */
const FEW = 6;
/** More are never followed one by one: in a circle that takes time, every round would add copies. */
const MOST_STRAINS = 48;

/** Noise of a power in V² that a device makes by itself. */
export const ownHiss = (device: string, origin: string, power: number): Hiss =>
  power > 0
    ? { power, strains: [strainOf(origin, device, 0, '')], volts: [Math.sqrt(power)], by: 1 }
    : SILENT;

/**
 * Noises that meet. Copies of one noise that arrive at the same time add as waves, with their signs,
 * as the signal beside them does; what an effect has spread, and different noises, as powers.
 */
export function addHiss(list: readonly Hiss[]): Hiss {
  const some = list.filter((h) => h.power > 0);
  const first = some[0];
  if (!first) return SILENT;
  if (some.length === 1) return first;
  const all = new Meeting();
  for (const h of some) h.strains.forEach((s, i) => all.add(s, (h.volts[i] ?? 0) * h.by));
  return all.hiss();
}

/** Noise times a gain (negative where it is turned over), and what else happens to it on the way. */
export function scaleHiss(h: Hiss, gain: number, lateMs = 0, apart = ''): Hiss {
  if (!h.power || !gain) return SILENT;
  const power = h.power * gain * gain;
  if (!lateMs && !apart) return gain === 1 ? h : { ...h, power, by: h.by * gain };
  const all = new Meeting();
  h.strains.forEach((s, i) =>
    all.add(
      strainOf(s.origin, s.device, s.lateMs + lateMs, apart || s.apart),
      (h.volts[i] ?? 0) * h.by * gain,
    ),
  );
  return { ...all, power, by: 1 };
}

/** The device that most of a noise comes from. */
export function noisiestOf({ strains, volts }: Hiss): string | undefined {
  const byDevice = new Map<string, number>();
  strains.forEach(({ device }, i) =>
    byDevice.set(device, (byDevice.get(device) ?? 0) + (volts[i] ?? 0) ** 2),
  );
  let most: string | undefined;
  let power = 0;
  for (const [device, p] of byDevice) if (p > power) [most, power] = [device, p];
  return most;
}

/** Strains as they come together: each meets a copy of itself, or stands beside the others. */
class Meeting {
  readonly strains: Strain[] = [];
  readonly volts: number[] = [];

  add(strain: Strain, volts: number): void {
    const { key } = strain;
    const at = this.strains.findIndex((s) => s === strain || s.key === key);
    const was = this.volts[at];
    if (was === undefined) {
      this.strains.push(strain);
      this.volts.push(volts);
    } else this.volts[at] = strain.apart ? Math.hypot(was, volts) : was + volts;
  }

  hiss(): Hiss {
    const power = this.volts.reduce((sum, v) => sum + v * v, 0);
    if (!(power > 0)) return SILENT;
    const { strains, volts } = this.strains.length > FEW ? this.withoutFaint(power) : this;
    return { power, strains, volts, by: 1 };
  }

  /** The louder ones one by one; the faint ones one a device, as powers. */
  private withoutFaint(power: number): Meeting {
    const order = [...this.strains.keys()];
    const size = (i: number) => Math.abs(this.volts[i] ?? 0);
    let faint = order.filter((i) => size(i) ** 2 < FAINT * power);
    let loud = order.filter((i) => !(size(i) ** 2 < FAINT * power));
    if (loud.length > MOST_STRAINS) {
      loud.sort((a, b) => size(b) - size(a));
      faint = faint.concat(loud.slice(MOST_STRAINS));
      loud = loud.slice(0, MOST_STRAINS);
    }
    if (!faint.length) return this;
    const out = new Meeting();
    for (const i of loud) out.push(this, i);
    for (const i of faint) {
      const { device } = this.strains[i] ?? { device: '' };
      out.add(strainOf(`rest of ${device}`, device, 0, 'rest'), this.volts[i] ?? 0);
    }
    return out;
  }

  private push(from: Meeting, i: number): void {
    const strain = from.strains[i];
    if (!strain) return;
    this.strains.push(strain);
    this.volts.push(from.volts[i] ?? 0);
  }
}
