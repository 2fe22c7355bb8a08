import type { CircuitStage } from '../circuit/circuit';
import { sourceId } from '../rig/source-id';
import { at as entryAt } from '../outcome';
import { type Flowing, listenersIn, visits } from '../signal/flow';
import { FAINT, STEPS_A_MS } from '../signal/hiss';
import { dbuOfVolts, ratio, voltsOfDbu } from '../units';
import {
  HISS,
  HUM,
  type Lines,
  type Mains,
  type Row,
  sectionOver,
  stageOver,
  through,
  together,
} from './noise-lines';

/** One noise at a place: what made it, what it has gone through, and how much of it there is where. */
export interface Strand {
  origin: string;
  device: string;
  /** What has made it another wave than its origin's: an effect, or one side of a widened signal. */
  apart: string;
  lateMs: number;
  lines: Lines;
  row: Row;
}

const keyOf = (s: Strand) =>
  `${s.lines.name} ${s.origin} ${s.device} ${Math.round(s.lateMs * STEPS_A_MS)} ${s.apart}`;

/**
 * All noise of a circuit, between notes (`idle`, gates shut where nothing opens them) or while
 * something is played, as the strands at a net: hiss of sources and stages, heat of networks, and
 * the hum that coils pick up. Hum of earth loops is not in it: nobody knows their currents.
 */
export function runNoise(
  flowing: Flowing,
  isIdle: boolean,
  mains: Mains,
): (net: number) => readonly Strand[] {
  // The idea is that of the levels' noise, line by line: sections in an order in which each comes
  // after what feeds it, small-signal gains, copies of one noise as waves where they arrive together
  // and as powers where they do not. What a stage and a section do is taken at each line.
  const { circuit } = flowing;
  const { order, isBack, sectionOfNet } = visits(circuit);
  const atNet: Strand[][] = circuit.nets.map(() => []);
  const sections = circuit.sections.map((s) => sectionOver(circuit, s));
  const listeners = listenersIn(circuit);

  const heat = (s: CircuitStage): Strand[] => {
    const section = entryAt(circuit.sections, sectionOfNet(s.from));
    if (!section.drivers.length || s.stage.inOhms === Infinity) return [];
    const { device, point } = entryAt(entryAt(circuit.nets, s.from).points, 0);
    const row = entryAt(sections, section.index).heat(section.nets.indexOf(s.from));
    const by = listeners.get(s.from) ?? s.device;
    return [{ ...fresh(`at ${device} ${point}`, by, HISS), row }];
  };
  const isShut = ({ stage, keyNet }: CircuitStage): boolean => {
    if (!isIdle || !stage.gate) return false;
    const key = keyNet === undefined ? undefined : flowing.present(keyNet);
    return !key || dbuOfVolts(Math.sqrt(key.idle.power)) < stage.gate.thresholdDbu;
  };
  const behind = (s: CircuitStage): Strand[] => {
    if (s.stage.muted) return [];
    const shut = isShut(s) ? ratio(-(s.stage.gate?.rangeDb ?? 0)) : 1;
    const input = entryAt(atNet, s.from).map((x) => scaled(x, shut));
    const own = madeBy(`${s.device} ${s.stage.id}`, s.device, s.stage.noiseDbu, HISS);
    return leaving(s, joined([...input, ...own, ...heat(s)]));
  };

  for (const index of order) {
    const section = entryAt(circuit.sections, index);
    const driven = section.drivers.map((d) => {
      const made = d.source
        ? madeBy(
            sourceId(d.device, d.source.name),
            d.device,
            d.source.noiseDbu,
            // What a coil picks up is hum; other sources hiss.
            d.source.bare ? HUM[mains] : HISS,
          )
        : [];
      const stages = d.stages.filter((s) => !isBack(sectionOfNet(s.from), index));
      return joined([...made, ...stages.flatMap(behind)]);
    });
    const { response } = entryAt(sections, index);
    section.nets.forEach((net, n) => {
      atNet[net] = joined(
        driven.flatMap((strands, k) =>
          strands.map((s) => ({ ...s, row: through(s.row, response(s.lines, k, n), 1) })),
        ),
      );
    });
  }
  return (net) => atNet[net] ?? [];
}

const fresh = (origin: string, device: string, lines: Lines) => ({
  ...{ origin, device, lines, apart: '', lateMs: 0 },
});

/** Noise of so many dBu that something makes by itself. */
export const madeBy = (origin: string, device: string, dbu: number, lines: Lines): Strand[] => {
  if (!(dbu > -Infinity)) return [];
  const { shape } = lines;
  const bare = { re: shape, im: new Float64Array(shape.length) };
  return [{ ...fresh(origin, device, lines), row: through(bare, undefined, voltsOfDbu(dbu)) }];
};

const scaled = (s: Strand, by: number): Strand =>
  by === 1 ? s : { ...s, row: through(s.row, undefined, by) };

const powerOf = ({ row }: Strand): number => {
  let power = 0;
  for (let i = 0; i < row.re.length; i++) power += row.re[i]! ** 2 + row.im[i]! ** 2;
  return power;
};

/** So few are all followed. */
const FEW = 12;

/** Copies of one noise joined, and of many the faint ones by device, as powers. */
function joined(strands: readonly Strand[]): Strand[] {
  const all = gathered(strands, keyOf);
  if (all.length <= FEW) return all;
  const powers = all.map(powerOf);
  const least = FAINT * powers.reduce((a, b) => a + b, 0);
  const loud = all.filter((_, i) => powers[i]! >= least);
  const faint = all
    .filter((_, i) => powers[i]! < least)
    .map((s) => ({ ...s, origin: `rest of ${s.device}`, apart: 'rest', lateMs: 0 }));
  return gathered([...loud, ...faint], keyOf);
}

function gathered(strands: readonly Strand[], keyOf: (s: Strand) => string): Strand[] {
  const found = new Map<string, Strand>();
  for (const s of strands) {
    const key = keyOf(s);
    const was = found.get(key);
    found.set(key, was ? { ...was, row: together(was.row, s.row, s.apart !== '') } : s);
  }
  return [...found.values()];
}

/** What a stage makes of noise: its filters, small-signal gain under its ceiling, and its ways out. */
function leaving({ device, stage }: CircuitStage, strands: readonly Strand[]): Strand[] {
  const gain = ratio(stage.gainDb);
  const power = strands.reduce((sum, s) => sum + powerOf(s), 0);
  const under = 1 / Math.sqrt(1 + (power * gain * gain) / voltsOfDbu(stage.ceiling.dbu) ** 2);
  const by = gain * under * ratio(stage.outputDb) * (stage.inverts ? -1 : 1);
  const side = stage.side ? `${device} ${stage.side}` : '';
  const way = (s: Strand, more: number, apart: string): Strand => ({
    ...s,
    row: through(s.row, stageOver(stage, s.lines), by * more),
    lateMs: s.lateMs + stage.latencyMs,
    apart: apart || s.apart,
  });
  const { wet } = stage;
  if (!wet) return strands.map((s) => way(s, 1, side));
  return strands.flatMap((s) => [
    ...(wet.dryDb > -Infinity ? [way(s, ratio(wet.dryDb), '')] : []),
    ...(wet.wetDb > -Infinity ? [way(s, ratio(wet.wetDb), `${device} ${side}`)] : []),
  ]);
}
