import { DEMO_RIGS } from '../demo';
import type { Rig } from '../rig/schema';
import { oddRigs } from './odd-rigs';

/** A rig with a name for what is different about it. */
export interface Variant {
  name: string;
  rig: Rig;
}

/**
 * The demo rigs, and each of them with one thing changed: a lead pulled, a device bypassed or
 * engaged, in its first sounds only; and small rigs of many sorts. Enough to come by most of what can
 * be said of a rig.
 */
export function* variants(sounds = 2, every = 3): Generator<Variant> {
  for (const whole of DEMO_RIGS) {
    yield { name: whole.id, rig: whole };
    const rig = { ...whole, sounds: whole.sounds.slice(0, sounds) };
    for (const [i, lead] of rig.leads.entries())
      if (i % every === 0)
        yield {
          name: `${rig.id} without ${lead.id}`,
          rig: { ...rig, leads: rig.leads.filter((l) => l !== lead) },
        };
    for (const [i, device] of rig.devices.entries())
      if (i % every === 0)
        yield {
          name: `${rig.id} with ${device.id} turned over`,
          rig: {
            ...rig,
            sounds: rig.sounds.map((s) => ({
              ...s,
              states: {
                ...s.states,
                [device.id]: {
                  ...s.states[device.id],
                  engaged: !(s.states[device.id]?.engaged ?? device.engaged ?? false),
                },
              },
            })),
          },
        };
  }
  for (const rig of oddRigs()) yield { name: rig.id, rig };
}
