import { sizeOf } from '../build';
import { kindOf } from '../kinds';
import { type MipSolver, solveMip, type Term } from '../optimum';
import { fixed } from '../units';
import type { Rig } from '../rig/schema';
import type { Drill, Loss } from './drill';
import type { Spare } from './faults';
import { type Rescue, spareKey } from './rescue';

/** Something to take along, with what it weighs and costs where that is known, and what it is for. */
export interface SpareItem {
  spare: Spare;
  words: string;
  grams: number | null;
  price: number | null;
  /** The room that it takes, in litres. */
  litres: number | null;
  /** Faults that only it brings back in time, by id. */
  cures: string[];
}

export interface SparePlan {
  /** The smallest set that does it. */
  take: SpareItem[];
  grams: number;
  litres: number;
  /** Room left in the cases whose measures are known, in litres; null where none is known. */
  room: number | null;
  /** Faults that silence somebody and that no spare brings back within the seconds allowed. */
  never: Loss[];
  /** Faults that are brought back in time without any spare. */
  without: number;
  /** Faults that the set brings back in time, at every place that they silence. */
  cured: number;
  /** Whether it was proven that no smaller set does it; else everything that helps is taken. */
  proven: boolean;
  /** What each further spare would bring: expected seconds saved in a thousand shows. */
  further: { item: SpareItem; saves: number }[];
}

/** Weight of a metre of lead with its share of plugs, in g; typical. */
const LEAD_GRAMS = { plugs: 60, metre: 45 };
/** Room of a coiled lead, in litres: its plugs, and each metre; typical. */
const LEAD_LITRES = { plugs: 0.3, metre: 0.15 };
/** Of what a case measures so much can be filled, the rest is walls and padding: a rule of thumb. */
const FILLED = 0.6;

const litresOf = (s: { width: number; depth: number; height: number }): number =>
  (s.width * s.depth * s.height) / 1e6;

/** Litres left in the cases whose measures are known; what has no size takes no room here. */
export function roomLeft(rig: Rig): number | null {
  const known = (rig.cases ?? []).flatMap(({ width, depth, height, holds }) =>
    width && depth && height ? [{ litres: litresOf({ width, depth, height }), holds }] : [],
  );
  if (!known.length) return null;
  const taken = (id: string) => {
    const device = rig.devices.find((d) => d.id === id);
    const size = device && sizeOf(device);
    return size ? litresOf(size) : 0;
  };
  return known.reduce(
    (sum, c) => sum + Math.max(0, FILLED * c.litres - c.holds.reduce((s, id) => s + taken(id), 0)),
    0,
  );
}

const spareWords = (s: Spare): string =>
  s.is === 'lead'
    ? `${s.type} lead, ${fixed(s.metres)} m`
    : s.is === 'device'
      ? kindOf(s.kind).name
      : s.words;

/** What one spare is, by the rig's own units of that kind. */
function itemOf(rig: Rig, spare: Spare): Omit<SpareItem, 'cures'> {
  const words = spareWords(spare);
  if (spare.is === 'lead')
    return {
      spare,
      words,
      grams: Math.round(LEAD_GRAMS.plugs + LEAD_GRAMS.metre * spare.metres),
      price: null,
      litres: LEAD_LITRES.plugs + LEAD_LITRES.metre * spare.metres,
    };
  if (spare.is === 'part') return { spare, words, grams: null, price: null, litres: null };
  const own = rig.devices.find((d) => d.kind === spare.kind);
  const size = (own && sizeOf(own)) ?? kindOf(spare.kind).size;
  return {
    spare,
    words,
    grams: own?.gear?.grams ?? kindOf(spare.kind).size?.grams ?? null,
    price: own?.gear?.value ?? null,
    litres: size ? litresOf(size) : null,
  };
}

/** Whether one spare does for another: a lead of the same type that is as long or longer, or the same. */
export const doesFor = (have: Spare, need: Spare): boolean =>
  have.is === 'lead' && need.is === 'lead'
    ? have.type === need.type && have.metres >= need.metres
    : spareKey(have) === spareKey(need);

/** What brings a fault back in time at one ear: nothing but hands, or one of some spares. */
interface Need {
  loss: Loss;
  spares: Spare[];
}

/** What silent losses need, ear by ear and sound by sound; those that hands alone cure in time are left out. */
function needsOf(drill: Drill, seconds: number): Need[] {
  return drill.losses.flatMap((loss) =>
    loss.hits.flatMap((hit): Need[] => {
      if (!hit.silent) return [];
      return hit.bySound.flatMap(({ ways }): Need[] => {
        const inTime = ways.filter((w) => w.seconds <= seconds);
        if (inTime.some((w) => !w.spare)) return [];
        return [{ loss, spares: inTime.flatMap((w) => (w.spare ? [w.spare] : [])) }];
      });
    }),
  );
}

/**
 * The fewest spares with which everybody hears something again within some seconds after any single
 * fault that a spare can cure, exactly; of several such sets the cheapest where prices are known, then
 * the lightest.
 */
