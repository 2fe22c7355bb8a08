import { at as entryAt, sure } from '../outcome';
import type { PowerNeed } from '../kinds';
import type { Mip, Term } from '../optimum/mip';
import type { Alike } from './alike';
import { handsOn, type Place, placeKey, type Taker, voltagesOf } from './power';
import { counted, isNow, ones, type Option } from './power-options';

/** Sides that must not share a return: digital and high gain, chassis on plus and all others. */
const QUARRELS: readonly [
  name: string,
  one: (need: PowerNeed) => boolean,
  other: (need: PowerNeed) => boolean,
][] = [
  ['noise', (n) => n.noisy === true, (n) => n.sensitive === true],
  ['plus', (n) => n.positiveGround === true, (n) => n.positiveGround !== true],
];

/** Up to how many devices on an outlet are counted besides their current. */
const MOST_COUNTED = 2;

/** How many of those that are alike are left without power. */
export const unfed = (alike: number): string => `u_${alike}`;

/** What power is given out from. */
export interface Sharing {
  takers: readonly Taker[];
  places: readonly Place[];
  /** What suffices for a device alone. */
  options: readonly Option[];
  alike: Alike;
  /** What a device draws itself, in mA with headroom. */
  current: (t: Taker) => number;
}

/** The rules that every plan keeps, as rows for the solver. */
export class PowerRules {
  readonly rows: Mip['rules'] = [];
  /** At which voltage outlets stand, and of returns, which side of a quarrel each is for. */
  readonly binaries: string[] = [];
  /** What boxes that hand power on draw for others, by the outlet that they hang on, in mA. */
  readonly reals: string[] = [];

  constructor(private readonly given: Sharing) {
    const { takers, places, alike } = given;
    alike.sizes.forEach((size, c) => this.feedsOnceOrNot(c, size));
    takers.forEach((_, i) => this.handsOn(i));
    places.forEach((_, j) => this.outletSuffices(j));
    for (const id of new Set(places.map((p) => p.supply.id))) this.supplySuffices(id);
    this.keepApart();
    this.inOrder();
  }

  add(terms: Term[], is: Mip['rules'][number]['is'], value: number): void {
    this.rows.push({ name: `r${this.rows.length}`, terms, is, value });
  }

  private draws(options: readonly Option[]): Term[] {
    return counted(options).map((o): Term => [this.given.current(o.t), o.name]);
  }

  /** Each of those that are alike hangs on an outlet or goes unfed, and none stays at two voltages. */
  private feedsOnceOrNot(c: number, size: number): void {
    const here = this.given.options.filter((o) => this.given.alike.of(o.i) === c);
    this.add([...ones(here), [1, unfed(c)]], '=', size);
    const stays = here.filter(isNow);
    for (const i of new Set(stays.map((o) => o.i))) {
      const one = stays.filter((o) => o.i === i);
      if (one.length > 1) this.add(ones(one), '<=', 1);
    }
  }

  /** The load that a box hands on, where it hangs on an outlet: a variable for each that it could hang on. */
  private handedOn(i: number, j: number): string {
    return `p_${i}_${j}`;
  }

  /** What hangs on an outlet besides the devices themselves: what those of them that hand power on pass through. */
  private passedThrough(options: readonly Option[]): Term[] {
    const pairs = new Map(options.map((o) => [this.handedOn(o.i, o.j), o]));
    return [...pairs].filter(([, o]) => this.isHander(o.t)).map(([name]): Term => [1, name]);
  }

  private isHander = (t: Taker): boolean => handsOn(t, this.given.places);

  /**
   * A box that hands power on draws, on whichever outlet it hangs, what hangs on its own outlets besides.
   * That also keeps boxes from feeding one another in a circle: each would draw more than the other.
   */
  private handsOn(i: number): void {
    const t = entryAt(this.given.takers, i);
    if (!this.isHander(t)) return;
    const below = this.given.options.filter((o) => o.p.supply.id === t.device.id);
    const most = this.given.places
      .filter((p) => p.supply.id === t.device.id)
      .reduce((sum, p) => sum + p.outlet.milliamps, 0);
    // Without power it hands none on.
    if (below.length) this.onlyUnless(below, [[1, unfed(this.given.alike.of(i))]], most);
    for (const j of new Set(this.given.options.filter((o) => o.i === i).map((o) => o.j))) {
      const here = this.given.options.filter((o) => o.i === i && o.j === j);
      const name = this.handedOn(i, j);
      this.reals.push(name);
      this.add(
        [
          ...this.draws(below),
          ...this.passedThrough(below),
          ...ones(here).map(([, v]): Term => [most, v]),
          [-1, name],
        ],
        '<=',
        most,
      );
    }
  }

  /** Its current, at one voltage for all that hang on it, and whether it is used. */
  private outletSuffices(j: number): void {
    const here = this.given.options.filter((o) => o.j === j);
    const { milliamps } = entryAt(this.given.places, j).outlet;
    this.add([...this.draws(here), ...this.passedThrough(here)], '<=', milliamps);
    this.standsAtOne(j, here, milliamps);
    this.add([...ones(here), [-1, `w_${j}`]], '>=', 0);
    this.countsWholes(here, milliamps);
  }

  /** An outlet with a choice of voltages stands at one of them. */
  private standsAtOne(j: number, here: readonly Option[], milliamps: number): void {
    const volts = [...new Set(here.map((o) => o.v))];
    if (volts.length < 2) return;
    const stands = volts.map((v): Term => [1, `y_${j}_${v}`]);
    this.binaries.push(...stands.map(([, name]) => name));
    volts.forEach((v, k) => {
      const at = here.filter((o) => o.v === v);
      this.onlyWhere(at, [entryAt(stands, k)], milliamps);
    });
    this.add(stands, '<=', 1);
  }

