import FFT from 'fft.js';
import { buildCircuit, type Circuit, sectionKey } from '../src/core/circuit';
import { HISS, HUM } from '../src/core/note/noise-lines';
import { runNoise } from '../src/core/note/noise-run';
import { type NoteFlow, type Part, runNote, togetherVolts } from '../src/core/note/run';
import { boundOf, HARMONICS, peakOf, SAMPLES } from '../src/core/note/spectrum';
import type { Rig } from '../src/core/rig';
import { type Flowing, runSignal } from '../src/core/signal/flow';
import { totalVolts } from '../src/core/signal/meeting';
import { HALF_CYCLE } from '../src/core/signal/saturate';
import { ratio, voltsOfDbu } from '../src/core/units';
import { inverted } from '../src/core/units/complex';

/**
 * The arithmetic of a rig with nothing around it: how often each sum is done for all of its sounds. A passive
 * section is solved once for each frequency, however many sounds it is the same in; everything else counts
 * in each sound.
 */
export interface Arithmetic {
  /** Solutions of passive sections, by the number of their nets. */
  solved: Map<number, number>;
  /** Levels that are multiplied or added, three touches each. */
  levels: number;
  /** Half cycles of a sine that a ceiling bends, and what of them is told. */
  bent: number;
  /** Spectra of a note that a section or a filter multiplies, and that are read: level, loudness, bands. */
  multiplied: number;
  read: number;
  /** Waves of a note that a ceiling bends: there and back; peaks that are looked for in a finer wave. */
  clipped: number;
  peaks: number;
  /** Noises that a section or a stage multiplies, line by line. */
  noises: number;
  lines: number;
}

/** Counts what a rig takes, from its circuits with what is at every net. */
export function arithmeticOf(rig: Rig): Arithmetic {
  const counts: Arithmetic = {
    solved: new Map(),
    levels: 0,
    bent: 0,
    multiplied: 0,
    read: 0,
    clipped: 0,
    peaks: 0,
    noises: 0,
    lines: HISS.hertz.length,
  };
  const known = new Set<string>();
  for (const sound of rig.sounds) {
    const circuit = buildCircuit(rig, sound);
    const flowing = runSignal(circuit);
    const note = runNote(circuit);
    const noise = runNoise(flowing, 60);
    countSections(counts, circuit, known);
    countLevels(counts, flowing);
    countNote(counts, circuit, note);
    for (const net of circuit.nets) counts.noises += noise(net.index).playing.length;
    for (const s of circuit.stages)
      counts.noises += s.stage.muted ? 0 : noise(s.from).playing.length;
  }
  return counts;
}

function countSections(counts: Arithmetic, circuit: Circuit, known: Set<string>): void {
  // Two frequencies for the levels, the harmonics of a note, lines of hiss and of hum.
  const frequencies = 2 + HARMONICS + HISS.hertz.length + HUM[60].hertz.length;
  for (const section of circuit.sections) {
    const key = sectionKey(circuit, section);
    if (!section.drivers.length || known.has(key)) continue;
    known.add(key);
    const size = section.nets.length;
    counts.solved.set(size, (counts.solved.get(size) ?? 0) + frequencies);
  }
}

function countLevels(counts: Arithmetic, { circuit, present }: Flowing): void {
  for (const net of circuit.nets) {
    const { flows, noise } = present(net.index);
    counts.levels += flows.length + noise.volts.length;
  }
  for (const { stage, from } of circuit.stages) {
    const { flows, noise } = present(from);
    if (stage.muted) continue;
    counts.levels += flows.length + noise.volts.length;
    for (const touch of [0, 1, 2]) {
      const drive =
        (totalVolts(flows, touch) * ratio(stage.gainDb)) / voltsOfDbu(stage.ceiling.dbu);
      if (drive > (stage.ceiling.meant ? 1e-4 : 1)) counts.bent += flows.length;
    }
  }
}

function countNote(counts: Arithmetic, circuit: Circuit, note: NoteFlow): void {
  for (const net of circuit.nets) counts.multiplied += 3 * note.at(net.index).length;
  for (const { stage, from } of circuit.stages) {
    const parts = note.at(from);
    if (stage.muted || !parts.length) continue;
    // A strip reads what leaves it.
    counts.read += parts.length;
    const filters =
      (stage.filters?.before?.length ? 1 : 0) + (stage.cabinet || stage.tiltDb ? 1 : 0);
    counts.multiplied += 3 * parts.length * (1 + filters);
    for (const touch of [0, 1, 2] as const)
      for (const p of parts) countCeiling(counts, stage, p, parts, touch);
  }
}

