import { sourceId } from '../rig/source-id';
import { dbuOfVolts, ratio, thermalNoiseVolts, voltsOfDbu } from '../units';
import type { Circuit, CircuitStage, Section } from '../circuit/circuit';
import { orderByName } from '../graph';
import { type Solution, solveSection } from '../circuit/passive';
import { addHiss, type Hiss, ownHiss, scaleHiss, SILENT } from './hiss';
import { clippedRms, clippedShape, type Shape, SINE, waveSum } from './saturate';

/** Picking, relative to normal: soft −12 dB, normal 0, hard +6. */
export const TOUCHES = ['soft', 'normal', 'hard'] as const;
export type Touch = (typeof TOUCHES)[number];
export const TOUCH_DB = [-12, 0, 6] as const;
export type PerTouch<T> = [T, T, T];

/**
 * One way in which a source's signal reaches a point. Voltages are RMS; `peak` is that of a sine
 * with the same peak.
 */
export interface Flow {
  source: string;
  volts: PerTouch<number>;
  peak: number;
  latencyMs: number;
  polarity: 1 | -1;
  /** The device that last turned it into echoes, modulation or another pitch; dry where there is none. */
  wet?: string;
  side?: 'left' | 'right';
  /** The device that last made its sides differ. */
  widenedBy?: string;
  tiltDb: number;
  shapes: PerTouch<Shape>;
  /** Whether a loudspeaker's cabinet, real or modelled, has shaped it. */
  cabinet: boolean;
  /** The device that passed it on dry beside an effect of its own. */
  besideWet?: string;
}

/** All that is at a net. */
export interface Present {
  flows: Flow[];
  noise: Hiss;
  /** The same while nobody plays, with gates shut. */
  idle: Hiss;
  /** Sources that arrive here twice with opposite polarity at the same time. */
  cancelled: string[];
}

/**
 * A circuit with its signal: what is present at each net, the sections' solutions, and the loops
 * that signal can go round.
 */
export interface Flowing {
  circuit: Circuit;
  present: (net: number) => Present;
  solution: (section: Section, hertz: number) => Solution;
  loops: CircuitStage[][];
}

export const REFERENCE_HERTZ = 1000;
export const BRIGHT_HERTZ = 5000;
const EMPTY: Present = { flows: [], noise: SILENT, idle: SILENT, cancelled: [] };
const MOST_FLOWS = 16;
/** Under this there is nothing: a fader that is shut, a side that is panned away. */
const NOTHING_VOLTS = 1e-9;

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
  return { ...sorted, sectionOfNet, into };
}

/** Amplitude once round must stay under this for a circle to come to rest. */
const RESTS = 0.99;
/** Rounds after which a circle that rests has come to rest: what is left is under a millionth. */
const MOST_ROUNDS = 2000;
const SETTLED = 1e-8;

