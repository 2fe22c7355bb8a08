import { drillOf, type Loss, smallestSpares } from '../../core/show';
import type { Rig } from '../../core/rig';
import { fixed, howMany } from '../../core/units';
import { command, named, refuse } from '../command';
import { exactSolver } from '../exact-solver';

interface Asked {
  set?: string;
  seconds: string;
}

const setOf = (rig: Rig, set: string | undefined) =>
  set === undefined ? rig.sets?.[0] : named(rig.sets, set, (s) => s.name, 'set');

export const drill = command<Asked>({
  name: 'drill',
  about: 'every single fault against a set: who is silent, how sound comes back; the fewest spares',
  options: [
    { flags: '--set <name>', about: 'a set, by name or id; the first one' },
    { flags: '--seconds <n>', about: 'how long a silence may last', initial: '60' },
  ],
  run: async (rig, { set, seconds }) => {
    const most = Number(seconds);
    if (!(most > 0 && most <= 3600)) return refuse('Give --seconds as a number from 1 to 3600.');
    const found = await drillOf(rig, setOf(rig, set));
    const spares = smallestSpares(rig, found, most, await exactSolver());
    return {
      json: { drill: found, spares },
      lines: [
        `${howMany(found.tried, 'fault')} tried; after ${found.unheard} nobody notices anything.`,
        `Take: ${spares.take.map((i) => i.words).join('; ') || 'nothing'}` +
          ` (${fixed(spares.grams / 1000)} kg as far as known).`,
        ...spares.never.map((l) => `Nothing brings back within ${most} s: ${l.fault.words}`),
        ...found.losses.map(lineOf),
      ],
    };
  },
});

function lineOf(l: Loss): string {
  const silent = l.hits.filter((h) => h.silent).map((h) => h.name);
  const way = l.hits.find((h) => h.silent)?.ways[0];
  return (
    `${l.fault.words}: ` +
    (silent.length ? `silent at ${silent.join(', ')}` : 'heard, not silent') +
    (way ? `; ${Math.round(way.seconds)} s: ${way.words}` : '')
  );
}
