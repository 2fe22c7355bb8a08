import { buildCircuit } from '../circuit';
import { byKey } from '../graph';
import type { Rig, Sound } from '../rig/schema';
import { runSignal } from '../signal/flow';
import { dbuOfVolts } from '../units';
import { BANDS } from './bands';
import { HISS, type Mains } from './noise-lines';
import { madeBy, runNoise, type Strand } from './noise-run';

/**
 * Noise at a place. Levels in dBu RMS; weighted ones count each frequency as it counts for loudness
 * (ITU-R BS.1770, relative to 1 kHz), as the loudness of a note does.
 */
export interface NoiseFigures {
  /** 20 Hz to 20 kHz, unweighted. */
  levelDbu: number;
  weightedDbu: number;
  /** The hum of it, weighted; null where there is none. */
  humDbu: number | null;
  bandsDbu: (number | null)[];
  /** The band that counts most, by its middle in Hz, and the device that most of the weighted noise comes from. */
  band: number;
  device: string;
}

/** Noise at a place between notes, and while something is played: gates are open then. */
export interface NoiseAt {
  idle: NoiseFigures | null;
  playing: NoiseFigures | null;
}

type Noisy = (device: string, point: string) => NoiseAt;
const known = new WeakMap<Rig, Map<string, Noisy>>();

/**
 * The noise at every point of a rig in one sound, remembered while the rig stays the same; at a
 * destination's jacks that of its own input is counted. Mains of 60 Hz are heard a little more than
 * those of 50.
 *
 *     noiseIn(rig, sound)('desk', 'in').idle?.weightedDbu
 */
export function noiseIn(rig: Rig, sound: Sound, mains: Mains = 60): Noisy {
  const here = known.get(rig) ?? new Map<string, Noisy>();
  known.set(rig, here);
  const key = `${sound.id} ${mains}`;
  const before = here.get(key);
  if (before) return before;
  const circuit = buildCircuit(rig, sound);
  const flowing = runSignal(circuit);
  const strandsAt = runNoise(flowing, mains);
  const ownInputs = byKey(circuit.arrivals, (a) => a.device);
  const found: Noisy = (device, point) => {
    const net = circuit.netAt(device, point)?.index;
    if (net === undefined) return { idle: null, playing: null };
    const own = (ownInputs.get(device) ?? [])
      .filter((a) => a.net === net)
      .flatMap((a) => madeBy('input', device, a.arrive.noiseDbu, HISS));
    const { playing, idle } = strandsAt(net);
    const figures = figuresOf([...playing, ...own]);
    return { idle: idle === playing ? figures : figuresOf([...idle, ...own]), playing: figures };
  };
  here.set(key, found);
  return found;
}

/** Strands are one noise each: between them, powers add. */
function figuresOf(strands: readonly Strand[]): NoiseFigures | null {
  const bands = BANDS.map(() => 0);
  const weightedBands = BANDS.map(() => 0);
  const devices = new Map<string, number>();
  let [power, weighted, hum] = [0, 0, 0];
  for (const { lines, row, by, device } of strands) {
    let mine = 0;
    lines.weights.forEach((weight, i) => {
      const w = (row.re[i]! ** 2 + row.im[i]! ** 2) * by * by;
      const heard = w * weight;
      power += w;
      mine += heard;
      const band = lines.bands[i];
      if (band === undefined) return;
      bands[band]! += w;
      weightedBands[band]! += heard;
    });
    weighted += mine;
    if (lines !== HISS) hum += mine;
    devices.set(device, (devices.get(device) ?? 0) + mine);
  }
  const inDbu = (p: number) => dbuOfVolts(Math.sqrt(p));
  if (!(power > 0)) return null;
  const [device = ''] = [...devices].reduce((a, b) => (b[1] > a[1] ? b : a));
  return {
    levelDbu: inDbu(power),
    weightedDbu: inDbu(weighted),
    humDbu: hum > 0 ? inDbu(hum) : null,
    bandsDbu: bands.map((b) => (b > 0 ? inDbu(b) : null)),
    band: BANDS[weightedBands.indexOf(Math.max(...weightedBands))] ?? 1000,
    device,
  };
}
