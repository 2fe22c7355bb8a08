import { kindOf } from '../kinds';
import { freshId } from '../rig/fresh-id';
import type { Brief, Device, RigPromise } from '../rig/schema';
import { jobOf } from './making';
import { isAmp } from './ways/ends';
import type { Playing } from './ways/arrive';

/** What a start was asked for, as promises: `hears` says who is reached by whom, and in which sounds. */
export function startPromises(
  brief: Brief,
  devices: readonly Device[],
  players: readonly Playing[],
  hears: (device: Device, player: Playing) => boolean,
  fedIn: (device: Device) => readonly string[] | undefined,
): RigPromise[] {
  const ends = devices.filter((d) => kindOf(d.kind).destination);
  const pairs = (reached: (d: Device, p: Playing) => boolean) =>
    ends.flatMap((d) => players.filter((p) => reached(d, p)).map((p) => ({ d, p })));
  const isBarred = (d: Device, p: Playing) =>
    brief.destinations.some((e) => e.name === d.name && e.not?.includes(p.line.id));
  const tuners = devices.filter((d) => jobOf(d) === 'tuner');
  const ids: string[] = [];
  const idOf = (words: string): string => {
    const id = freshId(words, ids);
    ids.push(id);
    return id;
  };
  const tuned = players.filter((p) => tuners.some((d) => hears(d, p)));
  return [
    ...pairs(hears).flatMap(({ d, p }): RigPromise[] => {
      const sounds = fedIn(d);
      if (sounds && !sounds.length) return [];
      return [
        {
          id: idOf(`hears-${d.id}-${p.device.id}`),
          type: 'hears',
          destination: d.id,
          source: p.device.id,
          ...(sounds && { sounds: [...sounds] }),
        },
      ];
    }),
    ...pairs(isBarred).map(({ d, p }): RigPromise => ({
      id: idOf(`never-${d.id}-${p.device.id}`),
      type: 'never-hears',
      destination: d.id,
      source: p.device.id,
    })),
    ...tuned.map((p): RigPromise => ({
      id: idOf(`tuner-${p.device.id}`),
      type: 'tuner-hears',
      source: p.device.id,
    })),
    ...(brief.destinations.some(isAmp)
      ? [{ id: 'no-tube-unloaded', type: 'no-tube-unloaded' as const }]
      : []),
  ];
}
