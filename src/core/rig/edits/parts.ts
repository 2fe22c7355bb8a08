import type { Draft } from 'immer';
import { deviceOf, nameOf, soundOf } from '../find';
import type { Refusal } from '../refusal';
import type { Device, Rig, Sound, State } from '../schema';

export function onDevice(
  rig: Draft<Rig>,
  id: string,
  change: (d: Draft<Device>) => Refusal,
): Refusal {
  const found = deviceOf(rig, id);
  return found ? change(found) : `There is no device "${id}" any more.`;
}

export function onSound(
  rig: Draft<Rig>,
  id: string,
  change: (s: Draft<Sound>) => Refusal,
): Refusal {
  const found = soundOf(rig, id);
  return found ? change(found) : `There is no sound "${id}" any more.`;
}

/** Where a state is written: in a sound, or in the device itself. */
export function onState(
  rig: Draft<Rig>,
  deviceId: string,
  soundId: string | undefined,
  change: (s: Draft<State>) => void,
): Refusal {
  return onDevice(rig, deviceId, (d) => {
    if (soundId === undefined) return void change(d);
    return onSound(rig, soundId, (s) => void change((s.states[deviceId] ??= {})));
  });
}

type Listed = 'controls' | 'songs' | 'sets' | 'promises' | 'boards' | 'racks' | 'looms';
const LISTED: Record<Listed, string> = {
  controls: 'control',
  songs: 'song',
  sets: 'set',
  promises: 'promise',
  boards: 'board',
  racks: 'rack',
  looms: 'loom',
};

/**
 * Adds an entry to one of the lists whose entries have ids of their own; `at` is its place, the end
 * where it is left out.
 */
export function addTo<L extends Listed>(
  rig: Draft<Rig>,
  list: L,
  entry: NonNullable<Rig[L]>[number],
  at?: number,
): Refusal {
  const entries = (rig[list] ??= [] as never) as { id: string }[];
  if (entries.some((x) => x.id === entry.id))
    return `the id "${entry.id}" is used twice; give one of the two another`;
  entries.splice(at ?? entries.length, 0, entry);
}

/** Puts an entry in the place of the one with its id; without an entry, takes that one out. */
export function changeIn<L extends Listed>(
  rig: Draft<Rig>,
  list: L,
  id: string,
  entry?: NonNullable<Rig[L]>[number],
): Refusal {
  const entries = (rig[list] ?? []) as { id: string }[];
  const at = entries.findIndex((x) => x.id === id);
  if (at < 0) return `That ${LISTED[list]} is not there any more.`;
  if (entry) entries[at] = entry;
  else entries.splice(at, 1);
}

/**
 * Stands a device on a board or mounts it in a rack, never both; with no place it comes off. `gone`
 * is what it should go to and is not there.
 */
export function stand<F extends 'at' | 'rack'>(
  rig: Draft<Rig>,
  id: string,
  field: F,
  place: Device[F] | null,
  gone: string | undefined,
): Refusal {
  return onDevice(rig, id, (d) => {
    if (gone) return `That ${gone} is not there any more.`;
    if (place && d.host !== undefined)
      return `${d.name} lives inside ${nameOf(rig, d.host)} and stands nowhere of its own.`;
    if (!place) return void delete d[field];
    delete d.at;
    delete d.rack;
    d[field] = place;
  });
}

/** Takes a board or rack that goes out of the cases and off the stage. */
export function carriedNoMore(rig: Draft<Rig>, id: string): void {
  for (const c of rig.cases ?? []) c.holds = c.holds.filter((x) => x !== id);
  if (rig.stage) rig.stage.spots = rig.stage.spots.filter((s) => s.id !== id);
}

export const given = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)) as T;