function countCeiling(
  counts: Arithmetic,
  stage: Circuit['stages'][number]['stage'],
  part: Part,
  all: readonly Part[],
  touch: 0 | 1 | 2,
): void {
  const ceiling = (voltsOfDbu(stage.ceiling.dbu) * Math.SQRT2) / ratio(stage.gainDb);
  const wave = part.waves[touch];
  if (stage.ceiling.meant) {
    if (togetherVolts(all, touch) * Math.SQRT2 > 1e-4 * ceiling) counts.clipped++;
    return;
  }
  if (boundOf(wave) <= ceiling) return;
  counts.peaks++;
  if (peakOf(wave) > ceiling) counts.clipped++;
}

const row = (size: number): Float64Array =>
  Float64Array.from({ length: size }, (_, i) => 0.3 + ((i * 7) % 11) / 40);
/**
 * Does all of it once, in rows of numbers that are there already; answers with a sum of what was worked out, so
 * that nothing can be left out.
 */
export function kernelOf(counts: Arithmetic): () => number {
  let sink = 0;
  const size = HARMONICS + 1;
  const [a, b, h, g, o, q] = [row(size), row(size), row(size), row(size), row(size), row(size)];
  const small = new FFT(SAMPLES);
  const fine = new FFT(2 * SAMPLES);
  const room = (n: number) => new Float64Array(2 * n) as unknown as number[];
  const [wave, back] = [room(SAMPLES), room(SAMPLES)];
  const [fineWave, fineBack] = [room(2 * SAMPLES), room(2 * SAMPLES)];
  const samples = row(SAMPLES);
  const half = row(HALF_CYCLE);
  const bands = new Float64Array(25);
  const solve = [...counts.solved].map(([nets, times]) => ({
    times,
    nets,
    matrix: Float64Array.from({ length: 2 * nets * nets }, (_, i) =>
      i % (2 * (nets + 1)) === 0 ? 3 : 0.01,
    ),
  }));
  const multiply = (n: number) => {
    for (let i = 0; i < n; i++) {
      o[i] = a[i]! * h[i]! - b[i]! * g[i]!;
      q[i] = a[i]! * g[i]! + b[i]! * h[i]!;
    }
    sink += o[1]!;
  };
  const read = () => {
    let [power, weighted] = [0, 0];
    for (let i = 1; i < size; i++) {
      const w = a[i]! * a[i]! + b[i]! * b[i]!;
      power += w;
      weighted += w * h[i]!;
      bands[i % 25]! += w;
    }
    sink += power + weighted;
  };
  const clip = () => {
    small.inverseTransform(back, wave);
    let [xy, xx, yy] = [0, 0, 0];
    for (let i = 0; i < SAMPLES; i++) {
      const x = back[2 * i]! + 0.4;
      const y = Math.tanh(x);
      samples[i] = y;
      xy += x * y;
      xx += x * x;
      yy += y * y;
    }
    small.realTransform(back, samples);
    sink += xy + xx + yy + back[2]!;
  };
  const bend = () => {
    let sum = 0;
    for (let i = 0; i < HALF_CYCLE; i++) {
      const y = Math.tanh(half[i]!);
      sum += y * y;
    }
    sink += sum;
  };
  return () => {
    for (const { times, nets, matrix } of solve)
      for (let i = 0; i < times; i++) sink += inverted(matrix, nets)[0]!;
    for (let i = 0; i < counts.levels; i++) multiply(3);
    for (let i = 0; i < counts.bent; i++) bend();
    for (let i = 0; i < counts.multiplied; i++) multiply(size);
    for (let i = 0; i < counts.read; i++) read();
    for (let i = 0; i < counts.clipped; i++) clip();
    for (let i = 0; i < counts.peaks; i++) {
      fine.inverseTransform(fineBack, fineWave);
      sink += fineBack[0]!;
    }
    for (let i = 0; i < counts.noises; i++) multiply(counts.lines);
    return sink;
  };
}
