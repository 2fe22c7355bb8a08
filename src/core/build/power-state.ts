import { at as entryAt, sure } from '../outcome';
import { placeKey, type Place, type Taker } from './power';

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

/** Whether one way is better: first what is fed, then what is used, then what need not be moved. */
export const isBetter = (a: Counts, b: Counts): boolean =>
  (a.fed - b.fed || a.used - b.used || b.moved - a.moved) > 0;

/** What an outlet counts that has a device already, and less, one where the device hangs now. */
const APART = 1e6;
const STAYING = 1e5;
/** What a shared outlet counts where staying is worth more. */
export const TOGETHER = 5e4;

/** Sums of currents may be off by their rounding, in mA. */
const ROUNDING = 1e-6;

/** What one return carries, by what quarrels. */
interface Return {
  noisy: number;
  sensitive: number;
  plus: number;
  all: number;
}

/** An outlet as the search keeps it: what it and its supply give, and what hangs on it, in mA. */
interface Outlet {
  place: Place;
  supply: Supply;
  shares: Return;
  drawn: number;
  /** Devices on it, and the voltage at which they are fed. */
  devices: Set<number>;
  volts: number;
}

/** One way to feed a device, and whether it is so now. */
interface Way<C> {
  c: C;
  outlet: Outlet;
  isNow: boolean;
}

/** What the ways to feed a device cost others: looked at so often that it stands in rows of figures. */
interface Costs {
  /** Outlets by number, how many could take each, and what else speaks for or against it. */
  j: Int32Array;
  wanted: Float64Array;
  fixed: Float64Array;
}

interface Supply {
  most: number;
  drawn: number;
  /** The device that this supply is, where it has to be fed itself: it hands on what it gets, if anything. */
  hander?: number;
}

/**
 * Who hangs where, while outlets are given out: devices come and go one at a time, and only where voltage,
 * current, return and all that is handed on allow it.
 */
export class PowerState<C extends Choice> {
  private readonly at: (Way<C> | undefined)[];
  private readonly ways: readonly (readonly Way<C>[])[];
  private readonly costs: readonly Costs[];
  /** How many devices hang on each outlet. */
  private readonly crowd: Int32Array;
  private readonly couldStay: readonly boolean[];
  /** What each draws itself, in mA with headroom. */
  private readonly draws: readonly number[];
  private fed = 0;
  private used = 0;
  private stays = 0;
  private free = 0;

  /**
   * @param choices of each device, what suffices for it alone
   * @param current what a device draws itself, in mA with headroom
   * @param fedSupplies supplies that have to be fed themselves, by their ids
   */
  constructor(
    private readonly choices: readonly (readonly C[])[],
    current: (t: Taker) => number,
    isNow: (c: C) => boolean,
    private readonly fedSupplies: ReadonlySet<string>,
  ) {
    this.at = choices.map(() => undefined);
    this.draws = choices.map(([c]) => (c ? current(c.t) : 0));
    const outlets = this.outlets();
    const wanted = new Map<number, number>();
    for (const list of choices)
      for (const j of new Set(list.map((c) => c.j))) wanted.set(j, (wanted.get(j) ?? 0) + 1);
    this.ways = choices.map((list) =>
      list.map((c) => ({ c, outlet: sure(outlets.get(c.j)), isNow: isNow(c) })),
    );
    this.crowd = new Int32Array(1 + Math.max(0, ...outlets.keys()));
    this.costs = this.ways.map((list) => ({
      j: Int32Array.from(list, ({ c }) => c.j),
      wanted: Float64Array.from(list, ({ c }) => 1000 * (wanted.get(c.j) ?? 0)),
      fixed: Float64Array.from(list, (w) => w.c.p.outlet.milliamps / 10 - (w.isNow ? STAYING : 0)),
    }));
    this.couldStay = this.ways.map((list) => list.some((w) => w.isNow));
  }

