import { kindOf, type Pass } from '../kinds';
import { byKey } from '../graph';
import { joinsOf } from '../rig/conductors';
import { resolveState, stateIn } from '../rig/device-state';
import type { Device, Lead, Rig, Sound, State } from '../rig/schema';
import { asBlock } from './block';

/** A conductor of a lead: the point that it comes from and the one that it goes to. */
export interface Conductor {
  lead: Lead;
  from: string;
  to: string;
}

/** What follows from the devices and leads of a rig alone, whatever the sound. */
interface Wiring {
  devices: Rig['devices'];
  conductors: readonly Conductor[];
  plugged: Map<string, Set<string>>;
}

const wiringCache = new WeakMap<Rig['leads'], Wiring>();

/** The wiring of a rig; remembered while devices and leads stay the same. */
function wiringOf(rig: Rig): Wiring {
  let known = wiringCache.get(rig.leads);
  if (known?.devices !== rig.devices) {
    const conductors = findConductors(rig);
    known = { devices: rig.devices, conductors, plugged: findPlugged(rig, conductors) };
    wiringCache.set(rig.leads, known);
  }
  return known;
}

/** The conductors of every lead that carries sound. */
export const conductorsOf = (rig: Rig): readonly Conductor[] => wiringOf(rig).conductors;

/** Jacks of each device that hold a lead, and the conductors of them that a lead reaches. */
export const pluggedJacks = (rig: Rig): Map<string, Set<string>> => wiringOf(rig).plugged;

function findConductors(rig: Rig): Conductor[] {
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  return rig.leads.flatMap((lead) =>
    joinsOf(lead, devices.get(lead.from.device), devices.get(lead.to.device)).map(([from, to]) => ({
      lead,
      from,
      to,
    })),
  );
}

function findPlugged(rig: Rig, conductors: readonly Conductor[]): Map<string, Set<string>> {
  const plugged = new Map<string, Set<string>>();
  const add = (device: string, point: string) => {
    let points = plugged.get(device);
    if (!points) plugged.set(device, (points = new Set()));
    points.add(point);
  };
  const byLead = byKey(conductors, (c) => c.lead);
  for (const lead of rig.leads) {
    add(lead.from.device, lead.from.jack);
    add(lead.to.device, lead.to.jack);
    for (const { from, to } of byLead.get(lead) ?? []) {
      add(lead.from.device, from);
      add(lead.to.device, to);
    }
  }
  return plugged;
}

const NONE = new Set<string>();
const passCache = new WeakMap<
  Device,
  { state: State | undefined; plugged: string; passes: Pass[] }[]
>();

const namesKnown = new WeakMap<Set<string>, string>();

/** The names of a set, as one text. */
function namesOf(set: Set<string>): string {
  let names = namesKnown.get(set);
  if (names === undefined) namesKnown.set(set, (names = [...set].join(' ')));
  return names;
}

/** A device's passes in a sound; remembered while the device, its state and its plugs stay the same. */
export function passesOf(
  device: Device,
  sound: Sound | undefined,
  plugged: ReadonlyMap<string, Set<string>>,
): Pass[] {
  const state = stateIn(sound, device.id);
  const jacks = plugged.get(device.id) ?? NONE;
  const plugs = namesOf(jacks);
  let known = passCache.get(device);
  if (!known) passCache.set(device, (known = []));
  const hit = known.find((k) => k.state === state && k.plugged === plugs);
  if (hit) return hit.passes;
  const kind = kindOf(device.kind);
  const own = kind.passes(resolveState(kind, device, state), (jack) => jacks.has(jack));
  const passes = device.host === undefined ? own : own.map(asBlock);
  known.unshift({ state, plugged: plugs, passes });
  known.length = Math.min(known.length, 64);
  return passes;
}
