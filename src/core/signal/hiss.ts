/**
 * One noise on its way: what made it, the amplitude in V with its sign, and what tells it from other
 * copies of itself.
 */
interface Part {
  /** What made it: copies of one noise add as waves, others as powers. */
  origin: string;
  device: string;
  volts: number;
  lateMs: number;
  /** What has made it another wave than its origin's: an effect, or one side of a widened signal. */
  apart: string;
}

/** Noise at one place: its power in V², and the device that gives most of it. */
export interface Hiss {
  power: number;
  most?: string;
  parts: ReadonlyMap<string, Part>;
}

export const SILENT: Hiss = { power: 0, parts: new Map() };

/** Copies of one noise within 10 µs of one another are one wave. */
const keyOf = (p: Part): string =>
  `${p.origin} ${p.lateMs ? Math.round(p.lateMs * 100) : ''} ${p.apart}`;

/**
 * A noise of less than this share of the power (35 dB under all of it) no longer knows its copies:
 * together with them it could change the whole by a hundredth of a decibel.
 */
const FAINT = 3e-4;
/** So few are all followed. */
const FEW = 6;
/** More are never followed one by one: in a circle that takes time, every round would add copies. */
const MOST_PARTS = 48;

/** Noise of a power in V² that a device makes by itself. */
export const ownHiss = (device: string, origin: string, power: number): Hiss =>
  power > 0 ? summed([{ origin, device, volts: Math.sqrt(power), lateMs: 0, apart: '' }]) : SILENT;

/**
 * Noises that meet. Copies of one noise that arrive at the same time add as waves, with their signs,
 * as the signal beside them does; what an effect has spread, and different noises, as powers.
 */
export function addHiss(list: readonly Hiss[]): Hiss {
  const some = list.filter((h) => h.power > 0);
  if (some.length < 2) return some[0] ?? SILENT;
  return summed(some.flatMap((h) => [...h.parts.values()]));
}

/** Noise times a gain (negative where it is turned over), and what else happens to it on the way. */
export function scaleHiss(h: Hiss, gain: number, lateMs = 0, apart = ''): Hiss {
  if (gain === 1 && !lateMs && !apart) return h;
  if (!h.power || !gain) return SILENT;
  const parts = new Map<string, Part>();
  for (const [key, p] of h.parts)
    meet(parts, lateMs || apart ? undefined : key, {
      ...p,
      volts: p.volts * gain,
      lateMs: p.lateMs + lateMs,
      apart: apart || p.apart,
    });
  return { power: h.power * gain * gain, most: h.most, parts };
}

/** Adds one noise to those that are there: to a copy of itself as a wave, or as a power. */
function meet(parts: Map<string, Part>, key: string | undefined, p: Part): void {
  const at = key ?? keyOf(p);
  const was = parts.get(at);
  if (was)
    parts.set(at, {
      ...was,
      volts: p.apart ? Math.hypot(was.volts, p.volts) : was.volts + p.volts,
    });
  else parts.set(at, p);
}

function summed(list: readonly Part[]): Hiss {
  const parts = new Map<string, Part>();
  for (const p of list) meet(parts, undefined, p);
  let power = 0;
  for (const { volts } of parts.values()) power += volts * volts;
  if (!(power > 0)) return SILENT;
  const kept = parts.size > FEW ? withoutFaint(parts, power) : parts;
  const byDevice = new Map<string, number>();
  for (const { device, volts } of kept.values())
    byDevice.set(device, (byDevice.get(device) ?? 0) + volts * volts);
  const most = [...byDevice].reduce((a, b) => (b[1] > a[1] ? b : a), ['', 0] as const)[0];
  return { power, most, parts: kept };
}

/** The louder ones one by one; the faint ones one a device, as powers. */
function withoutFaint(parts: ReadonlyMap<string, Part>, power: number): ReadonlyMap<string, Part> {
  const loud: [string, Part][] = [];
  const faint: Part[] = [];
  for (const [key, p] of parts)
    if (p.volts * p.volts < FAINT * power) faint.push(p);
    else loud.push([key, p]);
  if (loud.length > MOST_PARTS) {
    loud.sort((a, b) => Math.abs(b[1].volts) - Math.abs(a[1].volts));
    faint.push(...loud.splice(MOST_PARTS).map(([, p]) => p));
  }
  const out = new Map(loud);
  for (const p of faint) {
    const origin = `rest of ${p.device}`;
    meet(out, origin, { origin, device: p.device, volts: p.volts, lateMs: 0, apart: 'rest' });
  }
  return out;
}
