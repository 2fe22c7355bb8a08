import { deviceOf } from '../rig/find';
import { sure } from '../outcome';
import { kindOf } from '../kinds';
import type { Rig, Sound } from '../rig/schema';
import { arrivingFigures, heardOf, soundContext } from '../signal';

/** What a boost is worth at one destination: loudness against saturation, by leaving it out. */
export interface BoostWorth {
  device: string;
  sound: string;
  destination: string;
  levelDb: number;
  saturationPercent: number;
  verdict: 'more level' | 'more saturation' | 'both' | 'little';
}

const BOOSTS = new Set(['boost', 'drive', 'fuzz', 'compressor', 'eq']);

/**
 * For every engaged gain stage of a sound: what it adds in level and in saturation at each
 * destination, found by bypassing it.
 */
export function boostWorths(rig: Rig, sound: Sound): BoostWorth[] {
  const withAll = heardOf(rig, sound);
  return withAll.stations
    .filter(
      (s) => s.state === 'engaged' && BOOSTS.has(kindOf(sure(deviceOf(rig, s.device)).kind).job),
    )
    .flatMap((s) => {
      const without = arrivingFigures(
        soundContext(rig, {
          ...sound,
          states: { ...sound.states, [s.device]: { ...sound.states[s.device], engaged: false } },
        }),
      );
      return withAll.destinations.flatMap((d) => {
        const off = without.find((x) => x.device === d.device);
        if (!d.levelDbu || !off?.levelDbu || !d.route.includes(s.id)) return [];
        const levelDb = d.levelDbu.normal - off.levelDbu.normal;
        const saturationPercent = (d.thdPercent?.normal ?? 0) - (off.thdPercent?.normal ?? 0);
        const louder = levelDb >= 1.5;
        const dirtier = saturationPercent >= 3;
        return [
          {
            device: s.device,
            sound: sound.id,
            destination: d.device,
            levelDb,
            saturationPercent,
            verdict:
              louder && dirtier
                ? ('both' as const)
                : louder
                  ? ('more level' as const)
                  : dirtier
                    ? ('more saturation' as const)
                    : ('little' as const),
          },
        ];
      });
    });
}
