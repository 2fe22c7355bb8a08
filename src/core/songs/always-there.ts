import { kindOf } from '../kinds';
import type { Rig } from '../rig/schema';

/** Tempo devices that are tapped want a tap switch; so does a tuner or mute that no sound calls. */
export function alwaysThere(rig: Rig): string[] {
  const tap = rig.devices.some((d) => d.tempo?.way === 'tap');
  const tuner = rig.devices.find((d) => kindOf(d.kind).job === 'tuner' && !kindOf(d.kind).alwaysOn);
  return [...(tap ? ['tap'] : []), ...(tuner ? ['tuner'] : [])];
}
