import { at as entryAt } from '../outcome';
import type { Flow } from './flow';
import { dbuOfVolts, sumOfPowers } from '../units';
import { APART_MS, FAR_UNDER_DB, firstNotchHertz } from './combing';
import { reachedFrom, routeTo, type Station } from '../walk';
import { type Hears, kindOf } from '../kinds';
import {
  loudest,
  type PointFigures,
  presentFigures,
  type Touches,
  type Widener,
  widenersOf,
  type Width,
  widthOf,
} from './point-figures';
import type { SoundContext } from './sound-context';
import type { StationFigures } from './station-figures';

/** What arrives at one destination in one sound. Of two sides, the figures are those of the louder. */
export interface DestinationFigures {
  device: string;
  name: string;
  hears: Hears;
  connected: boolean;
  /** Whether every switch on some way to it is made in this sound. */
  selected: boolean;
  levelDbu: Touches | null;
  peakDbu: number | null;
  noiseDbu: number | null;
  idleNoiseDbu: number | null;
  signalToNoiseDb: number | null;
  noisiest: string | null;
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
  /** Devices whose two sides arrive apart at its two jacks, and whether the sides are exchanged. */
  wideners: Widener[];
  /** Where the signal became wide, and where it was made mono again, if it was. */
  widenedBy: string | null;
  collapsedAt: string | null;
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
  /** Stations on the way, by id, in the order they are met. */
  route: string[];
}

const emptyPoint = {
  levelDbu: null,
  peakDbu: null,
  noiseDbu: null,
  idleNoiseDbu: null,
  noisiest: null,
  thdPercent: null,
  latencyMs: null,
} satisfies Partial<PointFigures>;

/** Figures of every destination of a sound. The noise of the destination's own input is counted. */
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
  const arrivals = new Map(ctx.flowing.circuit.arrivals.map((a) => [a.device, a.arrive]));
  const found = ctx.destinations.map(({ device, points }): DestinationFigures => {
    const presents = points.map((p) => ctx.at(device.id, p));
    const loud = presents.reduce((a, b) =>
      (loudest(b.flows)?.volts[1] ?? 0) > (loudest(a.flows)?.volts[1] ?? 0) ? b : a,
    );
    const f =
      loud.flows.length || loud.noise.power ? presentFigures(loud) : { ...emptyPoint, sources: [] };
    const own = arrivals.get(device.id)?.noiseDbu ?? -Infinity;
    const withOwn = (dbu: number | null) => {
      const sum = sumOfPowers(dbu ?? -Infinity, own);
      return Number.isFinite(sum) ? sum : null;
    };
    const noiseDbu = withOwn(f.noiseDbu);
    const main = loudest(loud.flows);
    const channels = widthOf(presents.map((p) => p.flows));
    const route = routeTo(ctx.stations, ctx.steps, (s) => s.device === device.id);
    const wide = presents.flatMap((p) => p.flows).filter((x) => x.widenedBy);
    const widened = wide[0]?.widenedBy ?? null;
    const sides = new Set(wide.map((x) => x.side));
    const side = channels === 'mono' && sides.size === 1 ? (entryAt(wide, 0).side ?? null) : null;
    return {
      device: device.id,
      name: device.name,
      hears: kindOf(device.kind).destination!.hears,
      connected: couldHear.has(device.id),
      selected: hearsNow.has(device.id),
      levelDbu: f.levelDbu,
      peakDbu: f.peakDbu,
      noiseDbu,
      idleNoiseDbu: withOwn(f.idleNoiseDbu),
      signalToNoiseDb: f.levelDbu && noiseDbu !== null ? f.levelDbu.normal - noiseDbu : null,
      noisiest: noiseDbu !== null && own > (f.noiseDbu ?? -Infinity) ? device.id : f.noisiest,
      thdPercent: f.thdPercent,
      channels,
      wetPercent: wetShare(presents.flatMap((p) => p.flows)),
      latencyMs: f.latencyMs,
      polarity: main ? (main.polarity === 1 ? 'as played' : 'turned') : null,
      sources: [...new Set(presents.flatMap((p) => p.flows.map((x) => x.source)))],
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
      wideners: widenersOf(presents.map((p) => p.flows)),
      widenedBy: widened,
      collapsedAt:
        widened && channels === 'mono' && !side ? collapse(route, stations, widened) : null,
      side,
      pairedWith: null,
      notchHz: firstNotch(presents.map((p) => p.flows)),
      route: route.map((s) => s.id),
    };
  });
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
