import { at as entryAt, sure } from '../outcome';
import { type Flow, totalVolts } from './meeting';
import { dbuOfVolts, sumOfPowers } from '../units';
import { APART_MS, FAR_UNDER_DB, firstNotchHertz } from './combing';
import { reachedFrom, routeTo, type Station } from '../walk';
import { type Hears, kindOf } from '../kinds';
import type { Device } from '../rig/schema';
import {
  heardAfterMs,
  loudest,
  type PointFigures,
  presentFigures,
  SILENCE_DBU,
  type Touches,
  type Widener,
  widenersOf,
  type Width,
  widthOf,
} from './point-figures';
import type { SoundContext } from './sound-context';
import type { StationFigures } from './station-figures';

/** One source at one jack: `side` where the destination has two. */
export interface Apart {
  jack: string;
  side: 'left' | 'right' | null;
  source: string;
  levelDbu: number;
  latencyMs: number;
}

/** What arrives at one destination in one sound. Of two sides, the figures are those of the louder. */
export interface Arriving {
  device: string;
  name: string;
  hears: Hears;
  levelDbu: Touches | null;
  peakDbu: number | null;
  noiseDbu: number | null;
  idleNoiseDbu: number | null;
  signalToNoiseDb: number | null;
  noisiest: string | null;
  /** The same of what is left between notes, with gates shut. */
  idleNoisiest: string | null;
  thdPercent: Touches | null;
  channels: Width;
  /**
   * How much of what arrives has been through an echo, a reverberation or a modulation, in percent
   * of its power.
   */
  wetPercent: number | null;
  latencyMs: number | null;
  polarity: 'as played' | 'turned' | null;
  sources: string[];
  /** Each jack on its own, where there are two: what one ear or one track gets. */
  sides: {
    jack: string;
    sources: string[];
    levelDbu: Touches | null;
    noiseDbu: number | null;
    thdPercent: Touches | null;
    latencyMs: number | null;
  }[];
  /** Each source at each jack on its own, at normal picking. */
  each: Apart[];
  /** Devices whose two sides arrive apart at its two jacks, and whether the sides are exchanged. */
  wideners: Widener[];
  /** Where the signal became wide. */
  widenedBy: string | null;
  /**
   * Which side of a widened signal is all that arrives here, and the destination for the same ears
   * that gets the other.
   */
  side: 'left' | 'right' | null;
  pairedWith: string | null;
  /**
   * The lowest frequency, in Hz, at which two dry copies of one source that arrive apart cancel
   * here; nothing where none do.
   */
  notchHz: number | null;
}

/** What arrives at one destination in one sound, and by which way. */
export interface DestinationFigures extends Arriving {
  connected: boolean;
  /** Whether every switch on some way to it is made in this sound. */
  selected: boolean;
  /** Where what was wide was made mono again, if it was. */
  collapsedAt: string | null;
  /** Stations on the way, by id, in the order they are met. */
  route: string[];
}

const emptyPoint = {
  levelDbu: null,
  peakDbu: null,
  noiseDbu: null,
  idleNoiseDbu: null,
  noisiest: null,
  idleNoisiest: null,
  thdPercent: null,
  latencyMs: null,
} satisfies Partial<PointFigures>;

/** Figures of every destination of a sound, with the ways to it. */
export function destinationFigures(
  ctx: SoundContext,
  stations: readonly StationFigures[],
): DestinationFigures[] {
  const begins = (s: Station) => s.source || beginsSignal(ctx, s.device);
  const couldHear = devicesOf(ctx, reachedFrom(ctx.stations, ctx.steps, begins, true));
  const hearsNow = devicesOf(
    ctx,
    reachedFrom(ctx.stations, ctx.steps, (s) => s.source),
  );
  return arrivingFigures(ctx).map((arriving) => {
    const { device, widenedBy, channels, side } = arriving;
    const route = routeTo(ctx.stations, ctx.steps, (s) => s.device === device);
    return Object.assign({}, arriving, {
      connected: couldHear.has(device),
      selected: hearsNow.has(device),
      collapsedAt:
        widenedBy && channels === 'mono' && !side ? collapse(route, stations, widenedBy) : null,
      route: route.map((s) => s.id),
    });
  });
}

/**
 * What arrives at every destination of a sound, without the ways to it: all that a copy is asked
 * which was made to hear a difference. The noise of the destination's own input is counted.
 */
export function arrivingFigures(ctx: SoundContext): Arriving[] {
  const arrivals = new Map(ctx.flowing.circuit.arrivals.map((a) => [a.device, a.arrive]));
  const found = ctx.destinations.map(({ device, points }) =>
    arrivingAt(ctx, device, points, arrivals.get(device.id)?.noiseDbu ?? -Infinity),
  );
  // Two speakers for the same ears that get a side each are one stereo pair.
  for (const d of found)
    d.pairedWith =
      (d.side &&
        found.find(
          (o) =>
            o !== d &&
            o.hears === d.hears &&
            o.widenedBy === d.widenedBy &&
            o.side !== null &&
            o.side !== d.side,
        )?.device) ||
      null;
  return found;
}

