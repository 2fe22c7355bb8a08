import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { freshId } from '../rig/fresh-id';
import type { Brief, Rig, Way } from '../rig/schema';

/** For each line of a brief, the device or sound of the rig that answers it; nothing where none does yet. */
export interface BriefState {
  sources: Record<string, string | undefined>;
  destinations: Record<string, string | undefined>;
  sounds: Record<string, string | undefined>;
  gear: Record<string, string | undefined>;
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The way in which a destination of a kind is heard, as a brief names it. */
function wayOf(kindId: string): Way {
  const kind = kindOf(kindId);
  const hears = kind.destination?.hears;
  if (hears === 'in-ears' || hears === 'recorder' || hears === 'house') return hears;
  if (kind.job === 'destination') return 'stage';
  return kind.job === 'cabinet' ? 'head' : 'combo';
}

/** Holds a brief against the rig. Each device answers one line only: by its name first, then by its kind. */
export function briefState(rig: Rig, brief: Brief): BriefState {
  const taken = new Set<string>();
  const answer = <T extends { id: string; name: string }>(
    lines: readonly T[],
    fits: (line: T, device: Rig['devices'][number]) => boolean,
  ): Record<string, string | undefined> => {
    const found: Record<string, string | undefined> = Object.fromEntries(
      lines.map((l) => [l.id, undefined]),
    );
    for (const byName of [true, false]) {
      for (const line of lines) {
        if (found[line.id] !== undefined) continue;
        const device = rig.devices.find(
          (d) => !taken.has(d.id) && fits(line, d) && (!byName || same(d.name, line.name)),
        );
        if (!device) continue;
        taken.add(device.id);
        found[line.id] = device.id;
      }
    }
    return found;
  };
  return {
    sources: answer(brief.sources, (l, d) => l.kind === d.kind),
    destinations: answer(
      brief.destinations,
      (l, d) =>
        kindOf(d.kind).destination !== undefined &&
        kindOf(d.kind).destination!.hears !== 'tuner' &&
        (wayOf(d.kind) === l.way ||
          (['head', 'combo'].includes(l.way) && kindOf(d.kind).destination!.hears === 'stage')),
    ),
    sounds: Object.fromEntries(
      brief.sounds.map((l) => [l.id, rig.sounds.find((s) => same(s.name, l.name))?.id]),
    ),
    gear: answer(brief.gear, (l, d) => l.kind === d.kind),
  };
}

/**
 * A brief read from a rig that has none: what comes in, who hears it, the sounds, and every pedal
 * as gear on hand.
 */
export function briefOf(rig: Rig): Brief {
  const ids: string[] = [];
  const line = <T extends object>(name: string, rest: T) => {
    const id = freshId(name, ids);
    ids.push(id);
    return { id, name, ...rest };
  };
  const kind = (d: Rig['devices'][number]) => kindOf(d.kind);
  const byWireless = (id: string) =>
    rig.leads.some(
      (l) =>
        l.from.device === id &&
        kindOf(sure(rig.devices.find((d) => d.id === l.to.device)).kind).job === 'wireless',
    );
  return {
    sources: rig.devices
      .filter((d) => kind(d).job === 'instrument')
      .map((d) => line(d.name, { kind: d.kind, ...(byWireless(d.id) && { wireless: true }) })),
    destinations: rig.devices
      .filter((d) => kind(d).destination && kind(d).destination!.hears !== 'tuner')
      .map((d) => line(d.name, { way: wayOf(d.kind) })),
    sounds: rig.sounds.map((s) => line(s.name, { ...(s.notes && { notes: s.notes }) })),
    gear: rig.devices
      .filter(
        (d) =>
          d.host === undefined &&
          kind(d).job !== 'instrument' &&
          !kind(d).destination &&
          kind(d).size !== undefined,
      )
      .map((d) => line(d.name, { kind: d.kind })),
  };
}
