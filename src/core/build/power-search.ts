import { at as entryAt } from '../outcome';
import { dice } from './anneal';
import type { Taker } from './power';
import { type Choice, type Counts, isBetter, PowerState, TOGETHER } from './power-state';

/** What was given out, and what it comes to. */
export interface GivenOut<C> extends Counts {
  chosen: readonly C[];
}

/** How often a few devices are taken off and given out again, for each there is; later rounds seldom find anything. */
const ROUNDS_EACH = 60;

/** How many neighbours are taken off with a device. */
const FEWEST = 2;
const MOST = 10;

type Before = Counts & { drawn: number; apart: number };

/** What outlets are given out by. */
interface Asked<C> {
  /** A plan to go on from. */
  from: readonly C[];
  /** What nothing can be better than. */
  most: Counts;
  isNow: (c: C) => boolean;
  /** What a device draws itself, in mA with headroom. */
  current: (t: Taker) => number;
  /** Supplies that have to be fed themselves, by their ids. */
  fedSupplies: ReadonlySet<string>;
}

/**
 * Gives out outlets: first to one device after the other, those first that have the fewest to choose from,
 * each to the outlet that costs others least; then one that still asks for something and a few of those on
 * outlets that it could take are taken off and given out again, and what came of it is kept where it is not
 * worse. Fast, and no proof: what it reaches can be reached. Always the same for the same rig.
 *
 * @param choices of each device, what suffices for it alone
 */
export function givenOut<C extends Choice>(
  choices: readonly (readonly C[])[],
  { from, most, isNow, current, fedSupplies }: Asked<C>,
): GivenOut<C> {
  const random = dice(11);
  const below = (n: number): number => Math.floor(random() * n);
  const state = new PowerState(choices, current, isNow, fedSupplies);
  const all = [...choices.keys()];
  const rounds = ROUNDS_EACH * all.length;
  const rank = choices.map(([c], i) => ({
    hands: c !== undefined && fedSupplies.has(c.t.device.id) ? 0 : 1,
    ways: entryAt(choices, i).length,
    draws: c ? current(c.t) : 0,
  }));
  const order = (a: number, b: number): number => {
    const [one, two] = [entryAt(rank, a), entryAt(rank, b)];
    return one.hands - two.hands || one.ways - two.ways || two.draws - one.draws;
  };
  state.begin(from);
  for (const i of [...all].sort(order)) if (!state.isFed(i)) state.place(i, random);
  const found = (): GivenOut<C> => ({ ...state.counts(), chosen: state.chosen() });
  const first = found();
  /** Gives a few outlets out again; what came of it stays where it is not worse. */
  const stir = (asks: (i: number) => boolean, isWorse: (before: Before) => boolean): boolean => {
    const asking = all.filter(asks);
    if (!asking.length) return false;
    const one = entryAt(asking, below(asking.length));
    const off = new Set([one]);
    // Those around it, or one who makes room for it, another who makes room for that one, and so on.
    const isChain = below(2) === 1;
    let by = one;
    for (let k = FEWEST + below(MOST - FEWEST + 1); k > 0; k--) {
      const other = state.neighbour(by, below);
      if (other === undefined) continue;
      off.add(other);
      if (isChain) by = other;
    }
    const before = { ...state.counts(), drawn: state.drawn(), apart: state.apart() };
    const undo = state.takeOff(off);
    const again = [...undo.keys()];
    if (below(2)) again.sort(order);
    const shares = below(3) ? undefined : TOGETHER;
    for (const i of again) {
      if (shares) state.fit(i, random);
      else state.place(i, random, shares);
    }
    if (isWorse(before)) state.putBack(undo);
    return true;
  };
  // First to feed as many as can be, those that draw least; then all that is asked for.
  const isHungrier = (b: Before) =>
    (b.fed - state.counts().fed || state.drawn() - b.drawn || b.apart - state.apart()) > 0;
  const hungry = (i: number) => !state.isFed(i) && entryAt(choices, i).length > 0;
  for (let n = 0; n < rounds / 2 && state.counts().fed < most.fed; n++) stir(hungry, isHungrier);
  const isWorse = (before: Before) => isBetter(before, state.counts());
  for (let n = 0; n < rounds && isBetter(most, state.counts()); n++)
    if (!stir((i) => state.asks(i), isWorse)) break;
  // Room made for one more may have moved others, and nobody came of it.
  return isBetter(first, state.counts()) ? first : found();
}
