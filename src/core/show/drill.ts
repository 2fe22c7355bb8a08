import { at } from '../outcome';
import type { Rig, SongSet } from '../rig/schema';
import { atEar, effectsOf, type Effects, Listener, type Tell } from './effects';
import { type Fault, type FaultFacts, faultsOf } from './faults';
import { allOdds, type Known, NOTHING_KNOWN } from './finder/odds';
import { usesOf } from './played';
import { type Rescue, rescues } from './rescue';
import { bitOf } from './symptoms';

/** Who loses what when one thing fails, and how sound comes back. */
export interface Loss {
  fault: FaultFacts;
  perThousand: number;
  hits: Hit[];
  /** Seconds of the set in which something is wrong if it fails before the first note. */
  secondsHit: number;
  songs: string[];
  /**
   * Seconds until everybody hears something again with what is at hand without a spare; nothing where
   * no such way was found.
   */
  withoutSpares?: number;
  /** The same with any spare. */
  withSpares?: number;
  /** Expected seconds of silence or wrong sound in a thousand shows, by which losses are ranked. */
  weight: number;
}

/** One ear that a fault takes something from. */
export interface Hit {
  ear: string;
  name: string;
  sounds: { sound: string; bits: number }[];
  silent: boolean;
  /** Ways to sound, the quickest first, in the silent sound that is played longest. */
  ways: Rescue[];
  /** The same in every silent sound that is played: the way out of one may be none out of another. */
  bySound: { sound: string; ways: Rescue[] }[];
}

export interface Drill {
  losses: Loss[];
  /** How many faults were tried. */
  tried: number;
  /** Faults after which nobody notices anything in this set. */
  unheard: number;
}

/** What sounds otherwise counts this much of what is silent; a rule of thumb. */
const WRONG_SHARE = 0.25;
const SILENT = bitOf('silent');

/**
 * Tries every single fault on a copy of the rig against a set: who is silent or sounds otherwise, in
 * which songs, and by which way sound comes back, each way tried as well. Ranked by odds times
 * seconds lost: a loss counts from the fault until sound is back, never longer than the music that it
 * hits; one that is heard but not silence counts a quarter.
 */
export async function drillOf(
  rig: Rig,
  set?: SongSet,
  known: Known = NOTHING_KNOWN,
  tell: Tell = () => Promise.resolve(),
): Promise<Drill> {
  const listener = new Listener(rig);
  const effects = await effectsOf(listener, (share, words) => tell(share / 2, words));
  const odds = allOdds(effects.faults, known);
  const uses = usesBySound(usesOf(rig, set));
  const losses: Loss[] = [];
  const faults = faultsOf(listener.whole);
  for (const [f, fault] of faults.entries()) {
    if (f % 4 === 0) await tell(0.5 + f / effects.faults.length / 2, fault.words);
    const loss = lossOf(listener, effects, f, { fault, perThousand: at(odds, f), uses });
    if (loss) losses.push(loss);
  }
  losses.sort((a, b) => b.weight - a.weight);
  return {
    losses,
    tried: effects.faults.length,
    unheard: effects.faults.length - losses.length,
  };
}

function lossOf(
  listener: Listener,
  effects: Effects,
  f: number,
  {
    fault,
    perThousand,
    uses,
  }: { fault: Fault; perThousand: number; uses: ReturnType<typeof usesBySound> },
): Loss | undefined {
  const played = (sound: string) => uses.get(sound)?.seconds ?? 0;
  const hits = effects.ears.flatMap((ear, e): (Hit & { e: number })[] => {
    const sounds = effects.sounds.flatMap(({ id }, s) => {
      const bits = atEar(effects, f, s, e);
      return bits && played(id) > 0 ? [{ sound: id, bits }] : [];
    });
    const silent = sounds.some((s) => s.bits & SILENT);
    return sounds.length
      ? [{ e, ear: ear.device, name: ear.name, sounds, silent, ways: [], bySound: [] }]
      : [];
  });
  // The longest first: where all that helps there helps in another, what is figured from both is the same.
  const helped = new Map<Hit, readonly Rescue[]>();
  for (const sound of [...listener.sounds].sort((a, b) => played(b.id) - played(a.id))) {
    const here = hits.filter((h) =>
      h.sounds.some((s) => s.sound === sound.id && (s.bits & SILENT) !== 0),
    );
    if (!here.length) continue;
    const ears = here.map((h) => h.e);
    const words = new Set(here.flatMap((h) => helped.get(h) ?? []).map((w) => w.words));
    const known = words.size ? rescues(listener, fault, sound, ears, words) : ears.map(() => []);
    const isSame = here.every((h, i) =>
      helped.get(h)?.every((w) => known[i]?.some((k) => k.words === w.words)),
    );
    const ways = isSame ? known : rescues(listener, fault, sound, ears);
    here.forEach((h, i) => {
      h.bySound.push({ sound: sound.id, ways: at(ways, i) });
      if (!helped.has(h)) helped.set(h, at(ways, i));
    });
  }
  for (const h of hits) h.ways = h.bySound.find((x) => x.sound === longest(h, played))?.ways ?? [];
  if (!hits.length) return undefined;
  const hitSounds = new Set(hits.flatMap((h) => h.sounds.map((s) => s.sound)));
  const secondsHit = [...hitSounds].reduce((sum, s) => sum + played(s), 0);
  const silent = hits.filter((h) => h.silent);
  const least = (ways: (Rescue[] | undefined)[]) => {
    const each = ways.map((w) => w?.[0]?.seconds);
    return each.every((s) => s !== undefined) ? Math.max(0, ...each) : undefined;
  };
  const each = silent.flatMap((h) => h.bySound.map(({ ways }) => ways));
  const withoutSpares = least(each.map((ways) => ways.filter((w) => !w.spare)));
  const withSpares = least(each);
  const lost = silent.length
    ? Math.min(withoutSpares ?? secondsHit, secondsHit)
    : WRONG_SHARE * Math.min(fault.mend.seconds, secondsHit);
  const { change: _, ...facts } = fault;
  return {
    fault: facts,
    perThousand,
    hits: hits.map(({ e: _, ...hit }) => hit),
    secondsHit,
    songs: [...new Set([...hitSounds].flatMap((s) => uses.get(s)?.songs ?? []))],
    ...(withoutSpares !== undefined && { withoutSpares }),
    ...(withSpares !== undefined && { withSpares }),
    weight: perThousand * lost,
  };
}

/** The silent sound that is on longest. */
const longest = (hit: Hit, played: (sound: string) => number): string | undefined =>
  hit.sounds
    .filter((s) => s.bits & SILENT)
    .reduce<string | undefined>(
      (a, { sound }) => (a === undefined || played(sound) > played(a) ? sound : a),
      undefined,
    );

const usesBySound = (uses: ReturnType<typeof usesOf>) => new Map(uses.map((u) => [u.sound, u]));
