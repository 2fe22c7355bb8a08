import type { CircuitStage, Driver } from '../circuit/circuit';
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

/** What tells one noise from another: what made it, and what has happened to it since. */
interface Told {
  origin: string;
  device: string;
  /** What has made it another wave than its origin's: an effect, or one side of a widened signal. */
  apart: string;
  lateMs: number;
  lines: Lines;
}

/**
 * One noise at a place, and how much of it there is where: `row`, taken `by` times. A gain changes `by` alone,
 * and is multiplied in where something acts on each line.
 */
export interface Strand extends Told {
  key: string;
  row: Row;
  by: number;
}

const strandOf = (told: Told, row: Row, by: number): Strand => {
  const { lines, origin, device, apart, lateMs } = told;
  const key = `${lines.name} ${origin} ${device} ${Math.round(lateMs * STEPS_A_MS)} ${apart}`;
  return { lines, origin, device, apart, lateMs, key, row, by };
};

/** The noise at a place between notes and while something is played: one and the same where no gate is shut. */
interface Both {
  playing: readonly Strand[];
  idle: readonly Strand[];
}
const NOTHING: Both = { playing: [], idle: [] };

/** The same done to both, once where they are one. */
function both(
  of: readonly Both[],
  act: (strands: readonly (readonly Strand[])[]) => readonly Strand[],
): Both {
  const playing = act(of.map((b) => b.playing));
  const isOne = of.every((b) => b.playing === b.idle);
  return { playing, idle: isOne ? playing : act(of.map((b) => b.idle)) };
}

const one = (strands: readonly Strand[]): Both => ({ playing: strands, idle: strands });

/**
 * All noise of a circuit, between notes (gates shut where nothing opens them) and while something is
 * played, as the strands at a net: hiss of sources and stages, heat of networks, and the hum that coils
 * pick up. Hum of earth loops is not in it: nobody knows their currents.
 */
export function runNoise(flowing: Flowing, mains: Mains): (net: number) => Both {
  // The idea is that of the levels' noise, line by line: sections in an order in which each comes
  // after what feeds it, small-signal gains, copies of one noise as waves where they arrive together
  // and as powers where they do not. What a stage and a section do is taken at each line.
  const { circuit } = flowing;
  const { order, isBack, sectionOfNet } = visits(circuit);
  const atNet: Both[] = circuit.nets.map(() => NOTHING);
  const sections = circuit.sections.map((s) => sectionOver(circuit, s));
  const listeners = listenersIn(circuit);

  const heat = (s: CircuitStage): Strand[] => {
    const section = entryAt(circuit.sections, sectionOfNet(s.from));
    if (!section.drivers.length || s.stage.inOhms === Infinity) return [];
    const { device, point } = entryAt(entryAt(circuit.nets, s.from).points, 0);
    const row = entryAt(sections, section.index).heat(section.nets.indexOf(s.from));
    const by = listeners.get(s.from) ?? s.device;
    return [strandOf(fresh(`at ${device} ${point}`, by, HISS), row, 1)];
  };
  const isShut = ({ stage, keyNet }: CircuitStage): boolean => {
    if (!stage.gate) return false;
    const key = keyNet === undefined ? undefined : flowing.present(keyNet);
    return !key || dbuOfVolts(Math.sqrt(key.idle.power)) < stage.gate.thresholdDbu;
  };
  const behind = (s: CircuitStage): Both => {
    if (s.stage.muted) return NOTHING;
    const at = entryAt(atNet, s.from);
    const shut = ratio(-(s.stage.gate?.rangeDb ?? 0));
    const input = isShut(s) ? { ...at, idle: at.idle.map((x) => scaled(x, shut)) } : at;
    const own = [
      ...madeBy(`${s.device} ${s.stage.id}`, s.device, s.stage.noiseDbu, HISS),
      ...heat(s),
    ];
    return both([input], ([strands = []]) => leaving(s, joined([...strands, ...own])));
  };
  const drivenBy = (d: Driver, index: number): Both => {
    const { source } = d;
    // What a coil picks up is hum; other sources hiss.
    const made =
      source &&
      madeBy(
        ...([sourceId(d.device, source.name), d.device, source.noiseDbu] as const),
        source.bare ? HUM[mains] : HISS,
      );
    const stages = d.stages.filter((s) => !isBack(sectionOfNet(s.from), index));
    return both([one(made ?? []), ...stages.map(behind)], (all) => joined(all.flat()));
  };

  for (const index of order) {
    const section = entryAt(circuit.sections, index);
    const driven = section.drivers.map((d) => drivenBy(d, index));
    const { response } = entryAt(sections, index);
    section.nets.forEach((net, n) => {
      atNet[net] = both(driven, (all) =>
        joined(
          all.flatMap((strands, k) =>
            strands.map((s) => withRow(s, through(s.row, response(s.lines, k, n), s.by), 1)),
          ),
        ),
      );
    });
  }
  return (net) => atNet[net] ?? NOTHING;
}