export function smallestSpares(
  rig: Rig,
  drill: Drill,
  seconds: number,
  solver: MipSolver,
): SparePlan {
  const needs = needsOf(drill, seconds);
  const curable = needs.filter((n) => n.spares.length > 0);
  const items = new Map(curable.flatMap((n) => n.spares).map((s) => [spareKey(s), itemOf(rig, s)]));
  const list = [...items.values()];
  const answer = choose(list, curable, solver);
  const chosen = new Set(answer ?? list.map((_, k) => k));
  const isMet = (n: Need) =>
    n.spares.some((s) => list.some((i, k) => chosen.has(k) && doesFor(i.spare, s)));
  const silent = drill.losses.filter((l) => l.hits.some((h) => h.silent));
  const hopeless = new Set(needs.filter((n) => !n.spares.length).map((n) => n.loss));
  const needing = new Set(needs.map((n) => n.loss));
  const cures = (i: Omit<SpareItem, 'cures'>) => [
    ...new Set(
      curable.filter((n) => n.spares.some((s) => doesFor(i.spare, s))).map((n) => n.loss.fault.id),
    ),
  ];
  const take = list
    .filter((_, k) => chosen.has(k))
    .map((i): SpareItem => ({ ...i, cures: cures(i) }));
  return {
    take,
    grams: take.reduce((s, i) => s + (i.grams ?? 0), 0),
    litres: take.reduce((s, i) => s + (i.litres ?? 0), 0),
    room: roomLeft(rig),
    never: silent.filter((l) => hopeless.has(l)),
    without: silent.filter((l) => !needing.has(l)).length,
    cured: [...needing].filter((l) => needs.every((n) => n.loss !== l || isMet(n))).length,
    proven: answer !== undefined,
    further: furtherSpares(rig, drill, take, seconds),
  };
}

/** The numbers of the items of the smallest set that meets every need; nothing where it was not found. */
function choose(
  items: readonly Omit<SpareItem, 'cures'>[],
  needs: readonly Need[],
  solver: MipSolver,
): number[] | undefined {
  if (!needs.length) return [];
  const prices = items.reduce((s, i) => s + (i.price ?? 0), 0) || 1;
  const grams = items.reduce((s, i) => s + (i.grams ?? 0), 0) || 1;
  // Price and weight together stay under a hundredth of one spare, so that they only break ties.
  const minimise = items.map((i, k): Term => [
    1 + (0.009 * (i.price ?? 0)) / prices + (0.0009 * (i.grams ?? 0)) / grams,
    `s${k}`,
  ]);
  const rules = needs.map((n, r) => ({
    name: `n${r}`,
    terms: items.flatMap((i, k): Term[] =>
      n.spares.some((s) => doesFor(i.spare, s)) ? [[1, `s${k}`]] : [],
    ),
    is: '>=' as const,
    value: 1,
  }));
  const answer = solveMip({ minimise, rules, binaries: items.map((_, k) => `s${k}`) }, solver);
  return answer.solved
    ? items.flatMap((_, k) => ((answer.values[`s${k}`] ?? 0) > 0.5 ? [k] : []))
    : undefined;
}

/** Every way out of a loss, at every ear and in every sound that it silences. */
const waysOf = (loss: Loss): Rescue[] =>
  loss.hits.flatMap((h) => h.bySound.flatMap(({ ways }) => ways));

/** Seconds until everybody hears something again with some spares, by a loss. */
function secondsWith(loss: Loss, spares: readonly Spare[], most: number): number {
  return Math.max(
    0,
    ...loss.hits
      .flatMap((h) => h.bySound)
      .map(
        ({ ways }) =>
          ways.find((w) => !w.spare || spares.some((s) => doesFor(s, w.spare ?? s)))?.seconds ??
          most,
      ),
  );
}

/** Spares beyond the set that would shorten silences, the most telling first. */
function furtherSpares(
  rig: Rig,
  drill: Drill,
  take: readonly SpareItem[],
  seconds: number,
): SparePlan['further'] {
  const have = take.map((i) => i.spare);
  const all = new Map(
    drill.losses
      .flatMap((l) => waysOf(l).flatMap((w) => (w.spare ? [w.spare] : [])))
      .filter((s) => !have.some((h) => doesFor(h, s)))
      .map((s) => [spareKey(s), s]),
  );
  return [...all.values()]
    .map((spare) => {
      const helped = drill.losses.filter(
        (l) => secondsWith(l, [...have, spare], l.secondsHit) < secondsWith(l, have, l.secondsHit),
      );
      return {
        item: { ...itemOf(rig, spare), cures: helped.map((l) => l.fault.id) },
        saves: helped.reduce(
          (sum, l) =>
            sum +
            l.perThousand *
              (secondsWith(l, have, l.secondsHit) - secondsWith(l, [...have, spare], l.secondsHit)),
          0,
        ),
      };
    })
    .filter((f) => f.saves > 0 && seconds > 0)
    .sort((a, b) => b.saves - a.saves)
    .slice(0, MOST_FURTHER);
}

/** How many further spares are listed. */
const MOST_FURTHER = 6;
