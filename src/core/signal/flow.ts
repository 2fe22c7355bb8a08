import { sourceId } from '../rig/source-id';
import { decibels, ratio, thermalNoiseVolts, voltsOfDbu } from '../units';
import type { Circuit, CircuitStage, Section } from '../circuit/circuit';
import { byKey, loopsThrough, orderByName } from '../graph';
import { type Solution, solveSection } from '../circuit/passive';
import { addHiss, type Hiss, scaleHiss, SILENT, Strains } from './hiss';
import {
  type Flow,
  merged,
  type PerTouch,
  type Present,
  scaled,
  TOUCH_DB,
  totalVolts,
} from './meeting';
import { SINE } from './saturate';
import { likeIn } from './like';
import { throughStage } from './through-stage';

/**
 * A circuit with its signal: what is present at each net, the sections' solutions, and the loops
 * that signal can go round.
 */
export interface Flowing {
  circuit: Circuit;
  present: (net: number) => Present;
  solution: (section: Section, hertz: number) => Solution;
  loops: Loop[];
  visits: Visits;
  /** The strains of its noise; none where noise was left out. */
  strains: Strains | undefined;
}

export type Visits = ReturnType<typeof visits>;

/** Ways that lead round to one another: their stages, and what a level grows by once round all of them. */
export interface Loop {
  stages: CircuitStage[];
  /** As an amplitude, at 1 kHz, for small signals, all ways in phase. */
  gainRound: number;
}

export const REFERENCE_HERTZ = 1000;
export const BRIGHT_HERTZ = 5000;
const EMPTY: Present = { flows: [], noise: SILENT, idle: SILENT, cancelled: [] };
/**
 * The order in which sections are visited, each after what feeds it, and the steps that lead back.
 * Circles are cut from the side of the sources, by the ids of their devices, so that the order of a
 * file means nothing.
 */
export function visits(circuit: Circuit) {
  const successors: number[][] = circuit.sections.map(() => []);
  const sectionOfNet = (net: number) => circuit.nets[net]!.section;
  const into = (s: CircuitStage) => sectionOfNet(circuit.drivers[s.driver]!.net);
  for (const s of circuit.stages) {
    successors[sectionOfNet(s.from)]!.push(into(s));
    if (s.keyNet !== undefined) successors[sectionOfNet(s.keyNet)]!.push(into(s));
  }
  const sorted = orderByName(
    successors,
    (at) => circuit.sections[at]!.drivers.some((d) => d.source),
    (at) =>
      circuit.sections[at]!.nets.flatMap((n) =>
        circuit.nets[n]!.points.map((p) => `${p.device} ${p.point}`),
      ).reduce((a, b) => (b < a ? b : a), '\uffff'),
  );
  const loops = loopsThrough(sorted.back, successors);
  return { sectionOfNet, into, loops, ...sorted };
}

/** Amplitude once round must stay under this for a circle to come to rest. */
const RESTS = 0.99;

/** Whether what goes round comes to rest, so that it has a level. */
export const rests = (gainRound: number): boolean => gainRound < RESTS;
/** Rounds after which a circle that rests has come to rest: what is left is under a millionth. */
const MOST_ROUNDS = 2000;
const SETTLED = 1e-8;

/**
 * How a circuit is run that is nearly one that was run before: what is not different from `like` is
 * taken over. What is only listened to leaves noise out.
 */
export interface Rerun {
  like?: Flowing;
  withoutNoise?: boolean;
}

/** With more strains than this, those of a run before are not gone on with. */
const MOST_STRAINS = 5000;

/** Runs the signal of every source through a circuit. Levels are figured at 1 kHz, brightness at 5 kHz. */
export const runSignal = (circuit: Circuit, rerun: Rerun = {}): Flowing =>
  new SignalRun(circuit, rerun).flowing();

/**
 * The idea: passive sections are joined by stages that pass signal one way, so sections can be
 * visited in an order in which each comes after what feeds it. At a section, what its sources and
 * the stages before it bring is known; the section's own solution says what of it is at each net. A
 * stage then takes what is at its input and makes what it drives the next section with: gain,
 * ceiling, noise, time, sides. Flows are one a source and way; those that agree in all that matters
 * are joined as they meet. Sections that lead round to one another are gone round until they come
 * to rest, where the gain once round is under one; a circle that howls has no level, so the step
 * that leads back is left out there, and the howl itself is told elsewhere.
 */
class SignalRun {
  private readonly solved = new Map<number, (Solution | undefined)[]>();
  private readonly strains: Strains | undefined;
  private readonly atNet: (Present | undefined)[];
  private readonly visits: Visits;
  /** What is known of sections of a run that is nearly the same. */
  private readonly listeners: ReadonlyMap<number, string>;
  private like: ReturnType<typeof likeIn> | undefined;

