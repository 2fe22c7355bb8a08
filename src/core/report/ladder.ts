import { pressesBetween } from '../midi/presses';
import type { Rig } from '../rig/schema';
import type { Touches } from '../signal/point-figures';
import type { Report } from './report';

/** One step of a gain ladder: what a destination hears in a sound, and what changed from the step before. */
export interface Rung {
  sound: string;
  name: string;
  levelDbu: number | null;
  thdPercent: Touches | null;
  /**
   * How much louder 5 kHz is than 1 kHz, in dB, by the filters on the way; what saturation adds on
   * top is in `thdPercent`.
   */
  brightnessDb: number | null;
  idleNoiseDbu: number | null;
  signalToNoiseDb: number | null;
  /**
   * Switches pressed to come from the step before, on which devices; a programmable host or
   * switcher is one press.
   */
  presses: number;
  pressed: string[];
  /** Devices on which a knob has to be turned by hand as well. */
  turned: string[];
  change: { levelDb: number; thdPercent: number; brightnessDb: number; noiseDb: number } | null;
}

/** The gain ladder over a run of sounds, at one destination. Sounds that do not exist are left out. */
export function gainLadder(
  rig: Rig,
  report: Report,
  sounds: readonly string[],
  destination: string,
): Rung[] {
  const rungs: Rung[] = [];
  for (const id of sounds) {
    const sound = rig.sounds.find((s) => s.id === id);
    const figures = report.sounds.find((s) => s.sound === id);
    const heard = figures?.destinations.find((d) => d.device === destination);
    if (!sound || !figures || !heard) continue;
    const before = rungs.at(-1);
    const beforeSound = before && rig.sounds.find((s) => s.id === before.sound);
    const way = beforeSound && pressesBetween(rig, beforeSound, sound);
    const end = figures.stations.find((s) => s.device === destination);
    const brightnessDb = end ? (end.input ?? end.output).tiltDb : null;
    const levelDbu = heard.levelDbu?.normal ?? null;
    const both = (a: number | null | undefined, b: number | null | undefined) =>
      a === null || a === undefined || b === null || b === undefined ? 0 : a - b;
    rungs.push({
      sound: id,
      name: sound.name,
      levelDbu,
      thdPercent: heard.thdPercent,
      brightnessDb,
      idleNoiseDbu: heard.idleNoiseDbu,
      signalToNoiseDb: heard.signalToNoiseDb,
      presses: way?.presses.length ?? 0,
      pressed: way?.presses.map((p) => p.device) ?? [],
      turned: way?.turns.map((t) => t.device) ?? [],
      change: before
        ? {
            levelDb: both(levelDbu, before.levelDbu),
            thdPercent: both(heard.thdPercent?.normal, before.thdPercent?.normal),
            brightnessDb: both(brightnessDb, before.brightnessDb),
            noiseDb: both(heard.idleNoiseDbu, before.idleNoiseDbu),
          }
        : null,
    });
  }
  return rungs;
}
