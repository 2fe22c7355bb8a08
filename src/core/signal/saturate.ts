/** Points in half a cycle; clipping here is symmetric, so the other half is the same upside down. */
export const HALF_CYCLE = 64;

/**
 * One wave, over half a cycle, scaled to an RMS of 1. What was worked out of it is kept with it: sounds
 * and copies mostly drive one wave the same.
 */
export class Shape {
  /** Its total harmonic distortion, once that was asked for. */
  distortion: number | undefined;
  readonly bent: Record<Clip, Bent | undefined> = { soft: undefined, hard: undefined };

  constructor(readonly points: Float64Array) {}
}

/** What became of a wave, by how hard it was driven: most are driven in one way only. */
class Bent {
  private drive = NaN;
  private shape: Shape | undefined;
  private others: Map<number, Shape> | undefined;

  at(drive: number): Shape | undefined {
    return drive === this.drive ? this.shape : this.others?.get(drive);
  }

  keep(drive: number, shape: Shape): void {
    if (this.shape) {
      const others = (this.others ??= new Map<number, Shape>());
      if (others.size >= MOST_DRIVES) others.clear();
      others.set(this.drive, this.shape);
    }
    this.drive = drive;
    this.shape = shape;
  }
}

/** So many drives of one wave are remembered. */
const MOST_DRIVES = 256;

const SINES = Float64Array.from({ length: HALF_CYCLE }, (_, i) =>
  Math.sin(((i + 0.5) * Math.PI) / HALF_CYCLE),
);

const COSINES = Float64Array.from({ length: HALF_CYCLE }, (_, i) =>
  Math.cos(((i + 0.5) * Math.PI) / HALF_CYCLE),
);

/** A sine of RMS 1. */
export const SINE = new Shape(SINES.map((s) => s * Math.SQRT2));
SINE.distortion = 0;

export type Clip = 'soft' | 'hard';

const curve = (kind: Clip, x: number): number =>
  kind === 'soft' ? Math.tanh(x) : Math.max(-1, Math.min(1, x));

/**
 * Output RMS, in units of the ceiling `c`, of a clipping stage `y = c·tanh(g·x/c)` (soft) or a hard
 * limit, driven by a sine whose peak reaches `drive = g·x̂/c`. At 0.5, 1, 2, 4, 8 soft clipping
 * gives 0.333, 0.575, 0.802, 0.914, 0.959.
 */
export function clippedRms(kind: Clip, drive: number): number {
  let sum = 0;
  for (let i = 0; i < HALF_CYCLE; i++) sum += curve(kind, drive * SINES[i]!) ** 2;
  return Math.sqrt(sum / HALF_CYCLE);
}

/**
 * The wave that leaves a clipping stage, scaled to RMS 1, when `shape` arrives with the same
 * `drive`, taken at its RMS.
 */
export function clippedShape(kind: Clip, shape: Shape, drive: number): Shape {
  const bent = (shape.bent[kind] ??= new Bent());
  const known = bent.at(drive);
  if (known) return known;
  const out = clipShape(kind, shape.points, drive);
  bent.keep(drive, out);
  return out;
}

function clipShape(kind: Clip, points: Float64Array, drive: number): Shape {
  const out = new Float64Array(HALF_CYCLE);
  let sum = 0;
  for (let i = 0; i < HALF_CYCLE; i++) {
    const y = curve(kind, (drive / Math.SQRT2) * points[i]!);
    out[i] = y;
    sum += y * y;
  }
  const scale = sum > 0 ? 1 / Math.sqrt(sum / HALF_CYCLE) : 0;
  for (let i = 0; i < HALF_CYCLE; i++) out[i]! *= scale;
  return new Shape(out);
}

/**
 * The sum of waves, each an RMS (negative where it is turned over) and a shape, instant by instant:
 * its RMS and its shape. What cancels to nothing keeps the shape of a sine.
 */
export function waveSum(waves: readonly { shape: Shape; by: number }[]): {
  rms: number;
  shape: Shape;
} {
  const out = new Float64Array(HALF_CYCLE);
  let power = 0;
  let most = 0;
  for (const { by } of waves) most = Math.max(most, Math.abs(by));
  for (let i = 0; i < HALF_CYCLE; i++) {
    for (const { shape, by } of waves) out[i]! += by * shape.points[i]!;
    power += out[i]! ** 2;
  }
  const rms = Math.sqrt(power / HALF_CYCLE);
  if (rms <= most * 1e-9) return { rms: 0, shape: SINE };
  for (let i = 0; i < HALF_CYCLE; i++) out[i]! /= rms;
  return { rms, shape: new Shape(out) };
}

/**
 * Total harmonic distortion of a wave, relative to its fundamental: 0 for a sine, 0.483 for a
 * square wave.
 */
export function distortion(shape: Shape): number {
  return (shape.distortion ??= harmonicShare(shape.points));
}

function harmonicShare(points: Float64Array): number {
  let sine = 0;
  let cosine = 0;
  let power = 0;
  for (let i = 0; i < HALF_CYCLE; i++) {
    sine += points[i]! * SINES[i]!;
    cosine += points[i]! * COSINES[i]!;
    power += points[i]! ** 2;
  }
  const fundamental = (2 * (sine ** 2 + cosine ** 2)) / HALF_CYCLE ** 2;
  return fundamental > 0
    ? Math.sqrt(Math.max(0, power / HALF_CYCLE - fundamental) / fundamental)
    : 0;
}

/** The trade's word for an amount of distortion, given as a share (0.1 is 10 %). */
export const touchWord = (thd: number): string =>
  thd < 0.03 ? 'clean' : thd < 0.1 ? 'edge of breakup' : thd < 0.25 ? 'crunch' : 'saturated';
