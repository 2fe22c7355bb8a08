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

/** What giving out came to: how many devices are fed, and how many outlets are used. */
interface GivenOut {
  fed: number;
  used: number;
}

/** Orders that are tried. */
const TRIES = 60;

/**
 * Gives out outlets one device after the other: those first that have the fewest to choose from, each
 * to a free outlet where there is one, the one that fewest others could take; then again with the order
 * stirred, until all is fed and used that can be. Fast, and no proof: what it reaches can be reached.
 *
 * @param choices of each device, what suffices for it alone
 */
export function givenOut(
  choices: readonly (readonly Choice[])[],
  current: (t: Taker) => number,
  most: GivenOut,
): GivenOut {
  const random = dice(11);
  const wanted = new Map<number, number>();
  for (const list of choices)
    for (const j of new Set(list.map((c) => c.j))) wanted.set(j, (wanted.get(j) ?? 0) + 1);
  let best: GivenOut = { fed: 0, used: 0 };
  for (let n = 0; n < TRIES; n++) {
    // The first time as it is, then ever more by chance.
    const stirred = new Map(choices.map((list) => [list, 1 + (n / TRIES) * 2 * random()]));
    const order = [...choices].sort(
      (a, b) =>
        a.length * (stirred.get(a) ?? 1) - b.length * (stirred.get(b) ?? 1) ||
        hungriest(b, current) - hungriest(a, current),
    );
    const found = inOrder(order, current, (j) => wanted.get(j) ?? 0);
    if (found.fed > best.fed || (found.fed === best.fed && found.used > best.used)) best = found;
    if (best.fed >= most.fed && best.used >= most.used) break;
  }
  return best;
}

const hungriest = (list: readonly Choice[], current: (t: Taker) => number): number =>
  list[0] ? current(list[0].t) : 0;

function inOrder(
  order: readonly (readonly Choice[])[],
  current: (t: Taker) => number,
  wanted: (j: number) => number,
): GivenOut {
  const drawn = new Map<string, number>();
  const standsAt = new Map<number, number>();
  const returns = new Map<string, Taker[]>();
  const add = (key: string, mA: number) => drawn.set(key, (drawn.get(key) ?? 0) + mA);
  const returnOf = (p: Place) => (p.outlet.isolated ? placeKey(p) : p.supply.id);
  const goes = ({ t, p, j, v }: Choice): boolean => {
    const mA = current(t);
    return (
      (standsAt.get(j) ?? v) === v &&
      (drawn.get(placeKey(p)) ?? 0) + mA <= p.outlet.milliamps &&
      (drawn.get(`all of ${p.supply.id}`) ?? 0) + mA <= (p.totalMilliamps ?? Infinity) &&
      !(returns.get(returnOf(p)) ?? []).some((o) => quarrel(o.need, t.need))
    );
  };
  const dear = ({ j, p }: Choice): number =>
    (standsAt.has(j) ? 1e6 : 0) + 1000 * wanted(j) + p.outlet.milliamps / 10;
  let fed = 0;
  for (const list of order) {
    let best: Choice | undefined;
    for (const c of list) if (goes(c) && (!best || dear(c) < dear(best))) best = c;
    if (!best) continue;
    fed++;
    standsAt.set(best.j, best.v);
    add(placeKey(best.p), current(best.t));
    add(`all of ${best.p.supply.id}`, current(best.t));
    const key = returnOf(best.p);
    returns.set(key, [...(returns.get(key) ?? []), best.t]);
  }
  return { fed, used: standsAt.size };
}