  private outlets(): Map<number, Outlet> {
    const outlets = new Map<number, Outlet>();
    const supplies = new Map<string, Supply>();
    const returns = new Map<string, Return>();
    for (const { j, p } of this.choices.flat()) {
      if (outlets.has(j)) continue;
      const supply = supplies.get(p.supply.id) ?? this.supplyOf(p);
      supplies.set(p.supply.id, supply);
      const key = p.outlet.isolated ? placeKey(p) : p.supply.id;
      const shares = returns.get(key) ?? { noisy: 0, sensitive: 0, plus: 0, all: 0 };
      returns.set(key, shares);
      outlets.set(j, { place: p, supply, shares, drawn: 0, volts: 0, devices: new Set() });
    }
    return outlets;
  }

  private supplyOf(p: Place): Supply {
    const supply = { most: p.totalMilliamps ?? Infinity, drawn: 0 };
    if (!this.fedSupplies.has(p.supply.id)) return supply;
    // One that no outlet fits is nowhere among them: it is never fed.
    return { ...supply, hander: this.choices.findIndex((l) => l[0]?.t.device.id === p.supply.id) };
  }

  /** Begins with a plan; boxes that hand power on come before what hangs on them, whatever its order. */
  begin(plan: readonly C[]): void {
    let left = this.ways.flatMap((list, i) => {
      const way = list.find((w) => plan.includes(w.c));
      return way ? [{ i, way }] : [];
    });
    for (let size = -1; left.length && left.length !== size;) {
      size = left.length;
      left = left.filter(({ i, way }) => {
        const goes = this.goes(entryAt(this.draws, i), way);
        if (goes) this.put(i, way, 1);
        return !goes;
      });
    }
  }

  /** What all that are fed draw, in mA: of two plans that feed as many, the one that draws less leaves more room. */
  drawn(): number {
    return this.draws.reduce((sum, mA, i) => sum + (this.at[i] ? mA : 0), 0);
  }

  /**
   * How much what is left on outlets lies on a few of them, in mA²: of two plans that feed the same, the
   * one with more has a place for something big.
   */
  apart(): number {
    return this.free;
  }

  isFed = (i: number): boolean => this.at[i] !== undefined;

  counts(): Counts {
    return { fed: this.fed, used: this.used, moved: this.fed - this.stays };
  }

  chosen(): C[] {
    return this.at.flatMap((w) => (w ? [w.c] : []));
  }

  /** Whether the plan is not yet as it could be with a device: it is not fed, shares an outlet, or is moved. */
  asks(i: number): boolean {
    const w = this.at[i];
    if (!w) return entryAt(this.ways, i).length > 0;
    return w.outlet.devices.size > 1 || (!w.isNow && entryAt(this.couldStay, i));
  }

  /**
   * Another device on one of the outlets that a device could take, by chance, but every other time on the one
   * where it is plugged now; nothing where nobody is there.
   */
  neighbour(i: number, below: (n: number) => number): number | undefined {
    const ways = entryAt(this.ways, i);
    const now = below(2) ? ways.find((w) => w.isNow) : undefined;
    const { devices } = (now ?? anyOf(ways, below)).outlet;
    const other = devices.size ? anyOf([...devices], below) : undefined;
    return other === i ? undefined : other;
  }

  /** Does something with the outlet itself, and with those that its supply hangs on where it hands power on. */
  private alongChain(outlet: Outlet, does: (o: Outlet) => boolean): boolean {
    for (let o: Outlet | undefined = outlet; o; o = this.above(o)) if (!does(o)) return false;
    return true;
  }

  private above({ supply }: Outlet): Outlet | undefined {
    return supply.hander === undefined ? undefined : this.at[supply.hander]?.outlet;
  }

  private goes(mA: number, { c, outlet }: Way<C>): boolean {
    if (outlet.devices.size && outlet.volts !== c.v) return false;
    const { need } = c.t;
    const { noisy, sensitive, plus, all } = outlet.shares;
    if ((need.noisy && sensitive) || (need.sensitive && noisy)) return false;
    if (need.positiveGround ? all > plus : plus) return false;
    return this.alongChain(
      outlet,
      ({ place, drawn, supply }) =>
        drawn + mA <= place.outlet.milliamps + ROUNDING &&
        supply.drawn + mA <= supply.most + ROUNDING &&
        // A supply that itself is not fed hands nothing on.
        (supply.hander === undefined || this.at[supply.hander] !== undefined),
    );
  }