/** Runs the signal of every source through a circuit. Levels are figured at 1 kHz, brightness at 5 kHz. */
export const runSignal = (circuit: Circuit): Flowing => new SignalRun(circuit).flowing();

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
  private readonly solved = new Map<string, Solution>();
  private readonly atNet: (Present | undefined)[];
  private readonly visits: ReturnType<typeof visits>;

  constructor(private readonly circuit: Circuit) {
    this.atNet = circuit.nets.map(() => undefined);
    this.visits = visits(circuit);
  }

  flowing(): Flowing {
    const { loops, into, sectionOfNet } = this.visits;
    for (const block of this.blocks()) {
      if (!loops.some((l) => l.includes(block[0]!))) this.visit(block[0]!, false);
      else if (this.gainRound(block) < RESTS) this.goRound(block);
      else for (const at of block) this.visit(at, true);
    }
    return {
      circuit: this.circuit,
      present: this.present,
      solution: this.solution,
      loops: loops.map((loop) =>
        this.circuit.stages.filter(
          (s) => loop.includes(sectionOfNet(s.from)) && loop.includes(into(s)),
        ),
      ),
    };
  }

  private readonly present = (net: number): Present => this.atNet[net] ?? EMPTY;

  private readonly solution = (section: Section, hertz: number): Solution => {
    const key = `${section.index}@${hertz}`;
    let s = this.solved.get(key);
    if (!s) this.solved.set(key, (s = solveSection(this.circuit, section, hertz)));
    return s;
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
    const { isBack, sectionOfNet } = this.visits;
    const driven = section.drivers.map((d) => {
      let flows: Flow[] = d.source
        ? [fromSource(sourceId(d.device, d.source.name), d.source)].filter((f) => f.volts[1] > 0)
        : [];
      let noise =
        d.source && d.source.noiseDbu > -Infinity
          ? ownHiss(d.device, sourceId(d.device, d.source.name), voltsOfDbu(d.source.noiseDbu) ** 2)
          : SILENT;
      let idle = noise;
      for (const s of d.stages) {
        if (isCut && isBack(sectionOfNet(s.from), index)) continue;
        const key = s.keyNet === undefined ? undefined : this.present(s.keyNet);
        const out = throughStage(s, this.present(s.from), key, this.thermal(s));
        flows = flows.concat(out.flows);
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
      const noise = addHiss(driven.map((d, k) => scaleHiss(d.noise, gains[k]!)));
      const idle = driven.every((d) => d.idle === d.noise)
        ? noise
        : addHiss(driven.map((d, k) => scaleHiss(d.idle, gains[k]!)));
      this.atNet[net] = { ...merged(flows), noise, idle };
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
   * The small-signal gain once round, as an amplitude: what a vector of levels grows by when it is
   * sent round and round (the largest eigenvalue, by power iteration), all ways in phase.
   */
  private gainRound(block: readonly number[]): number {
    const ways = this.waysIn(block);
    const nets = new Set(ways.map((w) => w.to));
    let levels = new Map([...nets].map((n) => [n, 1]));
    let growth = 0;
    for (let round = 0; round < 64 * block.length; round++) {
      const next = new Map<number, number>();
      for (const { from, to, gain } of ways)
        next.set(to, (next.get(to) ?? 0) + gain * (levels.get(from) ?? 0));
      // A step as well as a stay: ways of even length alone would swing for ever.
      for (const n of nets) next.set(n, ((next.get(n) ?? 0) + (levels.get(n) ?? 0)) / 2);
      const size = Math.max(...next.values());
      if (!(size > 0)) return 0;
      for (const [n, level] of next) next.set(n, level / size);
      const was = growth;
      growth = 2 * size - 1;
      levels = next;
      if (Math.abs(growth - was) < 1e-6) break;
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

  /** Thermal noise power of the passive network that a stage listens to. */
  private thermal(s: CircuitStage): number {
    const section = this.circuit.sections[this.visits.sectionOfNet(s.from)]!;
    if (!section.drivers.length || s.stage.inOhms === Infinity) return 0;
    const { re } = this.solution(section, REFERENCE_HERTZ).impedance(section.nets.indexOf(s.from));
    return thermalNoiseVolts(Math.max(0, re)) ** 2;
  }
}

/** Small-signal gain of a stage, the louder of its dry and its wet part; −Infinity where it is muted. */
export const stageGainDb = ({ stage }: CircuitStage): number => {
  const mix = stage.wet ? Math.max(stage.wet.dryDb, stage.wet.wetDb) : 0;
  return stage.muted ? -Infinity : stage.gainDb + stage.outputDb + mix;
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

const scaled = (f: Flow, gain: number, tiltDb: number): Flow => ({
  ...f,
  volts: f.volts.map((v) => v * gain) as PerTouch<number>,
  peak: f.peak * gain,
  tiltDb: f.tiltDb + tiltDb,
});

/**
 * Joins flows that agree in all that matters. Dry flows of one source that arrive at the same time
 * add as voltages, with their polarity; wet or widened ones and different sources add as powers.
 */
function merged(flows: Flow[]): { flows: Flow[]; cancelled: string[] } {
  if (flows.length < 2) return { flows, cancelled: [] };
  const groups = new Map<string, Flow[]>();
  for (const f of flows) {
    const key =
      `${f.source} ${Math.round(f.latencyMs * 100)} ${f.wet ? 'wet' : 'dry'} ` +
      (f.side ? `${f.side} ${f.widenedBy}` : '');
    const group = groups.get(key);
    if (group) group.push(f);
    else groups.set(key, [f]);
  }
  const cancelled: string[] = [];
  const joined = [...groups.values()].map((group) => {
    if (group.length === 1) return group[0]!;
    const loudest = group.reduce((a, b) => (b.volts[1] > a.volts[1] ? b : a));
    const related = !loudest.wet && !loudest.side;
    if (!related) return powersJoined(group, loudest);
    if (group.some((f) => f.polarity !== loudest.polarity)) cancelled.push(loudest.source);
    return wavesJoined(group, loudest);
  });
  if (joined.length > MOST_FLOWS) {
    joined.sort((a, b) => b.volts[1] - a.volts[1]);
    const rest = joined.splice(MOST_FLOWS - 1);
    joined.push({
      ...rest[0]!,
      volts: [0, 1, 2].map((t) => Math.hypot(...rest.map((f) => f.volts[t]!))) as PerTouch<number>,
      peak: Math.hypot(...rest.map((f) => f.peak)),
    });
  }
  return { flows: joined, cancelled };
}

/** Copies that an effect has spread over time: their powers add. */
const powersJoined = (group: readonly Flow[], loudest: Flow): Flow => ({
  ...loudest,
  cabinet: group.every((f) => f.cabinet),
  volts: [0, 1, 2].map((t) => Math.hypot(...group.map((f) => f.volts[t]!))) as PerTouch<number>,
  peak: Math.hypot(...group.map((f) => f.peak)),
});

/**
 * Copies of one wave at the same time: they add instant by instant, so that what is left has the
 * level, the polarity and the saturation of the sum. A clean copy turned against a bent one leaves
 * the harmonics alone.
 */
function wavesJoined(group: readonly Flow[], loudest: Flow): Flow {
  const sum = (of: (f: Flow) => number) => group.reduce((s, f) => s + of(f) * f.polarity, 0);
  const straight = sum((f) => f.volts[1]);
  const isOneShape = group.every((f) => f.shapes.every((shape, t) => shape === loudest.shapes[t]));
  const polarity = straight < 0 ? -1 : 1;
  const joined: Flow = {
    ...loudest,
    polarity,
    cabinet: group.every((f) => f.cabinet),
    volts: [0, 1, 2].map((t) => Math.abs(sum((f) => f.volts[t]!))) as PerTouch<number>,
    peak: Math.abs(sum((f) => f.peak)),
  };
  if (isOneShape) return joined;
  const waves = [0, 1, 2].map((t) =>
    waveSum(group.map((f) => ({ shape: f.shapes[t]!, by: f.volts[t]! * f.polarity * polarity }))),
  );
  return {
    ...joined,
    volts: waves.map((w) => w.rms) as PerTouch<number>,
    shapes: waves.map((w) => w.shape) as PerTouch<Shape>,
  };
}

/** Total RMS volts of flows, which at this point add as powers. */
export const totalVolts = (flows: readonly Flow[], touch: number): number =>
  Math.sqrt(flows.reduce((s, f) => s + f.volts[touch]! ** 2, 0));
/**
 * Highest instant of flows, as RMS volts of a sine with that peak. Nothing keeps two sources from
 * meeting, nor a note from a late copy of itself: their peaks add. What has been through an echo or
 * a modulation adds to its source as a power, since it is spread over time; a simplification.
 */
export function totalPeak(flows: readonly Flow[]): number {
  const bySource = new Map<string, { dry: number; wet: number }>();
  for (const f of flows) {
    const of = bySource.get(f.source) ?? { dry: 0, wet: 0 };
    bySource.set(f.source, of);
    if (f.wet) of.wet = Math.hypot(of.wet, f.peak);
    else of.dry += f.peak;
  }
  return [...bySource.values()].reduce((sum, { dry, wet }) => sum + Math.hypot(dry, wet), 0);
}

/**
 * What leaves a stage: compression, then clipping under its ceiling, then output gain; noise rides
 * on small-signal gain.
 */
function throughStage(
  s: CircuitStage,
  input: Present,
  key: Present | undefined,
  thermalPower: number,
): { flows: Flow[]; noise: Hiss; idle: Hiss } {
  const { stage } = s;
  if (stage.muted) return { flows: [], noise: SILENT, idle: SILENT };
  const gain = ratio(stage.gainDb);
  const output = ratio(stage.outputDb);
  const ceiling = voltsOfDbu(stage.ceiling.dbu);
  const { shape: clip, meant } = stage.ceiling;

  const squeeze = (volts: number): number => {
    if (!stage.compress || volts <= 0) return 1;
    const over = dbuOfVolts(volts) - stage.compress.thresholdDbu;
    return over > 0 ? ratio(-over * (1 - 1 / stage.compress.ratio)) : 1;
  };
  const totals = [0, 1, 2].map((t) => totalVolts(input.flows, t));
  const squeezes = totals.map(squeeze);
  const drives = totals.map((v, t) => (v * squeezes[t]! * gain) / ceiling);
  const bends = (drive: number) => (meant ? drive > 1e-4 : drive > 1);
  const gains = totals.map((v, t) => {
    const linear = gain * squeezes[t]!;
    return (
      (v > 0 && bends(drives[t]!)
        ? (ceiling * Math.SQRT2 * clippedRms(clip, drives[t]!)) / v
        : linear) * output
    );
  });
  const peakIn = totalPeak(input.flows);
  const peakLinear = peakIn * squeezes[1]! * gain;
  const peakOut =
    (clip === 'soft' && meant
      ? ceiling * Math.tanh(peakLinear / ceiling)
      : Math.min(ceiling, peakLinear)) * output;
  const peakGain = peakIn > 0 ? peakOut / peakIn : 0;

  const flows: Flow[] = [];
  for (const f of input.flows) {
    const shapes = f.shapes.map((shape, t) =>
      bends(drives[t]!) ? clippedShape(clip, shape, drives[t]!) : shape,
    ) as PerTouch<Shape>;
    const carried: Flow = {
      ...f,
      shapes,
      volts: f.volts.map((v, t) => v * gains[t]!) as PerTouch<number>,
      peak: f.peak * peakGain,
      latencyMs: f.latencyMs + stage.latencyMs,
      polarity: stage.inverts ? (-f.polarity as 1 | -1) : f.polarity,
      tiltDb: f.tiltDb + stage.tiltDb,
      cabinet: f.cabinet || stage.cabinet === true,
    };
    if (!stage.wet) {
      flows.push(stage.side ? { ...carried, side: stage.side, widenedBy: s.device } : carried);
      continue;
    }
    if (stage.wet.dryDb > -Infinity)
      flows.push({
        ...scaled(carried, ratio(stage.wet.dryDb), 0),
        ...(stage.wet.wetDb > -Infinity && { besideWet: s.device }),
      });
    if (stage.wet.wetDb > -Infinity) {
      const wet = scaled(carried, ratio(stage.wet.wetDb), 0);
      flows.push({
        ...wet,
        wet: s.device,
        ...(stage.side && { side: stage.side, widenedBy: s.device }),
      });
    }
  }

  const heard = flows.filter((f) => f.volts[2] > NOTHING_VOLTS);
  // The noise of the stage itself, and that of the network it listens to: whoever listens there hears
  // the same.
  const own = addHiss([
    ownHiss(s.device, `${s.device} ${stage.id}`, voltsOfDbu(stage.noiseDbu) ** 2),
    ownHiss(s.device, `at ${s.from}`, thermalPower),
  ]);
  const shut =
    stage.gate && (!key || dbuOfVolts(Math.sqrt(key.idle.power)) < stage.gate.thresholdDbu);
  const noise = hissBehind(s, addHiss([input.noise, own]));
  const kept = shut ? scaleHiss(input.idle, ratio(-stage.gate!.rangeDb)) : input.idle;
  return {
    flows: merged(heard).flows,
    noise,
    idle: kept === input.noise ? noise : hissBehind(s, addHiss([kept, own])),
  };
}

/** What a stage makes of noise: small-signal gain, no more than its ceiling, and the ways of its signal. */
function hissBehind({ device, stage }: CircuitStage, noise: Hiss): Hiss {
  const output = ratio(stage.outputDb);
  const most = voltsOfDbu(stage.ceiling.dbu) ** 2;
  const gain = ratio(stage.gainDb);
  const under = 1 / Math.sqrt(1 + (noise.power * gain * gain) / most);
  const turned = stage.inverts ? -1 : 1;
  const by = turned * gain * under * output;
  const side = stage.side ? `${device} ${stage.side}` : '';
  if (!stage.wet) return scaleHiss(noise, by, stage.latencyMs, side);
  return addHiss([
    scaleHiss(noise, by * ratio(stage.wet.dryDb), stage.latencyMs),
    scaleHiss(noise, by * ratio(stage.wet.wetDb), stage.latencyMs, `${device} ${side}`),
  ]);
}