  constructor(
    private readonly circuit: Circuit,
    { like, withoutNoise = false }: Rerun,
  ) {
    const goesOn = like?.strains && like.strains.size < MOST_STRAINS ? like.strains : undefined;
    this.strains = withoutNoise ? undefined : (goesOn ?? new Strains());
    this.atNet = circuit.nets.map(() => undefined);
    this.listeners = withoutNoise ? new Map() : listenersIn(circuit);
    this.visits = visits(circuit);
    if (like && (withoutNoise || goesOn)) this.like = likeIn(circuit, like);
  }

  flowing(): Flowing {
    const { loops, into, sectionOfNet } = this.visits;
    const gains = new Map<readonly number[], number>();
    for (const block of this.blocks()) {
      const loop = loops.find((l) => l.includes(block[0]!));
      if (!loop) {
        this.visit(block[0]!, false);
        continue;
      }
      const gain = this.gainRound(block);
      gains.set(loop, gain);
      if (rests(gain)) this.goRound(block);
      else for (const at of block) this.visit(at, true);
    }
    // A run holds on to none before it.
    this.like = undefined;
    return {
      strains: this.strains,
      circuit: this.circuit,
      visits: this.visits,
      present: this.present,
      solution: this.solution,
      loops: loops.map((loop) => ({
        stages: this.circuit.stages.filter(
          (s) => loop.includes(sectionOfNet(s.from)) && loop.includes(into(s)),
        ),
        gainRound: gains.get(loop) ?? 0,
      })),
    };
  }

  private readonly present = (net: number): Present => this.atNet[net] ?? EMPTY;

  private readonly solution = (section: Section, hertz: number): Solution => {
    const known = this.solved.get(hertz) ?? [];
    if (!known.length) this.solved.set(hertz, known);
    return (known[section.index] ??=
      this.like?.solution(section, hertz) ?? solveSection(this.circuit, section, hertz));
  };

  /** Sections that lead round to one another together, each block after what feeds it. */
  private blocks(): number[][] {
    const { order, loops } = this.visits;
    const blocks = new Map<number | readonly number[], number[]>();
    for (const at of order) {
      const key = loops.find((l) => l.includes(at)) ?? at;
      const block = blocks.get(key);
      if (block) block.push(at);
      else blocks.set(key, [at]);
    }
    return [...blocks.values()];
  }

  /** What is at the nets of a section, from its sources and the stages that drive it. */
  private visit(index: number, isCut: boolean): void {
    const section = this.circuit.sections[index]!;
    if (!section.drivers.length) return;
    if (this.like?.isSame(section)) {
      for (const net of section.nets) this.atNet[net] = this.like.present(net);
      return;
    }
    const { isBack, sectionOfNet } = this.visits;
    const driven = section.drivers.map((d) => {
      let flows: Flow[] = d.source
        ? [fromSource(sourceId(d.device, d.source.name), d.source)].filter((f) => f.volts[1] > 0)
        : [];
      let noise =
        this.strains && d.source && d.source.noiseDbu > -Infinity
          ? this.strains.own(
              d.device,
              sourceId(d.device, d.source.name),
              voltsOfDbu(d.source.noiseDbu) ** 2,
            )
          : SILENT;
      let idle = noise;
      for (const s of d.stages) {
        if (isCut && isBack(sectionOfNet(s.from), index)) continue;
        const key = s.keyNet === undefined ? undefined : this.present(s.keyNet);
        const out = throughStage(s, this.present(s.from), key, this.thermal(s), this.strains);
        flows = flows.concat(out.flows);
        if (!this.strains) continue;
        const isOne = idle === noise && out.idle === out.noise;
        noise = addHiss([noise, out.noise]);
        idle = isOne ? noise : addHiss([idle, out.idle]);
      }
      return { flows, noise, idle };
    });
    const middle = this.solution(section, REFERENCE_HERTZ);
    const bright = this.solution(section, BRIGHT_HERTZ);
    section.nets.forEach((net, n) => {
      const gains = driven.map((_, k) => middle.transfer(k, n));
      const flows = driven.flatMap((d, k) => {
        const tilt = 20 * Math.log10(bright.transfer(k, n) / gains[k]!) || 0;
        return d.flows.map((f) => scaled(f, gains[k]!, tilt));
      });
      if (!this.strains) {
        this.atNet[net] = { noise: SILENT, idle: SILENT, ...merged(flows) };
        return;
      }
      const noise = addHiss(driven.map((d, k) => scaleHiss(d.noise, gains[k]!)));
      const idle = driven.every((d) => d.idle === d.noise)
        ? noise
        : addHiss(driven.map((d, k) => scaleHiss(d.idle, gains[k]!)));
      this.atNet[net] = { noise, idle, ...merged(flows) };
    });
  }