const fresh = (origin: string, device: string, lines: Lines) => ({
  origin,
  device,
  lines,
  apart: '',
  lateMs: 0,
});

/** Noise of so many dBu that something makes by itself. */
export const madeBy = (origin: string, device: string, dbu: number, lines: Lines): Strand[] =>
  dbu > -Infinity ? [strandOf(fresh(origin, device, lines), lines.one, voltsOfDbu(dbu))] : [];

const withRow = (s: Strand, row: Row, by: number): Strand => ({
  lines: s.lines,
  origin: s.origin,
  device: s.device,
  apart: s.apart,
  lateMs: s.lateMs,
  key: s.key,
  row,
  by,
});

const scaled = (s: Strand, by: number): Strand => withRow(s, s.row, s.by * by);

const powerOf = ({ row, by }: Strand): number => {
  let power = 0;
  for (let i = 0; i < row.re.length; i++) power += row.re[i]! ** 2 + row.im[i]! ** 2;
  return power * by * by;
};

/** So few are all followed. */
const FEW = 12;

/** Copies of one noise joined, and of many the faint ones by device, as powers. */
function joined(strands: readonly Strand[]): readonly Strand[] {
  if (strands.length < 2) return strands;
  const all = gathered(strands);
  if (all.length <= FEW) return all;
  const powers = all.map(powerOf);
  const least = FAINT * powers.reduce((a, b) => a + b, 0);
  const loud = all.filter((_, i) => powers[i]! >= least);
  const faint = all
    .filter((_, i) => powers[i]! < least)
    .map((s) => {
      const rest = { ...s, origin: `rest of ${s.device}`, apart: 'rest', lateMs: 0 };
      return strandOf(rest, s.row, s.by);
    });
  return gathered([...loud, ...faint]);
}

function gathered(strands: readonly Strand[]): Strand[] {
  const found = new Map<string, Strand>();
  for (const s of strands) {
    const was = found.get(s.key);
    if (!was) found.set(s.key, s);
    else found.set(s.key, withRow(was, together(was, s, s.apart !== ''), 1));
  }
  return [...found.values()];
}

/** What a stage makes of noise: its filters, small-signal gain under its ceiling, and its ways out. */
function leaving({ device, stage }: CircuitStage, strands: readonly Strand[]): readonly Strand[] {
  const gain = ratio(stage.gainDb);
  const power = strands.reduce((sum, s) => sum + powerOf(s), 0);
  const under = 1 / Math.sqrt(1 + (power * gain * gain) / voltsOfDbu(stage.ceiling.dbu) ** 2);
  const by = gain * under * ratio(stage.outputDb) * (stage.inverts ? -1 : 1);
  const side = stage.side ? `${device} ${stage.side}` : '';
  const way = (s: Strand, more: number, apart: string): Strand => {
    const over = stageOver(stage, s.lines);
    const [row, left] = over
      ? [through(s.row, over, s.by * by * more), 1]
      : [s.row, s.by * by * more];
    if (!stage.latencyMs && !apart) return withRow(s, row, left);
    const told = { ...s, lateMs: s.lateMs + stage.latencyMs, apart: apart || s.apart };
    return strandOf(told, row, left);
  };
  const { wet } = stage;
  if (!wet) return strands.map((s) => way(s, 1, side));
  return strands.flatMap((s) => [
    ...(wet.dryDb > -Infinity ? [way(s, ratio(wet.dryDb), '')] : []),
    ...(wet.wetDb > -Infinity ? [way(s, ratio(wet.wetDb), `${device} ${side}`)] : []),
  ]);
}
