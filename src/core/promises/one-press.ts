import { sure } from '../outcome';
import { pressesBetween } from '../midi';
import { nameOf } from '../rig/find';
import type { PromiseOf } from '../rig/schema';
import type { Breach, Ground } from './ground';

/** One press takes the rig from one sound to another, with nothing left to turn by hand. */
export function onePress(p: PromiseOf<'one-press'>, { rig, sound }: Ground): Breach[] {
  const { presses, turns } = pressesBetween(rig, sure(sound(p.from)), sure(sound(p.to)));
  if (presses.length <= 1 && !turns.length) return [];
  const told = [
    ...presses.map((x) => `${nameOf(rig, x.device)} (${x.changes.join(', ')})`),
    ...turns.map((x) => `${nameOf(rig, x.device)} by hand (${x.changes.join(', ')})`),
  ];
  return [
    {
      sound: p.to,
      why:
        `It takes ${presses.length} ` +
        (presses.length === 1 ? 'press' : 'presses') +
        (turns.length ? ` and ${turns.length} turned by hand` : '') +
        `: ${told.join('; ')}.`,
      subjects: [...presses, ...turns].map((x) => x.device),
    },
  ];
}