/** What arrives at the jacks of one destination, whose own input adds a noise in dBu. */
function arrivingAt(
  ctx: SoundContext,
  device: Device,
  points: readonly string[],
  own: number,
): Arriving {
  const presents = points.map((p) => ctx.at(device.id, p));
  const all = presents.map((p) => p.flows);
  const loud = presents.reduce((a, b) =>
    (loudest(b.flows)?.volts[1] ?? 0) > (loudest(a.flows)?.volts[1] ?? 0) ? b : a,
  );
  const f =
    loud.flows.length || loud.noise.power ? presentFigures(loud) : { sources: [], ...emptyPoint };
  const withOwn = (dbu: number | null) => {
    const sum = sumOfPowers(dbu ?? -Infinity, own);
    return Number.isFinite(sum) ? sum : null;
  };
  const [noiseDbu, idleNoiseDbu] = [withOwn(f.noiseDbu), withOwn(f.idleNoiseDbu)];
  const mostOf = (sum: number | null, dbu: number | null, by: string | null) =>
    sum !== null && own > (dbu ?? -Infinity) ? device.id : by;
  const main = loudest(loud.flows);
  const channels = widthOf(all);
  const wide = all.flat().filter((x) => x.widenedBy);
  const sides = new Set(wide.map((x) => x.side));
  return {
    device: device.id,
    name: device.name,
    hears: sure(kindOf(device.kind).destination).hears,
    levelDbu: f.levelDbu,
    peakDbu: f.peakDbu,
    noiseDbu,
    idleNoiseDbu,
    signalToNoiseDb: f.levelDbu && noiseDbu !== null ? f.levelDbu.normal - noiseDbu : null,
    noisiest: mostOf(noiseDbu, f.noiseDbu, f.noisiest),
    idleNoisiest: mostOf(idleNoiseDbu, f.idleNoiseDbu, f.idleNoisiest),
    thdPercent: f.thdPercent,
    channels,
    wetPercent: wetShare(all.flat()),
    latencyMs: f.latencyMs,
    polarity: main ? (main.polarity === 1 ? 'as played' : 'turned') : null,
    sources: [...new Set(all.flat().map((x) => x.source))],
    sides:
      points.length < 2
        ? []
        : points.map((jack, i) => {
            const {
              sources,
              levelDbu,
              noiseDbu: hiss,
              thdPercent,
              latencyMs,
            } = presentFigures(entryAt(presents, i));
            return { jack, sources, levelDbu, noiseDbu: withOwn(hiss), thdPercent, latencyMs };
          }),
    each: points.flatMap((jack, i) =>
      eachSource(entryAt(all, i)).map((x) => ({
        jack,
        side: points.length < 2 ? null : i === 0 ? 'left' : 'right',
        ...x,
      })),
    ),
    wideners: widenersOf(all),
    widenedBy: wide[0]?.widenedBy ?? null,
    side: channels === 'mono' && sides.size === 1 ? (wide[0]?.side ?? null) : null,
    pairedWith: null,
    notchHz: firstNotch(all),
  };
}

/** Level and latency of each source at a jack; what is as good as silent is left out. */
const eachSource = (flows: readonly Flow[]): Pick<Apart, 'source' | 'levelDbu' | 'latencyMs'>[] =>
  [...levelBySource({ flows })].flatMap(([source, levelDbu]) => {
    const own = flows.filter((f) => f.source === source);
    const loud = loudest(own);
    return loud && levelDbu > SILENCE_DBU
      ? [{ source, levelDbu, latencyMs: heardAfterMs(own, loud) }]
      : [];
  });

/** The level at normal picking of each source that is present, in dBu. */
function levelBySource({ flows }: { flows: readonly Flow[] }): Map<string, number> {
  const sources = [...new Set(flows.map((f) => f.source))];
  return new Map(
    sources.map((source) => [
      source,
      dbuOfVolts(
        totalVolts(
          flows.filter((f) => f.source === source),
          1,
        ),
      ),
    ]),
  );
}

/** Share of the power at normal picking that is wet, in percent; nothing where nothing arrives. */
function wetShare(flows: readonly Flow[]): number | null {
  const power = (list: readonly Flow[]) => list.reduce((sum, f) => sum + f.volts[1] ** 2, 0);
  const all = power(flows);
  return all > 0 ? (100 * power(flows.filter((f) => f.wet))) / all : null;
}

/** The first station behind the widening one whose output is mono. */
function collapse(
  route: readonly Station[],
  stations: readonly StationFigures[],
  widener: string,
): string | null {
  const from = route.findIndex((s) => s.device === widener);
  const found = route
    .slice(from + 1)
    .find((s) => stations.find((x) => x.id === s.id)?.width === 'mono');
  return found?.device ?? null;
}

/** Devices of stations that signal comes into. */
const devicesOf = (ctx: SoundContext, ids: ReadonlySet<string>): Set<string> =>
  new Set(ctx.stations.filter((s) => ids.has(s.id) && s.ins.length > 0).map((s) => s.device));

/** Whether signal begins at a device, even while it is not played: nothing can be plugged into it. */
const beginsSignal = (ctx: SoundContext, device: string): boolean =>
  kindOf(ctx.device(device).kind).jacks.every((j) => j.direction === 'out');

/**
 * The first notch of the widest pair of dry copies of one source that lie within reach of one
 * another, jack by jack.
 */
function firstNotch(jacks: readonly (readonly Flow[])[]): number | null {
  let apart = 0;
  for (const flows of jacks) {
    const dry = flows.filter((f) => !f.wet && !f.side);
    for (const a of dry)
      for (const b of dry)
        if (
          a.source === b.source &&
          Math.abs(dbuOfVolts(a.volts[1]) - dbuOfVolts(b.volts[1])) <= FAR_UNDER_DB
        )
          apart = Math.max(apart, b.latencyMs - a.latencyMs);
  }
  return apart > APART_MS ? firstNotchHertz(apart) : null;
}
