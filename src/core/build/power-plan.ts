import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Rig } from '../rig/schema';
import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';
import {
  HEADROOM,
  misfit,
  type Place,
  placeKey,
  placesOf,
  quarrel,
  type Taker,
  takersOf,
  voltagesOf,
} from './power';

/** One device on one outlet, at a voltage. */
export interface Fed {
  device: string;
  supply: string;
  outlet: string;
  volts: number;
}

/** A device that no plan can feed beside the others, why, and what would. */
export interface Starved {
  device: string;
  why: string;
  shortMilliamps: number | null;
  cure: string;
}

/**
 * The best assignment of devices to outlets: as few unfed as can be, then as few sharing an outlet,
 * then as few plugs moved.
 */
export interface PowerPlan {
  fed: Fed[];
  starved: Starved[];
  shared: number;
  moved: number;
  edits: Edit[];
}

/**
 * Prices: a device left without power outweighs everything, a shared outlet outweighs any number of
 * moved plugs.
 */
const PRICE = { starved: 10_000, shared: 100, moved: 1, wide: 0.0001 };

/**
 * Assigns devices to outlets exactly, as a mixed-integer problem. Voltage (or range), AC or DC and
 * polarity must fit; an outlet's and a supply's current must suffice with the headroom; digital
 * stays apart from high gain and positive ground from all others, on an outlet, and on all outlets
 * of a supply that share their return; pinned devices stay where they are.
 */
export function planPower(rig: Rig, solver: MipSolver, headroom = HEADROOM): Outcome<PowerPlan> {
  const takers = takersOf(rig);
  const places = placesOf(rig);
  if (!takers.length) return refused('Nothing in this rig takes power from a supply.');
  if (!places.length)
    return refused('There is no supply in this rig. Add one, then the outlets can be given out.');
  const program = new PowerProgram(takers, places, headroom);
  const answer = solveMip(program.mip(), solver);
  if (!answer.solved) return refused('The solver found no plan. Take out a pin, and try again.');
  return done(program.plan(answer.values));
}

/** One device on one outlet at one of its voltages: `i`, `j` and `v` number the three. */
interface Option {
  t: Taker;
  i: number;
  p: Place;
  j: number;
  volts: number;
  v: number;
  name: string;
}

/**
 * The question to the solver: `x` is one for each option that is chosen, `u` for each device left
 * without power, `s` how many too many share an outlet, `y` which voltage an outlet stands at.
 */
class PowerProgram {
  private readonly options: readonly Option[];
  private readonly rules: Mip['rules'] = [];

  constructor(
    private readonly takers: readonly Taker[],
    private readonly places: readonly Place[],
    private readonly headroom: number,
  ) {
    this.options = takers.flatMap((t, i) => places.flatMap((p, j) => optionsOf(t, i, p, j)));
  }

  mip(): Mip {
    this.takers.forEach((_, i) => this.feedsOnceOrNot(i));
    this.places.forEach((_, j) => this.outletSuffices(j));
    for (const id of new Set(this.places.map((p) => p.supply.id))) this.supplySuffices(id);
    this.keepApart();
    const voltages = this.rules.flatMap((r) =>
      r.terms.map(([, v]) => v).filter((v) => v.startsWith('y_')),
    );
    return {
      minimise: [
        ...this.takers.map((_, i): Term => [PRICE.starved, `u_${i}`]),
        ...this.places.map((_, j): Term => [PRICE.shared, `s_${j}`]),
        // The narrowest outlet that suffices, so that wide ones stay free.
        ...this.options.map((o): Term => [
          (isNow(o) ? 0 : PRICE.moved) + PRICE.wide * o.p.outlet.milliamps,
          o.name,
        ]),
      ],
      rules: this.rules,
      binaries: [
        ...this.options.map((o) => o.name),
        ...this.takers.map((_, i) => `u_${i}`),
        ...new Set(voltages),
      ],
      reals: this.places.map((_, j) => `s_${j}`),
    };
  }

  private rule(terms: Term[], is: Mip['rules'][number]['is'], value: number): void {
    this.rules.push({ name: `r${this.rules.length}`, terms, is, value });
  }

  private current(t: Taker): number {
    return t.need.milliamps * (1 + this.headroom);
  }

  private draws(options: readonly Option[]): Term[] {
    return options.map((o): Term => [this.current(o.t), o.name]);
  }

  private feedsOnceOrNot(i: number): void {
    this.rule([...ones(this.options.filter((o) => o.i === i)), [1, `u_${i}`]], '=', 1);
  }