  /**
   * What follows from the current where no device is split: of those that take more than half of it one fits,
   * of those that take more than a third two, and so on, one that takes twice as much counting as two. It says
   * nothing new of whole devices, and much of the parts that the solver reckons with on its way.
   */
  private countsWholes(here: readonly Option[], milliamps: number): void {
    for (let most = 1; most <= MOST_COUNTED; most++) {
      const terms = counted(here).flatMap((o): Term[] => {
        const counts = Math.ceil((this.given.current(o.t) * (most + 1)) / milliamps - 1e-9) - 1;
        return counts > 0 ? [[Math.min(counts, most), o.name]] : [];
      });
      if (terms.length > 1) this.add(terms, '<=', most);
    }
  }

  /**
   * Nothing is drawn unless a sum is one: one row for all is quicker to solve than one for each. Who stays
   * where it hangs has one of its own: what is reckoned in parts then knows which of them cannot stay together.
   */
  private onlyWhere(options: readonly Option[], isOne: readonly Term[], most: number): void {
    const { draws, spare } = this.drawsOfAtLeastOne(options);
    this.add([...draws, ...isOne.map(([f, v]): Term => [-f * (most + spare), v])], '<=', 0);
    for (const stays of ones(options.filter(isNow)))
      this.add([stays, ...isOne.map(([f, v]): Term => [-f, v])], '<=', 0);
  }

  /** Nothing is drawn where a sum is one. */
  private onlyUnless(options: readonly Option[], isOne: readonly Term[], most: number): void {
    const { draws, spare } = this.drawsOfAtLeastOne(options);
    const all = most + spare;
    this.add([...draws, ...isOne.map(([f, v]): Term => [f * all, v])], '<=', all);
    for (const stays of ones(options.filter(isNow))) this.add([stays, ...isOne], '<=', 1);
  }

  /** Draws in mA, none under 1, so that what takes next to nothing is ruled too; and what that adds to all. */
  private drawsOfAtLeastOne(options: readonly Option[]): { draws: Term[]; spare: number } {
    const draws = counted(options).map((o): Term => [Math.max(1, this.given.current(o.t)), o.name]);
    return {
      draws,
      spare: options.reduce((n, o) => n + Math.max(0, 1 - this.given.current(o.t)), 0),
    };
  }

  private supplySuffices(id: string): void {
    const total = sure(this.given.places.find((p) => p.supply.id === id)).totalMilliamps;
    if (total === undefined) return;
    const here = this.given.options.filter((o) => o.p.supply.id === id);
    this.add([...this.draws(here), ...this.passedThrough(here)], '<=', total);
  }

  /**
   * What quarrels shares no return: outlets that are isolated stand alone, the others of a supply are
   * one. Each return is either for one side of a quarrel or for the other.
   */
  private keepApart(): void {
    const returns = new Map<string, number[]>();
    this.given.places.forEach((p, j) => {
      const key = p.outlet.isolated ? placeKey(p) : p.supply.id;
      returns.set(key, [...(returns.get(key) ?? []), j]);
    });
    [...returns.values()].forEach((group, g) => {
      const most = group.reduce(
        (sum, j) => sum + entryAt(this.given.places, j).outlet.milliamps,
        0,
      );
      for (const [name, isOne, isOther] of QUARRELS) {
        const here = this.given.options.filter((o) => group.includes(o.j));
        const one = here.filter((o) => isOne(o.t.need) && !isOther(o.t.need));
        const other = here.filter((o) => isOther(o.t.need) && !isOne(o.t.need));
        const both = here.filter((o) => isOne(o.t.need) && isOther(o.t.need));
        if (one.length && other.length) {
          const side = `q_${name}_${g}`;
          this.binaries.push(side);
          this.onlyWhere(one, [[1, side]], most);
          this.onlyUnless(other, [[1, side]], most);
        }
        if (!both.length) continue;
        // What is both quarrels with either, and with its like.
        if (both.length > 1) this.add(ones(both), '<=', 1);
        for (const rest of [one, other]) if (rest.length) this.onlyUnless(rest, ones(both), most);
      }
    });
  }

  /** Whether a supply takes power itself: what hangs on it hangs on that. */
  private isFedItself = ({ supply }: Place): boolean =>
    this.given.takers.some((t) => t.device.id === supply.id);

  /** Outlets that are alike, and where nothing hangs now, might change places: the fuller one comes first. */
  private inOrder(): void {
    const alike = new Map<string, number[]>();
    this.given.places.forEach((p, j) => {
      if (this.given.options.some((o) => o.j === j && isNow(o))) return;
      const { supply, outlet } = p;
      const { milliamps, ac, centre, isolated } = outlet;
      // Isolated outlets whose supply has enough for all of them are alike whatever supply they are of.
      const isOwn = isolated && p.totalMilliamps === undefined && !this.isFedItself(p);
      const key = JSON.stringify([
        isOwn ? '' : supply.id,
        milliamps,
        ac,
        centre,
        isolated,
        voltagesOf(outlet),
      ]);
      alike.set(key, [...(alike.get(key) ?? []), j]);
    });
    for (const group of alike.values())
      group.slice(1).forEach((j, k) => {
        const less = this.draws(this.given.options.filter((o) => o.j === j));
        const more = this.draws(this.given.options.filter((o) => o.j === group[k]));
        this.add([...more, ...less.map(([f, v]): Term => [-f, v])], '>=', 0);
      });
  }
}
