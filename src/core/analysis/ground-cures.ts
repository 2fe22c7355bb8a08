import { sure } from '../outcome';
import { passesOf, pluggedJacks } from '../circuit';
import type { Fix } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { kindOf, type Outlet } from '../kinds';
import { deviceOf, jackOf, leadsFrom, nameOf, outletsOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, Lead, Rig } from '../rig/schema';
import { fixed } from '../units';

/**
 * What ties two chassis together: a lead's shield, the mains' protective earth, or a supply's
 * shared return.
 */
export interface Tie {
  kind: 'shield' | 'earth' | 'supply';
  a: string;
  b: string;
  lead?: string;
  /** The lead is balanced: what flows in its shield is not in the signal. */
  balanced?: boolean;
  device: string;
  other: string;
}

/** How a loop is opened. */
export interface Cure {
  cure: string;
  fix?: Fix;
  /** Other places for an isolator. */
  others?: Fix[];
}

/** What the cures of all loops read, gathered once. */
interface Known {
  devices: Map<string, Device>;
  leadsById: Map<string, Lead>;
  outlet: { d: Device; o: Outlet } | undefined;
}

export function gather(rig: Rig): Known {
  const taken = new Set(
    rig.devices.flatMap((d) => (d.supply ? [`${d.supply.device} ${d.supply.outlet ?? ''}`] : [])),
  );
  const outlet = rig.devices.flatMap((d) =>
    (outletsOf(d) ?? [])
      .filter((o) => o.isolated && !taken.has(`${d.id} ${o.id}`))
      .map((o) => ({ d, o })),
  )[0];
  return {
    devices: new Map(rig.devices.map((d) => [d.id, d])),
    leadsById: new Map(rig.leads.map((l) => [l.id, l])),
    outlet,
  };
}

/**
 * The cheapest place to open a loop: an isolated output that is there already, an isolated outlet,
 * a hum isolator in the longest lead. Never a protective earth.
 */
export function cureOf(
  rig: Rig,
  ties: readonly Tie[],
  { devices, leadsById, outlet }: Known,
  bareSource: BareSource,
): Cure {
  const name = (id: string) => devices.get(id)?.name ?? id;
  const leads = ties.flatMap((t) => (t.lead ? [sure(leadsById.get(t.lead))] : []));
  for (const lead of leads) {
    const device = sure(devices.get(lead.from.device));
    const kind = kindOf(device.kind);
    const lift = kind.parameters.find(
      (p) => p.type === 'switch' && p.id.toLowerCase() === `isolate${lead.from.jack}`.toLowerCase(),
    );
    if (lift)
      return {
        cure: `isolate output ${lead.from.jack.toUpperCase()} of ${device.name}, which has a transformer`,
        fix: {
          words: `Isolate output ${lead.from.jack.toUpperCase()} of ${device.name}`,
          edits: [{ edit: 'setSetting', device: device.id, setting: lift.id, value: true }],
        },
      };
    const other = isolatedSibling(rig, device, lead);
    if (other)
      return {
        cure: `use the isolated output of ${device.name} for ${name(lead.to.device)}`,
        fix: other,
      };
  }
  const supply = ties.find((t) => t.kind === 'supply');
  if (supply) {
    const isolated = outlet;
    return {
      cure: `feed ${name(supply.device)} from an isolated outlet`,
      ...(isolated && {
        fix: {
          words: `Feed ${name(supply.device)} from ${isolated.o.label} of ${isolated.d.name}`,
          edits: [
            {
              edit: 'setDevice',
              device: supply.device,
              supply: { device: isolated.d.id, outlet: isolated.o.id },
            },
          ],
        },
      }),
    };
  }
  const usb = leads.find((l) => l.type === 'usb');
  if (usb)
    return {
      cure: `a USB isolator between ${name(usb.from.device)} and ${name(usb.to.device)}`,
      fix: usbIsolatorFix(rig, usb),
    };
  // A leg that ends where it goes, such as a tuner's, before the line; then the longest.
  const endsThere = (l: Lead) => leadsFrom(rig, l.to.device).length === 0;
  const places = leads
    .filter((l) => l.type !== 'speaker' && l.type !== 'digital' && l.type !== 'control')
    .sort((a, b) => Number(endsThere(b)) - Number(endsThere(a)) || b.metres - a.metres)
    .flatMap((lead) => {
      const fix = isolatorFix(rig, lead, bareSource(lead));
      return fix ? [{ lead, fix }] : [];
    });
  const [best, ...rest] = places;
  if (!best) return { cure: 'keep its leads short and side by side' };
  return {
    cure:
      `a hum isolator in the lead from ${name(best.lead.from.device)} ` +
      `to ${name(best.lead.to.device)} (${fixed(best.lead.metres)} m)`,
    fix: best.fix,
    others: rest.slice(0, OTHER_PLACES).map((p) => p.fix),
  };
}

