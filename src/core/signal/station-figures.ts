import { at as entryAt } from '../outcome';
import type { Circuit, CircuitStage } from '../circuit';
import { byKey } from '../graph';
import { figurePoints, type Station } from '../walk';
import {
  type Width,
  widthOf,
  netImpedances,
  type PointFigures,
  presentFigures,
  presentPeak,
} from './point-figures';
import type { SoundContext } from './sound-context';

/** A station with its figures: what comes in, what goes out, and what lies between. */
export interface StationFigures extends Station {
  /** At the main input; `null` where signal begins. */
  input: PointFigures | null;
  /** At the first of its outputs that carries signal, or at the first; of what ends here, where it comes in. */
  output: PointFigures;
  width: Width;
  /** Room between the peak and the clip point, in dB; `null` where clipping is meant or nothing active stands. */
  headroomDb: number | null;
  /** The level at which the output clips, in dBu. */
  clipDbu: number | null;
  /** Small-signal gain from in to out, in dB; noise rides on it. */
  gainDb: number | null;
}

/** Figures at a jack; all jacks on one net have the same, which are worked out once. */
export function pointFigures(
  { flowing, figures: known }: SoundContext,
  device: string,
  point: string,
): PointFigures {
  const net = flowing.circuit.netAt(device, point);
  let figures = known.get(net?.index ?? NOWHERE);
  if (!figures) {
    const impedances = net
      ? netImpedances(flowing, net.index)
      : { sourceOhms: null, loadOhms: null, lossDb: null, leadPf: 0 };
    // Not by spreading: each entry that is added to what was spread gives the object a shape of its own.
    const present = presentFigures(flowing.present(net?.index ?? NOWHERE));
    figures = Object.assign({}, present, impedances);
    known.set(net?.index ?? NOWHERE, figures);
  }
  return figures;
}

/** No net has this number: what is there is silence. */
const NOWHERE = -1;

/** Ceilings from here on stand for "does not clip". */
const NEVER_DBU = 60;

/** Figures of every station of a sound, in the order of the walk. */
export function stationFigures(ctx: SoundContext): StationFigures[] {
  const stagesAt = byKey(
    ctx.flowing.circuit.stages.filter((s) => !s.lead),
    (s) => s.device,
  );
  const arrivalsAt = byKey(ctx.flowing.circuit.arrivals, (a) => a.device);
  const destinations = new Map(ctx.destinations.map((d) => [d.device.id, d]));
  return ctx.stations
    .map((station) => {
      const destination = destinations.get(station.device);
      const outPoints = figurePoints(station, destination?.points);
      const figures = outPoints.map((p) => pointFigures(ctx, station.device, p));
      // Given even where there are none: else all are gone through.
      const stages = stagesAt.get(station.device) ?? [];
      const room = roomAt(ctx, station, stages, arrivalsAt.get(station.device) ?? []);
      return Object.assign({}, station, {
        input: station.ins[0] ? pointFigures(ctx, station.device, station.ins[0]) : null,
        output: figures.find((f) => f.levelDbu) ?? entryAt(figures, 0),
        headroomDb: room.headroomDb,
        clipDbu: room.clipDbu,
        gainDb: room.gainDb,
        width: widthOf(outPoints.map((p) => ctx.at(station.device, p).flows)),
      });
    })
    .sort((a, b) => a.lane - b.lane || a.column - b.column);
}

const peakAt = (ctx: SoundContext, net: number) => presentPeak(ctx.flowing.present(net).flows);

/** Room, clip point and gain of one station, from its stages or, where it is a destination, its input. */
export function roomAt(
  ctx: SoundContext,
  station: Pick<Station, 'device' | 'ins'>,
  stages: readonly CircuitStage[] = ctx.flowing.circuit.stages.filter(
    (s) => !s.lead && s.device === station.device,
  ),
  arrivals: Circuit['arrivals'] = ctx.flowing.circuit.arrivals.filter(
    (a) => a.device === station.device,
  ),
): Pick<StationFigures, 'headroomDb' | 'clipDbu' | 'gainDb'> {
  let headroomDb: number | null = null;
  let clipDbu: number | null = null;
  let gainDb: number | null = null;
  const nets = new Set(station.ins.map((j) => ctx.at(station.device, j).net));
  for (const { from, stage } of stages) {
    if (!nets.has(from) || stage.muted || stage.ceiling.dbu >= NEVER_DBU) continue;
    const peak = peakAt(ctx, from);
    clipDbu = Math.max(clipDbu ?? -Infinity, stage.ceiling.dbu + Math.max(stage.outputDb, -200));
    gainDb = Math.max(gainDb ?? -Infinity, stage.gainDb + stage.outputDb);
    if (!stage.ceiling.meant && peak !== null)
      headroomDb = Math.min(headroomDb ?? Infinity, stage.ceiling.dbu - stage.gainDb - peak);
  }
  for (const a of arrivals) {
    if (a.arrive.maxDbu >= NEVER_DBU) continue;
    const peak = peakAt(ctx, a.net);
    clipDbu = a.arrive.maxDbu;
    if (peak !== null) headroomDb = Math.min(headroomDb ?? Infinity, a.arrive.maxDbu - peak);
  }
  return { headroomDb, clipDbu, gainDb };
}
