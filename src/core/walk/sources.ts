import { passesOf } from '../circuit';
import { sourceId } from '../rig/source-id';
import type { Rig } from '../rig/schema';

const known = new WeakMap<Rig['devices'], readonly string[]>();

/** Every source of a rig, whatever the sound: a device, or each of the signals that it sends at once. */
export function sourcesOf({ devices }: Pick<Rig, 'devices'>): readonly string[] {
  let ids = known.get(devices);
  if (!ids) known.set(devices, (ids = sentBy(devices)));
  return ids;
}

function sentBy(devices: Rig['devices']): string[] {
  const unplugged: ReadonlyMap<string, Set<string>> = new Map();
  return devices.flatMap((d) => {
    const found = passesOf({ ...d, engaged: true }, undefined, unplugged).flatMap((p) =>
      p.is === 'source' ? [sourceId(d.id, p.name)] : [],
    );
    return [...new Set(found)];
  });
}