/** The instrument whose bare pickup drives a lead, if one does. */
export type BareSource = (lead: Lead) => string | undefined;

/**
 * A hum isolator in a lead. Where a bare pickup drives it, a buffer behind the instrument comes with
 * it; in the instrument's own lead there is none.
 */
export function isolatorFix(rig: Rig, lead: Lead, bareSource: string | undefined): Fix | undefined {
  const between = `between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`;
  const isolator = insertFix(
    ...([rig, 'hum-isolator', 'Hum isolator', lead.id] as const),
    `Put a hum isolator ${between}`,
  );
  if (bareSource === undefined) return isolator;
  const first = leadsFrom(rig, bareSource).find((l) => l.type === lead.type);
  if (!first || first === lead) return undefined;
  const words = `Put a buffer behind ${nameOf(rig, bareSource)} and a hum isolator ${between}`;
  const buffer = insertFix(rig, 'buffer', 'Buffer', first.id, words);
  return { words, edits: [...buffer.edits, ...isolator.edits] };
}

/** So many other places for an isolator are named. */
const OTHER_PLACES = 3;

/** Parts the grounds of a USB lead; the isolator's two sides fit whichever end is the host. */
function usbIsolatorFix(rig: Rig, lead: Lead): Fix {
  const box = freshId(
    'usb-isolator',
    rig.devices.map((d) => d.id),
  );
  const [first, second] = [0, 1].reduce<string[]>(
    (ids) => [...ids, freshId(`${box}-lead`, [...rig.leads.map((l) => l.id), ...ids])],
    [],
  );
  const host = jackOf(sure(deviceOf(rig, lead.from.device)), lead.from.jack)?.usb === 'host';
  return {
    words: `Put a USB isolator between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`,
    edits: [
      { edit: 'disconnect', lead: lead.id },
      { edit: 'addDevice', device: { id: box, kind: 'usb-isolator', name: 'USB isolator' } },
      {
        edit: 'connect',
        lead: { ...lead, id: first!, to: { device: box, jack: host ? 'up' : 'down' } },
      },
      {
        edit: 'connect',
        lead: {
          ...lead,
          id: second!,
          metres: 0.3,
          from: { device: box, jack: host ? 'down' : 'up' },
        },
      },
    ],
  };
}

/** Exchanging two outputs of a splitter, where the other one is isolated. */
function isolatedSibling(rig: Rig, device: Device, lead: Lead): Fix | undefined {
  const passes = passesOf(device, undefined, pluggedJacks(rig));
  const isolated = passes.find(
    (p) =>
      p.is === 'stage' &&
      !p.groundThrough &&
      p.to !== lead.from.jack &&
      kindOf(device.kind).jacks.some((j) => j.id === p.to && j.direction === 'out'),
  );
  if (
    isolated?.is !== 'stage' ||
    !passes.some((p) => p.is === 'stage' && p.to === lead.from.jack && p.from === isolated.from)
  )
    return undefined;
  if (leadsFrom(rig, device.id).some((l) => l.from.jack === isolated.to)) return undefined;
  const { id, ...rest } = lead;
  return {
    words: `Use output ${isolated.to.toUpperCase()} of ${device.name}, which is isolated`,
    edits: [
      { edit: 'disconnect', lead: id },
      { edit: 'connect', lead: { ...rest, id, from: { device: device.id, jack: isolated.to } } },
    ],
  };
}
