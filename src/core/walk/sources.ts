import { passesOf } from '../circuit';
import { sourceId } from '../rig/source-id';
import type { Rig } from '../rig/schema';

/** Every source of a rig, whatever the sound: a device, or each of the signals that it sends at once. */
export function sourcesOf(rig: Rig): string[] {
  const unplugged: ReadonlyMap<string, Set<string>> = new Map();
  return rig.devices.flatMap((d) => {
    const found = passesOf({ ...d, engaged: true }, undefined, unplugged).flatMap((p) =>
      p.is === 'source' ? [sourceId(d.id, p.name)] : [],
    );
    return [...new Set(found)];
  });
}
