import { at as entryAt } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Place, Taker } from './power';
import { isNow, type Option } from './power-options';
import type { PowerPlan, Starved } from './power-plan';

/** A plan whose starved devices have no cure yet. */
export type Uncured = Omit<PowerPlan, 'starved'> & { starved: Hungry[] };

type Hungry = Omit<Starved, 'cure' | 'edits'>;

/** What a choice of outlets is made from. */
interface Given {
  takers: readonly Taker[];
  places: readonly Place[];
  /** What fits by voltage, polarity and pin, and of that what suffices for the device alone. */
  fitting: readonly Option[];
  options: readonly Option[];
  /** What a device draws itself, in mA with headroom. */
  current: (t: Taker) => number;
}

/** A choice of outlets, read: what gets nothing and why, and the edits that make it so. */
export class PowerChoice {
  private readonly chosen: readonly Option[];

  constructor(
    private readonly given: Given,
    solved: readonly Option[],
  ) {
    this.chosen = this.narrowed(solved);
  }

  /** What hangs on an outlet by a device: its own current, and what it hands on to others. */
  private drawn(options: readonly Option[], all: readonly Option[]): number {
    return options.reduce((sum, o) => {
      const below = all.filter((x) => x.p.supply.id === o.t.device.id);
      return sum + this.given.current(o.t) + this.drawn(below, all);
    }, 0);
  }

  plan(): Omit<Uncured, 'isProven' | 'atBest'> {
    const { chosen } = this;
    const sharing = this.given.places.map((_, j) => chosen.filter((o) => o.j === j).length - 1);
    const starved = this.starved();
    return {
      fed: chosen.map((o) => ({
        device: o.t.device.id,
        supply: o.p.supply.id,
        outlet: o.p.outlet.id,
        volts: o.volts,
      })),
      starved,
      shared: sharing.reduce((n, more) => n + Math.max(0, more), 0),
      moved: chosen.filter((o) => !isNow(o)).length,
      edits: [...chosen.flatMap(movesTo), ...this.unplugs(starved)],
    };
  }

  /** All of an isolated outlet moved to a narrower free one of its supply, where none of it is plugged there now. */
  private narrowed(chosen: readonly Option[]): Option[] {
    let all = [...chosen];
    const { places, options } = this.given;
    const wideFirst = [...places.keys()].sort((a, b) => this.milliampsOf(b) - this.milliampsOf(a));
    for (const j of wideFirst) {
      const here = all.filter((o) => o.j === j);
      const place = entryAt(places, j);
      if (!here.length || here.some(isNow) || !place.outlet.isolated) continue;
      const drawn = this.drawn(here, all);
      const free = [...places.keys()]
        .filter((k) => !all.some((o) => o.j === k) && entryAt(places, k).outlet.isolated)
        .filter((k) => entryAt(places, k).supply.id === place.supply.id)
        .filter((k) => this.milliampsOf(k) < this.milliampsOf(j) && this.milliampsOf(k) >= drawn)
        .sort((a, b) => this.milliampsOf(a) - this.milliampsOf(b));
      for (const k of free) {
        const there = here.map((o) =>
          options.find((x) => x.i === o.i && x.j === k && x.volts === o.volts),
        );
        if (!there.every((o) => o !== undefined)) continue;
        all = [...all.filter((o) => o.j !== j), ...there];
        break;
      }
    }
    return all;
  }

  private milliampsOf(j: number): number {
    return entryAt(this.given.places, j).outlet.milliamps;
  }

  private starved(): Hungry[] {
    const { given, chosen } = this;
    const drawn = (options: readonly Option[]) => this.drawn(options, chosen);
    const free = given.places.map(
      (p, j) => p.outlet.milliamps - drawn(chosen.filter((o) => o.j === j)),
    );
    const left = (p: Place) =>
      (p.totalMilliamps ?? Infinity) - drawn(chosen.filter((o) => o.p.supply.id === p.supply.id));
    return given.takers.flatMap((t, i) => {
      if (chosen.some((o) => o.i === i)) return [];
      const options = given.fitting.filter((o) => o.i === i);
      return [starvedBy(t, options, free, left, given.current(t))];
    });
  }

  private unplugs(starved: readonly { device: string }[]): Edit[] {
    return starved
      .filter((s) => this.given.takers.some((t) => t.device.id === s.device && t.device.supply))
      .map((s) => ({ edit: 'unplugPower', device: s.device }));
  }
}

/** The edit that feeds a device so, where it is not fed so already. */
function movesTo(o: Option): Edit[] {
  const now = o.t.device.supply;
  if (isNow(o) && (now?.volts ?? o.p.outlet.volts) === o.volts) return [];
  const supply = { ...now, device: o.p.supply.id, outlet: o.p.outlet.id, volts: o.volts };
  return [{ edit: 'setDevice', device: o.t.device.id, supply }];
}

/**
 * Why a device gets nothing: no outlet fits, none has the current left, or what has shares its
 * return with what it must not.
 */
function starvedBy(
  t: Taker,
  options: readonly { j: number; p: Place }[],
  free: readonly number[],
  left: (p: Place) => number,
  need: number,
): Hungry {
  const { device, need: n } = t;
  const kind =
    `${n.volts}${n.maxVolts ? ` to ${n.maxVolts}` : ''} ` +
    `V ${n.ac ? 'AC' : `DC, centre ${n.centre ?? 'negative'}`}`;
  if (!options.length)
    return {
      device: device.id,
      shortMilliamps: null,
      why: device.supply?.pinned
        ? 'it is pinned to an outlet that does not fit'
        : `no outlet gives ${kind}`,
    };
  const room = Math.max(...options.map((o) => Math.min(entryAt(free, o.j), left(o.p))));
  if (room >= need)
    return {
      device: device.id,
      shortMilliamps: 0,
      why: 'the outlets that have current for it share their return with what it must stay apart from',
    };
  const limited = options.some((o) => entryAt(free, o.j) >= need && left(o.p) < need);
  return {
    device: device.id,
    shortMilliamps: Math.ceil(need - Math.max(0, room)),
    why:
      `it needs ${Math.ceil(need)} mA with headroom, ` +
      ('and ' +
        (room > 0
          ? `the most that is left on one outlet is ${Math.floor(room)} mA`
          : 'no outlet that fits has any left') +
        (limited ? ' (the supply as a whole is at its limit)' : '')),
  };
}
