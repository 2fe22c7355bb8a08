import { dice } from './anneal';
import { quarrel, type Place, placeKey, type Taker } from './power';

/** One device on one outlet at one of its voltages. */
export interface Choice {
  t: Taker;
  p: Place;
  /** Places and voltages by number. */
  j: number;
  v: number;
}

/** What giving out comes to: how many devices are fed, how many outlets used, and how many plugs moved. */
export interface Counts {
  fed: number;
  used: number;
  moved: number;
}

/** What was given out, and what it comes to. */
interface GivenOut<C> extends Counts {
  chosen: readonly C[];
}

/** Whether one way is better: first what is fed, then what is used, then what need not be moved. */
const isBetter = (a: Counts, b: Counts): boolean =>
  (a.fed - b.fed || a.used - b.used || b.moved - a.moved) > 0;

/** Orders that are tried. */
const TRIES = 60;

/**
 * Gives out outlets one device after the other: those first that stay where they are, then those that
 * have the fewest to choose from, each to a free outlet where there is one, the one that fewest others
 * could take; then again with the order stirred, until nothing better can be. Fast, and no proof: what it
 * reaches can be reached.
 *
 * @param choices of each device, what suffices for it alone
 * @param most what nothing can be better than
 */
export function givenOut<C extends Choice>(
  choices: readonly (readonly C[])[],
  current: (t: Taker) => number,
  isNow: (c: C) => boolean,
  most: Counts,
): GivenOut<C> {
  const random = dice(11);
  const wanted = new Map<number, number>();
  for (const list of choices)
    for (const j of new Set(list.map((c) => c.j))) wanted.set(j, (wanted.get(j) ?? 0) + 1);
  let best: GivenOut<C> = { fed: 0, used: 0, moved: 0, chosen: [] };
  for (let n = 0; n < TRIES; n++) {
    // The first time as it is, then ever more by chance; what stays goes first in every other.
    const stirred = new Map(choices.map((list) => [list, 1 + (n / TRIES) * 2 * random()]));
    const stays = (list: readonly C[]) => (n % 2 === 0 && list.some(isNow) ? 0 : 1);
    const order = [...choices].sort(
      (a, b) =>
        stays(a) - stays(b) ||
        a.length * (stirred.get(a) ?? 1) - b.length * (stirred.get(b) ?? 1) ||
        hungriest(b, current) - hungriest(a, current),
    );
    const found = inOrder(order, current, isNow, (j) => wanted.get(j) ?? 0);
    if (isBetter(found, best)) best = found;
    if (!isBetter(most, best)) break;
  }
  return best;
}

const hungriest = (list: readonly Choice[], current: (t: Taker) => number): number =>
  list[0] ? current(list[0].t) : 0;

function inOrder<C extends Choice>(
  order: readonly (readonly C[])[],
  current: (t: Taker) => number,
  isNow: (c: C) => boolean,
  wanted: (j: number) => number,
): GivenOut<C> {
  const drawn = new Map<string, number>();
  const standsAt = new Map<number, number>();
  const returns = new Map<string, Taker[]>();
  const add = (key: string, mA: number) => drawn.set(key, (drawn.get(key) ?? 0) + mA);
  const returnOf = (p: Place) => (p.outlet.isolated ? placeKey(p) : p.supply.id);
  const goes = ({ t, p, j, v }: C): boolean => {
    const mA = current(t);
    return (
      (standsAt.get(j) ?? v) === v &&
      (drawn.get(placeKey(p)) ?? 0) + mA <= p.outlet.milliamps &&
      (drawn.get(`all of ${p.supply.id}`) ?? 0) + mA <= (p.totalMilliamps ?? Infinity) &&
      !(returns.get(returnOf(p)) ?? []).some((o) => quarrel(o.need, t.need))
    );
  };
  const dear = (c: C): number =>
    (standsAt.has(c.j) ? 1e6 : 0) +
    (isNow(c) ? -1e5 : 0) +
    1000 * wanted(c.j) +
    c.p.outlet.milliamps / 10;
  const chosen: C[] = [];
  for (const list of order) {
    let best: C | undefined;
    for (const c of list) if (goes(c) && (!best || dear(c) < dear(best))) best = c;
    if (!best) continue;
    chosen.push(best);
    standsAt.set(best.j, best.v);
    add(placeKey(best.p), current(best.t));
    add(`all of ${best.p.supply.id}`, current(best.t));
    const key = returnOf(best.p);
    returns.set(key, [...(returns.get(key) ?? []), best.t]);
  }
  const moved = chosen.filter((c) => !isNow(c)).length;
  return { fed: chosen.length, used: standsAt.size, moved, chosen };
}
