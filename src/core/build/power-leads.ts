import type { PowerPlug } from '../kinds';
import type { Device, Rig } from '../rig/schema';
import { cutLength, makingOf } from './cut-list';
import { sizeOf } from './footprint';
import { loadsOf, type Place } from './power';

/** Low-voltage jacks are 2.1 mm barrels unless said otherwise. */
export const USUAL_POWER_PLUG: PowerPlug = 'barrel 2.1';

/**
 * A lead from an outlet to a device, with the plug at each end, and its length in metres where both
 * stand on one board: from middle to middle along the edges, with slack at both ends, in cutting
 * steps. A simplification: it follows no rail.
 */
export interface PowerLead {
  device: Device;
  place: Place;
  from: PowerPlug;
  to: PowerPlug;
  metres: number | null;
}

/** Every low-voltage lead as it is plugged now. */
export function powerLeads(rig: Rig): PowerLead[] {
  const making = makingOf(rig);
  const middle = (d: Device) => {
    const size = sizeOf(d);
    if (!d.at || !size) return undefined;
    const [w, h] =
      (d.at.turn ?? 0) % 180 === 0 ? [size.width, size.depth] : [size.depth, size.width];
    return { board: d.at.board, x: d.at.x + w / 2, y: d.at.y + h / 2 };
  };
  return loadsOf(rig).flatMap(({ place, takers }) =>
    takers.map(({ device, need }): PowerLead => {
      const [a, b] = [middle(place.supply), middle(device)];
      const metres =
        a && b && a.board === b.board
          ? Number(cutLength((Math.abs(a.x - b.x) + Math.abs(a.y - b.y)) / 1000, making).toFixed(3))
          : null;
      return {
        device,
        place,
        from: place.outlet.plug ?? USUAL_POWER_PLUG,
        to: need.plug ?? USUAL_POWER_PLUG,
        metres,
      };
    }),
  );
}

/** A plug in words, barrels with the unit of their bore. */
export const powerPlugWords = (plug: PowerPlug): string =>
  plug.startsWith('barrel') ? `${plug} mm` : plug;

/** Both plugs of a lead. */
export const leadPlugs = (lead: PowerLead): string =>
  `${powerPlugWords(lead.from)} to ${powerPlugWords(lead.to)}`;

/** Low-voltage leads by their plugs: "barrel 2.1 mm to barrel 2.5 mm". */
export function powerLeadsByPlugs(rig: Rig): { plugs: string; leads: PowerLead[] }[] {
  const all = powerLeads(rig).map((lead) => ({ lead, plugs: leadPlugs(lead) }));
  return [...new Set(all.map((x) => x.plugs))].map((plugs) => ({
    plugs,
    leads: all.filter((x) => x.plugs === plugs).map((x) => x.lead),
  }));
}