  /** Its current, one voltage for all that hang on it, and what more than one of them costs. */
  private outletSuffices(j: number): void {
    const here = this.options.filter((o) => o.j === j);
    this.rule(this.draws(here), '<=', entryAt(this.places, j).outlet.milliamps);
    const volts = [...new Set(here.map((o) => o.v))];
    if (volts.length > 1) {
      const standsAt = volts.map((v): Term => [1, `y_${j}_${v}`]);
      this.rule(standsAt, '<=', 1);
      for (const o of here) {
        const onlyThen: Term[] = [
          [1, o.name],
          [-1, `y_${j}_${o.v}`],
        ];
        this.rule(onlyThen, '<=', 0);
      }
    }
    this.rule([...ones(here), [-1, `s_${j}`]], '<=', 1);
  }

  private supplySuffices(id: string): void {
    const total = sure(this.places.find((p) => p.supply.id === id)).totalMilliamps;
    if (total === undefined) return;
    this.rule(this.draws(this.options.filter((o) => o.p.supply.id === id)), '<=', total);
  }

  /** What quarrels shares no return: outlets that are isolated stand alone, the others of a supply are one. */
  private keepApart(): void {
    const returns = new Map<string, number[]>();
    this.places.forEach((p, j) => {
      const key = p.outlet.isolated ? placeKey(p) : p.supply.id;
      returns.set(key, [...(returns.get(key) ?? []), j]);
    });
    this.takers.forEach((one, a) =>
      this.takers.forEach((other, b) => {
        if (b <= a || !quarrel(one.need, other.need)) return;
        for (const group of returns.values()) {
          const both = this.options.filter((o) => (o.i === a || o.i === b) && group.includes(o.j));
          this.rule(ones(both), '<=', 1);
        }
      }),
    );
  }

  /** What the solver chose, what gets nothing and why, and the edits that make it so. */
  plan(values: Readonly<Record<string, number>>): PowerPlan {
    const chosen = this.options.filter((o) => (values[o.name] ?? 0) > 0.5);
    const sharing = this.places.map((_, j) => chosen.filter((o) => o.j === j).length - 1);
    const starved = this.starved(chosen);
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

  private starved(chosen: readonly Option[]): Starved[] {
    const drawn = (options: readonly Option[]) =>
      options.reduce((sum, o) => sum + this.current(o.t), 0);
    const free = this.places.map(
      (p, j) => p.outlet.milliamps - drawn(chosen.filter((o) => o.j === j)),
    );
    const left = (p: Place) =>
      (p.totalMilliamps ?? Infinity) - drawn(chosen.filter((o) => o.p.supply.id === p.supply.id));
    return this.takers.flatMap((t, i) => {
      if (chosen.some((o) => o.i === i)) return [];
      const options = this.options.filter((o) => o.i === i);
      return [starvedBy(t, this.places, options, free, left, this.current(t))];
    });
  }

  private unplugs(starved: readonly Starved[]): Edit[] {
    return starved
      .filter((s) => this.takers.some((t) => t.device.id === s.device && t.device.supply))
      .map((s) => ({ edit: 'unplugPower', device: s.device }));
  }
}

/** The voltages at which an outlet may feed a device; none where it is pinned to another. */
function optionsOf(t: Taker, i: number, p: Place, j: number): Option[] {
  const pin = t.device.supply?.pinned ? t.device.supply : undefined;
  if (pin && (pin.device !== p.supply.id || (pin.outlet ?? p.outlet.id) !== p.outlet.id)) return [];
  return voltagesOf(p.outlet).flatMap((volts, v) =>
    misfit(t.need, p.outlet, volts) ? [] : [{ t, i, p, j, volts, v, name: `x_${i}_${j}_${v}` }],
  );
}

const ones = (options: readonly Option[]): Term[] => options.map((o) => [1, o.name]);

const isNow = (o: Option): boolean =>
  o.t.device.supply?.device === o.p.supply.id && o.t.device.supply.outlet === o.p.outlet.id;

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
  places: readonly Place[],
  options: readonly { j: number; p: Place }[],
  free: readonly number[],
  left: (p: Place) => number,
  need: number,
): Starved {
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
      cure: device.supply?.pinned
        ? 'take the pin out'
        : `an outlet of ${kind}, ${Math.ceil(need)} mA`,
    };
  const room = Math.max(...options.map((o) => Math.min(entryAt(free, o.j), left(o.p))));
  if (room >= need)
    return {
      device: device.id,
      shortMilliamps: 0,
      why: 'the outlets that have current for it share their return with what it must stay apart from',
      cure: 'one isolated outlet more',
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
    cure: places.some((p) => p.outlet.milliamps >= need)
      ? `one outlet more of ${Math.ceil(need)} mA`
      : `a supply with an outlet of ${Math.ceil(need)} mA: none here gives so much`,
  };
}