  /** Goes round until nothing changes any more. */
  private goRound(block: readonly number[]): void {
    let before = -1;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      for (const at of block) this.visit(at, false);
      const now = this.powerIn(block);
      if (Math.abs(now - before) <= SETTLED * now) return;
      before = now;
    }
  }

  private powerIn(block: readonly number[]): number {
    return block
      .flatMap((at) => this.circuit.sections[at]!.nets)
      .reduce((sum, net) => {
        const { flows, noise } = this.present(net);
        return sum + totalVolts(flows, 1) ** 2 + noise.power;
      }, 0);
  }

  /**
   * The small-signal gain once round, as an amplitude: what a vector of levels grows by when sections
   * are visited in turn, each taking what the ones before it have by then (the largest eigenvalue of
   * one such visit, by power iteration), all ways in phase. Of a single circle it is the product of its
   * gains; it is under one exactly where sending all levels on at once dies away, too (Stein and
   * Rosenberg).
   */
  private gainRound(block: readonly number[]): number {
    const ways = [...byKey(this.waysIn(block), (w) => w.to)];
    let levels = new Map(ways.map(([net]) => [net, 1]));
    let growth = 1;
    for (let round = 0; round < 64 * block.length; round++) {
      const next = new Map(levels);
      for (const [net, into] of ways)
        next.set(
          net,
          into.reduce((sum, { from, gain }) => sum + gain * (next.get(from) ?? 0), 0),
        );
      // As much stays as goes: what takes two rounds to come back would swing for ever.
      const stays = growth;
      for (const [net, level] of next) next.set(net, level + stays * (levels.get(net) ?? 0));
      const size = Math.max(...next.values());
      if (!(size > 0)) return 0;
      let moved = 0;
      for (const [net, level] of next) {
        moved = Math.max(moved, Math.abs(level / size - (levels.get(net) ?? 0)));
        next.set(net, level / size);
      }
      levels = next;
      growth = Math.max(0, size - stays);
      if (moved < 1e-9) break;
    }
    return growth;
  }

  /** Every way from net to net inside a block: a stage, and the section that it drives. */
  private waysIn(block: readonly number[]): { from: number; to: number; gain: number }[] {
    const { sectionOfNet } = this.visits;
    const inside = new Set(block);
    return block.flatMap((at) => {
      const section = this.circuit.sections[at]!;
      const solution = this.solution(section, REFERENCE_HERTZ);
      return section.drivers.flatMap((d, k) =>
        d.stages
          .filter((s) => inside.has(sectionOfNet(s.from)))
          .flatMap((s) =>
            section.nets.map((to, n) => ({
              from: s.from,
              to,
              gain: ratio(stageGainDb(s)) * solution.transfer(k, n),
            })),
          ),
      );
    });
  }

  /** Thermal noise of the passive network that a stage listens to, told by a name that is the same in every run. */
  private thermal(s: CircuitStage): Hiss {
    const section = this.circuit.sections[this.visits.sectionOfNet(s.from)]!;
    if (!this.strains || !section.drivers.length || s.stage.inOhms === Infinity) return SILENT;
    const { re } = this.solution(section, REFERENCE_HERTZ).impedance(section.nets.indexOf(s.from));
    const { device, point } = this.circuit.nets[s.from]!.points[0]!;
    return this.strains.own(
      this.listeners.get(s.from) ?? s.device,
      `at ${device} ${point}`,
      thermalNoiseVolts(Math.max(0, re)) ** 2,
    );
  }
}

/** The device that listens at each net, the first by its id where several do. */
export function listenersIn({ stages }: Circuit): Map<number, string> {
  const found = new Map<number, string>();
  for (const { from, device, stage } of stages) {
    const known = found.get(from);
    if (stage.inOhms < Infinity && (known === undefined || device < known)) found.set(from, device);
  }
  return found;
}

/**
 * Small-signal gain of a stage in dB, its dry and its wet part in phase, as they are at some frequency;
 * −Infinity where it is muted.
 */
export const stageGainDb = ({ stage }: CircuitStage): number => {
  if (stage.muted) return -Infinity;
  const mix = stage.wet ? decibels(ratio(stage.wet.dryDb) + ratio(stage.wet.wetDb)) : 0;
  return stage.gainDb + stage.outputDb + mix;
};

const fromSource = (
  device: string,
  s: NonNullable<Circuit['drivers'][number]['source']>,
): Flow => ({
  source: device,
  volts: TOUCH_DB.map((db) => voltsOfDbu(s.nominalDbu + (s.touch ? db : 0))) as PerTouch<number>,
  peak: voltsOfDbu(s.peakDbu),
  latencyMs: 0,
  polarity: 1,
  tiltDb: 0,
  shapes: [SINE, SINE, SINE],
  cabinet: false,
});
