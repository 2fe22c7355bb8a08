import { sumOfPowers } from '../units';
import { routeTo, type Station } from '../walk';
import { type Hears, kindOf } from '../kinds';
import { loudest, type PointFigures, presentFigures, type Touches, type Width, widthOf } from './figures';
import type { SoundContext } from './sound-context';
import type { StationFigures } from './stations';

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
  latencyMs: number | null;
  polarity: 'as played' | 'turned' | null;
  sources: string[];
  /** Where the signal became wide, and where it was made mono again, if it was. */
  widenedBy: string | null;
  collapsedAt: string | null;
  /** Stations on the way, by id, in the order they are met. */
  route: string[];
}

const emptyPoint = { levelDbu: null, peakDbu: null, noiseDbu: null, idleNoiseDbu: null, noisiest: null, thdPercent: null, latencyMs: null } satisfies Partial<PointFigures>;

/** Figures of every destination of a sound. The noise of the destination's own input is counted. */
export function destinationFigures(ctx: SoundContext, stations: readonly StationFigures[]): DestinationFigures[] {
  return ctx.destinations.map(({ device, points }) => {
    const presents = points.map((p) => ctx.at(device.id, p));
    const loud = presents.reduce((a, b) => ((loudest(b.flows)?.volts[1] ?? 0) > (loudest(a.flows)?.volts[1] ?? 0) ? b : a));
    const f = loud.flows.length || loud.noise.power ? presentFigures(loud) : { ...emptyPoint, sources: [] };
    const own = ctx.flowing.circuit.arrivals.find((a) => a.device === device.id)?.arrive.noiseDbu ?? -Infinity;
    const withOwn = (dbu: number | null) => {
      const sum = sumOfPowers(dbu ?? -Infinity, own);
      return Number.isFinite(sum) ? sum : null;
    };
    const noiseDbu = withOwn(f.noiseDbu);
    const main = loudest(loud.flows);
    const channels = widthOf(presents.map((p) => p.flows));
    const route = routeTo(ctx.stations, ctx.steps, (s) => s.device === device.id);
    const widened = presents.flatMap((p) => p.flows).find((x) => x.widenedBy)?.widenedBy ?? null;
    return {
      device: device.id, name: device.name, hears: kindOf(device.kind).destination!.hears,
      connected: ctx.stations.some((s) => s.device === device.id && s.ins.length > 0) && routeTo(ctx.stations, ctx.steps, (s) => s.device === device.id, true).some((s) => s.source),
      selected: route.some((s) => s.source),
      levelDbu: f.levelDbu, peakDbu: f.peakDbu, noiseDbu, idleNoiseDbu: withOwn(f.idleNoiseDbu),
      signalToNoiseDb: f.levelDbu && noiseDbu !== null ? f.levelDbu.normal - noiseDbu : null,
      noisiest: noiseDbu !== null && own > (f.noiseDbu ?? -Infinity) ? device.id : f.noisiest, thdPercent: f.thdPercent, channels,
      latencyMs: f.latencyMs, polarity: main ? (main.polarity === 1 ? 'as played' : 'turned') : null, sources: f.sources,
      widenedBy: widened, collapsedAt: widened && channels === 'mono' ? collapse(route, stations, widened) : null,
      route: route.map((s) => s.id),
    };
  });
}

/** The first station behind the widening one whose output is mono. */
function collapse(route: readonly Station[], stations: readonly StationFigures[], widener: string): string | null {
  const from = route.findIndex((s) => s.device === widener);
  const found = route.slice(from + 1).find((s) => stations.find((x) => x.id === s.id)?.width === 'mono');
  return found?.device ?? null;
}
