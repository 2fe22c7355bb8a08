import { at as entryAt } from '../outcome';
import type { CircuitStage } from '../circuit';
import { byKey } from '../graph';
import type { Station } from '../walk';
import {
  type Width,
  widthOf,
  netImpedances,
  type PointFigures,
  presentFigures,
} from './point-figures';
import type { SoundContext } from './sound-context';

/** A station with its figures: what comes in, what goes out, and what lies between. */
export interface StationFigures extends Station {
  /** At the main input; `null` where signal begins. */
  input: PointFigures | null;
  output: PointFigures;
  width: Width;
  /** Room between the peak and the clip point, in dB; `null` where clipping is meant or nothing active stands. */
  headroomDb: number | null;
  /** The level at which the output clips, in dBu. */
  clipDbu: number | null;
  /** Small-signal gain from in to out, in dB; noise rides on it. */
  gainDb: number | null;
}

/** Figures at a jack. */
export function pointFigures(ctx: SoundContext, device: string, point: string): PointFigures {
  const at = ctx.at(device, point);
  const impedances =
    at.net >= 0
      ? netImpedances(ctx.flowing, at.net)
      : { sourceOhms: null, loadOhms: null, lossDb: null, leadPf: 0 };
  return { ...presentFigures(at), ...impedances };
}

/** Ceilings from here on stand for "does not clip". */
const NEVER_DBU = 60;

/** Figures of every station of a sound, in the order of the walk. */
export function stationFigures(ctx: SoundContext): StationFigures[] {
  const stagesAt = byKey(
    ctx.flowing.circuit.stages.filter((s) => !s.lead),
    (s) => s.device,
  );
  return ctx.stations
    .map((station) => {
      const destination = ctx.destinations.find((d) => d.device.id === station.device);
      const outPoint = station.outs[0] ?? destination?.points[0] ?? entryAt(station.ins, 0);
      const outPoints = station.outs.length ? station.outs : (destination?.points ?? station.ins);
      return {
        ...station,
        input: station.ins[0] ? pointFigures(ctx, station.device, station.ins[0]) : null,
        output: pointFigures(ctx, station.device, outPoint),
        ...roomAt(ctx, station, stagesAt.get(station.device)),
        width: widthOf(outPoints.map((p) => ctx.at(station.device, p).flows)),
      };
    })
    .sort((a, b) => a.lane - b.lane || a.column - b.column);
}

/** Room, clip point and gain of one station, from its stages or, where it is a destination, its input. */
export function roomAt(
  ctx: SoundContext,
  station: Pick<Station, 'device' | 'ins'>,
  stages: readonly CircuitStage[] = ctx.flowing.circuit.stages.filter(
    (s) => !s.lead && s.device === station.device,
  ),
): Pick<StationFigures, 'headroomDb' | 'clipDbu' | 'gainDb'> {
  let headroomDb: number | null = null;
  let clipDbu: number | null = null;
  let gainDb: number | null = null;
  const nets = new Set(station.ins.map((j) => ctx.at(station.device, j).net));
  for (const { from, stage } of stages) {
    if (!nets.has(from) || stage.muted || stage.ceiling.dbu >= NEVER_DBU) continue;
    const peak = presentFigures(ctx.flowing.present(from)).peakDbu;
    clipDbu = Math.max(clipDbu ?? -Infinity, stage.ceiling.dbu + Math.max(stage.outputDb, -200));
    gainDb = Math.max(gainDb ?? -Infinity, stage.gainDb + stage.outputDb);
    if (!stage.ceiling.meant && peak !== null)
      headroomDb = Math.min(headroomDb ?? Infinity, stage.ceiling.dbu - stage.gainDb - peak);
  }
  for (const a of ctx.flowing.circuit.arrivals) {
    if (a.device !== station.device || a.arrive.maxDbu >= NEVER_DBU) continue;
    const peak = presentFigures(ctx.flowing.present(a.net)).peakDbu;
    clipDbu = a.arrive.maxDbu;
    if (peak !== null) headroomDb = Math.min(headroomDb ?? Infinity, a.arrive.maxDbu - peak);
  }
  return { headroomDb, clipDbu, gainDb };
}
