import type { Device, Lead, LeadType, Rig } from '../rig/schema';
import { type Cut, cutList } from './cut-list';
import { gramsOf, TWO_PERSONS_GRAMS } from './gear';
import { leadGrams, MAINS_LEAD_GRAMS, POWER_LEAD_GRAMS } from './lead-weight';
import { mainsSums } from './mains';
import { powerLeads } from './power-leads';

/**
 * One piece that is carried: a case, or a board or rack that is in none. Weight in grams, with the leads
 * that stay in it (those between what it holds, at typical grams a metre); `unweighed` things are not
 * in it.
 */
export interface Piece {
  id: string;
  name: string;
  order: number;
  devices: Device[];
  leads: Cut[];
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
  /** Leads that are pulled and coiled, mains leads, and spares; grams each. */
  coiled: Coiled[];
  /** All of it together, in grams: what a limit of weight is held against. */
  grams: number;
}

/** Leads of one sort that are carried by themselves. */
export interface Coiled {
  what: 'lead' | 'mains lead' | 'spare';
  words: string;
  count: number;
  /** Of one of them. */
  grams: number;
}

/** Leads that travel with none of the pieces: between two of them, to the player, to the house. */
function coiledLeads(rig: Rig, cuts: readonly Cut[], pieces: readonly Piece[]): Coiled[] {
  const staying = new Set(pieces.flatMap((p) => p.leads.map((c) => c.lead.id)));
  const loose = cuts.filter((c) => !staying.has(c.lead.id));
  const metres = (m: number) => `${Number(m.toFixed(2))} m`;
  const types = [...new Set(loose.map((c) => c.lead.type))];
  const spare = (type: LeadType): Coiled => {
    const longest = Math.max(...loose.filter((c) => c.lead.type === type).map((c) => c.cut));
    const words = `${type} lead, ${metres(longest)}: as long as the longest of its type`;
    return { what: 'spare', words, count: 1, grams: leadGrams(type, longest) };
  };
  const mains = mainsSums(rig, 230).takers.filter((t) => t.device.place !== 'house').length;
  return [
    ...loose.map((c): Coiled => ({
      what: 'lead',
      words: `${c.lead.label ?? c.code}, ${c.lead.type}, ${metres(c.cut)}`,
      count: 1,
      grams: leadGrams(c.lead.type, c.cut),
    })),
    ...(mains
      ? ([
          { what: 'mains lead', words: 'mains lead', count: mains, grams: MAINS_LEAD_GRAMS },
          { what: 'spare', words: 'mains lead', count: 1, grams: MAINS_LEAD_GRAMS },
        ] satisfies Coiled[])
      : []),
    ...types.map(spare),
  ];
}

const leadsIn = (cuts: readonly Cut[]): number =>
  cuts.reduce((s, c) => s + leadGrams(c.lead.type, c.cut), 0);

const isBetween = ({ from, to }: Lead, devices: ReadonlySet<string>): boolean =>
  devices.has(from.device) && devices.has(to.device);

export function packingOf(rig: Rig, { cuts } = cutList(rig)): Packing {
  const fed = powerLeads(rig);
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
    const inIt = new Set(devices.map((d) => d.id));
    const leads = cuts.filter((c) => isBetween(c.lead, inIt));
    const feeds = fed.filter((l) => inIt.has(l.device.id) && inIt.has(l.place.supply.id));
    const grams =
      own +
      leadsIn(leads) +
      feeds.length * POWER_LEAD_GRAMS +
      carriers.reduce(
        (s, h) => s + (h === id ? 0 : (boards.get(h)?.grams ?? racks.get(h)?.grams ?? 0)),
        0,
      ) +
      devices.reduce((s, d) => s + (gramsOf(d) ?? 0), 0);
    return {
      id,
      name,
      devices,
      leads,
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
  const loose = real.filter((d) => !carried.has(d.id));
  const coiled = coiledLeads(rig, cuts, pieces);
  const twice = real.filter((d) => (carried.get(d.id) ?? 0) > 1);
  return {
    pieces,
    loose,
    coiled,
    twice,
    // What is said to be in two pieces weighs once.
    grams:
      pieces.reduce((s, p) => s + p.grams, 0) -
      twice.reduce((s, d) => s + ((carried.get(d.id) ?? 1) - 1) * (gramsOf(d) ?? 0), 0) +
      loose.reduce((s, d) => s + (gramsOf(d) ?? 0), 0) +
      coiled.reduce((s, c) => s + c.count * c.grams, 0),
  };
}
