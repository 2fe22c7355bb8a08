import type { SoundFigures } from '../analysis';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import type { Breach } from './ground';

/** Where a promise hangs on levels: at one destination or at all, by the level of a sine or by loudness. */
export interface LevelsOf {
  at: string;
  by?: 'level' | 'loudness';
}

/**
 * Why the levels that a promise hangs on cannot be told in a sound: a circle that howls has none, and
 * loudness leaves out what goes round even where it comes to rest.
 */
export function untold(rig: Rig, { at, by }: LevelsOf, figures: SoundFigures): Breach[] {
  const isLoudness = by === 'loudness';
  const circle = figures.cycles.find(
    (c) =>
      (isLoudness || c.fate !== 'rests') &&
      (at === 'all' ? c.reaches.length > 0 : c.reaches.includes(at)),
  );
  if (!circle) return [];
  const where = at === 'all' ? (circle.reaches[0] ?? '') : at;
  const through = circle.devices.map((d) => nameOf(rig, d)).join(', ');
  const because =
    circle.fate === 'rests' ? 'and the note leaves that out' : 'and it has no level there';
  return [
    {
      sound: figures.sound,
      why:
        `${isLoudness ? 'The loudness' : 'The level'} at ${nameOf(rig, where)} cannot be told: ` +
        `signal can run in a circle through ${through}, ${because}.`,
      subjects: [where, ...circle.devices],
    },
  ];
}
