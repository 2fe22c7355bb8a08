import type { Device, Rig } from '../rig/schema';
import { gramsOf, TWO_PERSONS_GRAMS } from './gear';

/**
 * One piece that is carried: a case, or a board or rack that is in none. Weight in grams;
 * `unweighed` things are not in it.
 */
export interface Piece {
  id: string;
  name: string;
  order: number;
  devices: Device[];
  carriers: string[];
  grams: number;
  unweighed: number;
  lift: boolean;
  wheels: boolean;
}

/** What is carried, in the order in which it is loaded in, and what is in no case yet. */
export interface Packing {
  pieces: Piece[];
  loose: Device[];
  twice: Device[];
}

export function packingOf(rig: Rig): Packing {
  const boards = new Map((rig.boards ?? []).map((b) => [b.id, b]));
  const racks = new Map((rig.racks ?? []).map((r) => [r.id, r]));
  const on = (id: string) => rig.devices.filter((d) => d.at?.board === id || d.rack?.rack === id);
  const held = new Set((rig.cases ?? []).flatMap((c) => c.holds));
  const pieceOf = (
    id: string,
    name: string,
    holds: readonly string[],
    own: number,
    wheels: boolean,
  ): Omit<Piece, 'order'> => {
    const carriers = holds.filter((h) => boards.has(h) || racks.has(h));
    const devices = [
      ...new Set([...carriers.flatMap(on), ...rig.devices.filter((d) => holds.includes(d.id))]),
    ];
    const grams =
      own +
      carriers.reduce(
        (s, h) => s + (h === id ? 0 : (boards.get(h)?.grams ?? racks.get(h)?.grams ?? 0)),
        0,
      ) +
      devices.reduce((s, d) => s + (gramsOf(d) ?? 0), 0);
    return {
      id,
      name,
      devices,
      carriers: carriers.filter((h) => h !== id),
      grams,
      unweighed: devices.filter((d) => gramsOf(d) === null).length,
      lift: grams > TWO_PERSONS_GRAMS,
      wheels,
    };
  };
  const pieces = [
    ...(rig.cases ?? []).map((c) =>
      pieceOf(
        c.id,
        c.name,
        c.holds,
        c.grams ?? 0,
        c.holds.some((h) => racks.get(h)?.wheels),
      ),
    ),
    ...[...boards.values()]
      .filter((b) => !held.has(b.id))
      .map((b) => pieceOf(b.id, b.name, [b.id], b.grams ?? 0, false)),
    ...[...racks.values()]
      .filter((r) => !held.has(r.id))
      .map((r) => pieceOf(r.id, r.name, [r.id], r.grams ?? 0, r.wheels ?? false)),
  ].map((p, i): Piece => ({ ...p, order: i + 1 }));
  const carried = new Map<string, number>();
  for (const p of pieces)
    for (const d of p.devices) carried.set(d.id, (carried.get(d.id) ?? 0) + 1);
  // What stays in the house is not carried.
  const real = rig.devices.filter((d) => d.host === undefined && d.place !== 'house');
  return {
    pieces,
    loose: real.filter((d) => !carried.has(d.id)),
    twice: real.filter((d) => (carried.get(d.id) ?? 0) > 1),
  };
}