  /** Puts a device where it costs others least, where it can be fed at all; chance decides what is nearly alike. */
  place(i: number, random: () => number, shares = APART): void {
    let best: Way<C> | undefined;
    let least = Infinity;
    const ways = entryAt(this.ways, i);
    const { j, wanted, fixed } = entryAt(this.costs, i);
    const { crowd } = this;
    for (let k = 0; k < ways.length; k++) {
      const shared = crowd[j[k]!]! > 0 ? shares : 0;
      const dear = shared + fixed[k]! + wanted[k]! * (0.5 + random());
      if (dear >= least || !this.goes(entryAt(this.draws, i), entryAt(ways, k))) continue;
      best = ways[k];
      least = dear;
    }
    if (best) this.put(i, best, 1);
  }

  /** Puts a device where it leaves least room, where it can be fed at all; chance decides what is nearly alike. */
  fit(i: number, random: () => number): void {
    const mA = entryAt(this.draws, i);
    let best: Way<C> | undefined;
    let least = Infinity;
    for (const way of entryAt(this.ways, i)) {
      const { place, drawn } = way.outlet;
      const left = (place.outlet.milliamps - drawn - mA) * (0.5 + random());
      if (left >= least || !this.goes(mA, way)) continue;
      best = way;
      least = left;
    }
    if (best) this.put(i, best, 1);
  }

  /** Takes devices off, and all that they hand power on to: where each was. */
  takeOff(devices: Iterable<number>): Map<number, Way<C> | undefined> {
    const off = new Map<number, Way<C> | undefined>();
    const take = (i: number): void => {
      if (off.has(i)) return;
      const way = this.at[i];
      off.set(i, way);
      if (way && this.fedSupplies.has(way.c.t.device.id))
        this.at.forEach((w, k) => {
          if (w?.outlet.supply.hander === i) take(k);
        });
      if (way) this.put(i, way, -1);
    };
    for (const i of devices) take(i);
    return off;
  }

  /** As it was before they were taken off. */
  putBack(off: ReadonlyMap<number, Way<C> | undefined>): void {
    this.takeOff(off.keys());
    // Boxes before what hangs on them: what they hand on counts where they hang.
    const back = (i: number): void => {
      const way = off.get(i);
      if (!way || this.at[i]) return;
      const { hander } = way.outlet.supply;
      if (hander !== undefined) back(hander);
      this.put(i, way, 1);
    };
    for (const i of off.keys()) back(i);
  }

  private put(i: number, way: Way<C>, by: 1 | -1): void {
    const { c, outlet } = way;
    const { need } = c.t;
    if (by > 0) outlet.devices.add(i);
    else outlet.devices.delete(i);
    outlet.volts = c.v;
    this.crowd[c.j] = outlet.devices.size;
    this.at[i] = by > 0 ? way : undefined;
    if (outlet.devices.size === (by > 0 ? 1 : 0)) this.used += by;
    this.fed += by;
    if (way.isNow) this.stays += by;
    if (need.noisy) outlet.shares.noisy += by;
    if (need.sensitive) outlet.shares.sensitive += by;
    if (need.positiveGround) outlet.shares.plus += by;
    outlet.shares.all += by;
    const mA = entryAt(this.draws, i) * by;
    this.alongChain(outlet, (o) => {
      const room = o.place.outlet.milliamps - o.drawn;
      this.free += (room - mA) ** 2 - room ** 2;
      o.drawn += mA;
      o.supply.drawn += mA;
      return true;
    });
  }
}

const anyOf = <T>(list: readonly T[], below: (n: number) => number): T =>
  entryAt(list, below(list.length));
