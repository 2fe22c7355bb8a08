import { kindOf, type Pass } from '../kinds';
import { joinsOf } from '../rig/conductors';
import { resolveState, stateIn } from '../rig/device-state';
import type { Device, Rig, Sound, State } from '../rig/schema';
import { asBlock } from './block';

const pluggedCache = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; plugged: Map<string, Set<string>> }
>();

/**
 * Jacks of each device that hold a lead, and the conductors of them that a lead reaches; remembered
 * while devices and leads stay the same.
 */
export function pluggedJacks(rig: Rig): Map<string, Set<string>> {
  let known = pluggedCache.get(rig.leads);
  if (known?.devices !== rig.devices)
    pluggedCache.set(rig.leads, (known = { devices: rig.devices, plugged: findPlugged(rig) }));
  return known.plugged;
}

function findPlugged(rig: Rig): Map<string, Set<string>> {
  const plugged = new Map<string, Set<string>>();
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const jacksOf = (device: string) => {
    let jacks = plugged.get(device);
    if (!jacks) plugged.set(device, (jacks = new Set()));
    return jacks;
  };
  for (const lead of rig.leads) {
    const [from, to] = [jacksOf(lead.from.device), jacksOf(lead.to.device)];
    from.add(lead.from.jack);
    to.add(lead.to.jack);
    for (const [a, b] of joinsOf(
      lead,
      devices.get(lead.from.device),
      devices.get(lead.to.device),
    )) {
      from.add(a);
      to.add(b);
    }
  }
  return plugged;
}

const NONE = new Set<string>();
const passCache = new WeakMap<
  Device,
  { state: State | undefined; plugged: string; passes: Pass[] }[]
>();

/** A device's passes in a sound; remembered while the device, its state and its plugs stay the same. */
export function passesOf(
  device: Device,
  sound: Sound | undefined,
  plugged: ReadonlyMap<string, Set<string>>,
): Pass[] {
  const state = stateIn(sound, device.id);
  const jacks = plugged.get(device.id) ?? NONE;
  const plugs = [...jacks].join(' ');
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
