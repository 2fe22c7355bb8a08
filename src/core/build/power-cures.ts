import type { Edit } from '../rig/edits';
import { freshId } from '../rig/fresh-id';
import type { Gives } from '../rig/build-schema';
import type { Device, Rig } from '../rig/schema';
import { type Taker, takersOf } from './power';

type Outlet = Gives['outlets'][number];

/** A change that could let a device be fed, in words that follow "it takes", and as edits. */
export interface PowerCure {
  words: string;
  edits: Edit[];
}

/**
 * What lets a device be fed that gets nothing, the least first: a pin taken out, its own and then
 * another's; an outlet of another supply. No outlet more grows on a supply that is there. Each is tried;
 * nothing where none of them does it.
 *
 * @param cures whether some plan feeds it, and all that are fed now, after these edits
 */
export function powerCure(
  rig: Rig,
  device: string,
  headroom: number,
  cures: (edits: Edit[]) => boolean,
): PowerCure | undefined {
  const takers = takersOf(rig);
  const taker = takers.find((t) => t.device.id === device);
  if (!taker) return undefined;
  const pinned = takers
    .filter((t) => t.device.supply?.pinned)
    .sort((a, b) => Number(b === taker) - Number(a === taker));
  const outlet = outletFor(taker, headroom);
  const kind = `${outlet.volts} V ${outlet.ac ? 'AC' : `DC, centre ${outlet.centre ?? 'negative'}`}`;
  const isPinned = taker.device.supply?.pinned === true;
  // Where all pins out are not enough, no single one is.
  const all = pinned.map((t) => unpinned(t.device));
  const pins = all.length && cures(all) ? pinned : [];
  return [
    ...pins.map(({ device: d }) => ({
      words: d.id === device ? 'taking its pin out' : `taking the pin of ${d.name} out`,
      edits: [unpinned(d)],
    })),
    {
      words:
        `an outlet of ${kind}, ${outlet.milliamps} mA on another supply, or an adapter` +
        (isPinned ? ', and its pin taken out' : ''),
      edits: [...(isPinned ? [unpinned(taker.device)] : []), anotherSupply(rig, outlet)],
    },
  ].find((cure) => cures(cure.edits));
}

function outletFor({ need }: Taker, headroom: number): Outlet {
  return {
    id: 'more',
    label: 'one more',
    volts: need.volts,
    isolated: true,
    milliamps: Math.ceil(need.milliamps * (1 + headroom)),
    ...(need.ac && { ac: true }),
    ...(need.centre && { centre: need.centre }),
  };
}

const unpinned = ({ id, supply }: Device): Edit => ({
  edit: 'setDevice',
  device: id,
  supply: supply && { ...supply, pinned: false },
});

function anotherSupply(rig: Rig, outlet: Outlet): Edit {
  const id = freshId(
    'supply',
    rig.devices.map((d) => d.id),
  );
  const gives = { outlets: [outlet] };
  return {
    edit: 'addDevice',
    device: { id, kind: 'supply-isolated', name: 'Another supply', gives },
  };
}
