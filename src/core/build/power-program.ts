import { at as entryAt, sure } from '../outcome';
import type { PowerNeed } from '../kinds';
import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';
import { type Place, placeKey, type Taker } from './power';
import { PowerChoice, type Uncured } from './power-choice';
import type { Fed } from './power-plan';
import { pairs } from './pairs';
import { isNow, ones, type Option, optionsOf } from './power-options';
import { givenOut, type GivenOut } from './power-search';
import { type Counts, isBetter } from './power-state';

/** Sides that must not share a return: digital and high gain, chassis on plus and all others. */
const QUARRELS: readonly [
  name: string,
  one: (need: PowerNeed) => boolean,
  other: (need: PowerNeed) => boolean,
][] = [
  ['noise', (n) => n.noisy === true, (n) => n.sensitive === true],
  ['plus', (n) => n.positiveGround === true, (n) => n.positiveGround !== true],
];

/** Costs are whole numbers: what is less than one from the best is the best. */
const ALL_WHOLE = { absolute: 0.9 };

/** How long the solver may look for something better than what is found: most is answered in a second. */
const PATIENCE = 15;

/**
 * What is asked for, one after the other: as many fed as can be; of those plans the ones with the most
 * outlets in use; of those the ones with the fewest moved plugs.
 */
export const AIMS = ['fed', 'used', 'moved'] as const;

type Aim = (typeof AIMS)[number];

/** A plan as good for an aim as was found, and whether none betters it: unknown where the solver gave up. */
export interface Best {
  found: GivenOut<Option>;
  isProven: boolean;
}

/**
 * The question to the solver: `x` is one for each option that is chosen, `u` for each device left
 * without power, `w` for each outlet that is used, `y` which voltage an outlet stands at.
 */
export class PowerProgram {
  /** What fits by voltage, polarity and pin, and of that what suffices for the device alone. */
  private readonly fitting: readonly Option[];
  readonly options: readonly Option[];
  private readonly rules: Mip['rules'] = [];
  /** Of returns, which side of a quarrel each is for. */
  private readonly binaries: string[] = [];
  /** What boxes that hand power on draw for others, by the outlet that they hang on, in mA. */
  private readonly reals: string[] = [];

  constructor(
    private readonly takers: readonly Taker[],
    private readonly places: readonly Place[],
    private readonly headroom: number,
  ) {
    this.fitting = takers.flatMap((t, i) => places.flatMap((p, j) => optionsOf(t, i, p, j)));
    // What one device alone overloads is no choice: half a device is none either.
    this.options = this.fitting.filter(
      (o) => this.current(o.t) <= Math.min(o.p.outlet.milliamps, o.p.totalMilliamps ?? Infinity),
    );
    this.takers.forEach((_, i) => this.feedsOnceOrNot(i));
    this.takers.forEach((_, i) => this.handsOn(i));
    this.places.forEach((_, j) => this.outletSuffices(j));
    for (const id of new Set(this.places.map((p) => p.supply.id))) this.supplySuffices(id);
    this.keepApart();
  }

  private mip(minimise: Term[], more: Mip['rules'] = []): Mip {
    const voltages = this.rules.flatMap((r) =>
      r.terms.map(([, v]) => v).filter((v) => v.startsWith('y_')),
    );
    return {
      minimise,
      rules: [...this.rules, ...more],
      binaries: [
        ...this.options.map((o) => o.name),
        ...this.takers.map((_, i) => `u_${i}`),
        ...this.places.map((_, j) => `w_${j}`),
        ...new Set(voltages),
        ...this.binaries,
      ],
      reals: this.reals,
      ...{ gap: ALL_WHOLE, seconds: PATIENCE },
    };
  }

  /** What is counted for an aim, the less the better, and what it comes to in a plan. */
  private counted(aim: Aim, { fed, used, moved }: Counts): { costs: Term[]; now: number } {
    switch (aim) {
      case 'fed':
        return {
          costs: this.takers.map((_, i): Term => [1, `u_${i}`]),
          now: this.takers.length - fed,
        };
      case 'used':
        return { costs: this.places.map((_, j): Term => [-1, `w_${j}`]), now: -used };
      case 'moved':
        return { costs: ones(this.options.filter((o) => !isNow(o))), now: moved };
    }
  }

  /** What no plan can be better than: all that some outlet fits, by a largest matching, and what could stay. */
  private most(found?: Counts): Counts {
    const hopeful = this.choices().filter((c) => c.length);
    const fed = found?.fed ?? hopeful.length;
    return {
      fed: hopeful.length,
      used: pairs(hopeful.map((c) => c.map((o) => o.j))),
      moved: Math.max(0, fed - hopeful.filter((c) => c.some(isNow)).length),
    };
  }

  private choices = (): Option[][] =>
    this.takers.map((_, i) => this.options.filter((o) => o.i === i));

  /** Outlets given out by search, from a plan on if there is one: good, and maybe the best. */
  givenOut(from: readonly Option[] = []): GivenOut<Option> {
    return this.search(this.choices(), from, this.most());
  }

  private search(
    choices: readonly (readonly Option[])[],
    from: readonly Option[],
    most: Counts,
  ): GivenOut<Option> {
    const handing = this.takers.filter((t) => this.isHander(t)).map((t) => t.device.id);
    return givenOut(choices, {
      ...{ from, most, isNow, current: (t: Taker) => this.current(t) },
      fedSupplies: new Set(handing),
    });
  }

  /**
   * The best plan for an aim, from one at hand. The solver is only asked for something better, which it
   * rules out much sooner than it finds what is known already.
   */
  bestFor(aim: Aim, found: GivenOut<Option>, solver: MipSolver): Best {
    if (found[aim] === this.most(found)[aim]) return { found, isProven: true };
    const { costs, now } = this.counted(aim, found);
    const better = this.mip(costs, [{ name: 'better', terms: costs, is: '<=', value: now - 1 }]);
    if (aim === 'moved') {
      const around = this.aroundMoreStaying(found, better, solver);
      if (around === 'none') return { found, isProven: true };
      if (around) return this.bestFor(aim, around, solver);
    }
    const answer = solveMip(better, solver);
    if (!answer.solved) return { found, isProven: answer.why === 'impossible' };
    const chosen = this.options.filter((o) => (answer.values[o.name] ?? 0) > 0.5);
    return { found: this.givenOut(chosen), isProven: true };
  }

  /**
   * A plan in which more stay where they are, none where there can be none, and nothing where it cannot be
   * told so. The idea: only who stays is decided by whole numbers, all others may hang on several outlets in
   * parts. Where even so no more can stay, no plan does it; where they can, the others are given out around
   * them.
   */
  private aroundMoreStaying(
    found: Counts,
    better: Mip,
    solver: MipSolver,
  ): GivenOut<Option> | 'none' | undefined {
    const now = new Set(this.options.filter(isNow).map((o) => o.name));
    const parts = better.binaries.filter((v) => !now.has(v));
    const upToOne = parts.map((v, k) => ({
      ...{ name: `part${k}`, terms: [[1, v]] as Term[], is: '<=' as const, value: 1 },
    }));
    const answer = solveMip(
      {
        ...better,
        rules: [...better.rules, ...upToOne],
        binaries: [...now],
        reals: [...(better.reals ?? []), ...parts],
      },
      solver,
    );
    if (!answer.solved) return answer.why === 'impossible' ? 'none' : undefined;
    const stays = this.options.filter((o) => isNow(o) && (answer.values[o.name] ?? 0) > 0.5);
    const choices = this.choices().map((list, i) => {
      const stay = stays.find((o) => o.i === i);
      return stay ? [stay] : list;
    });
    const moved = found.fed - stays.length;
    const around = this.givenOut(this.search(choices, stays, { ...found, moved }).chosen);
    return isBetter(around, found) ? around : undefined;
  }

  /** What was found for one aim holds for all that are asked for after it. */
  keepTo(aim: Aim, found: Counts): void {
    const { costs, now } = this.counted(aim, found);
    this.rule(costs, '<=', now);
  }

  /** Whether some plan feeds all of these: tried on what is given out first, then by the solver. */
  canFeed(devices: readonly string[], from: readonly Fed[], solver: MipSolver): boolean {
    const start = from.flatMap((f) =>
      this.options.filter(
        (o) =>
          o.t.device.id === f.device &&
          o.p.supply.id === f.supply &&
          o.p.outlet.id === f.outlet &&
          o.volts === f.volts,
      ),
    );
    const wanted = this.takers.map((t) => devices.includes(t.device.id));
    const most = { fed: devices.length, used: 0, moved: devices.length };
    const choices = this.choices().map((list, i) => (wanted[i] ? list : []));
    if (this.search(choices, start, most).fed === devices.length) return true;
    this.takers.forEach((_, i) => {
      if (wanted[i]) this.rule([[1, `u_${i}`]], '=', 0);
    });
    return solveMip(this.mip([]), solver).solved;
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

  /** The load that a box hands on, where it hangs on an outlet: a variable for each that it could hang on. */
  private handedOn(i: number, j: number): string {
    return `p_${i}_${j}`;
  }

  /** What hangs on an outlet besides the devices themselves: what those of them that hand power on pass through. */
  private passedThrough(options: readonly Option[]): Term[] {
    const pairs = new Map(options.map((o) => [this.handedOn(o.i, o.j), o]));
    return [...pairs].filter(([, o]) => this.isHander(o.t)).map(([name]): Term => [1, name]);
  }

  private isHander = ({ device }: Taker): boolean =>
    this.places.some((p) => p.supply.id === device.id);

  /**
   * A box that hands power on draws, on whichever outlet it hangs, what hangs on its own outlets besides.
   * That also keeps boxes from feeding one another in a circle: each would draw more than the other.
   */
  private handsOn(i: number): void {
    const t = entryAt(this.takers, i);
    if (!this.isHander(t)) return;
    const below = this.options.filter((o) => o.p.supply.id === t.device.id);
    const most = this.places
      .filter((p) => p.supply.id === t.device.id)
      .reduce((sum, p) => sum + p.outlet.milliamps, 0);
    // Without power it hands none on.
    if (below.length) this.onlyUnless(below, [[1, `u_${i}`]], most);
    for (const j of new Set(this.options.filter((o) => o.i === i).map((o) => o.j))) {
      const here = this.options.filter((o) => o.i === i && o.j === j);
      const name = this.handedOn(i, j);
      this.reals.push(name);
      this.rule(
        [
          ...this.draws(below),
          ...this.passedThrough(below),
          ...here.map((o): Term => [most, o.name]),
          [-1, name],
        ],
        '<=',
        most,
      );
    }
  }

  /** Its current, at one voltage for all that hang on it, and whether it is used. */
  private outletSuffices(j: number): void {
    const here = this.options.filter((o) => o.j === j);
    const { milliamps } = entryAt(this.places, j).outlet;
    const volts = [...new Set(here.map((o) => o.v))];
    this.rule([...this.draws(here), ...this.passedThrough(here)], '<=', milliamps);
    for (const v of volts) {
      const at = here.filter((o) => o.v === v);
      if (volts.length > 1) this.onlyWhere(at, [[1, `y_${j}_${v}`]], milliamps);
    }
    if (volts.length > 1)
      this.rule(
        volts.map((v): Term => [1, `y_${j}_${v}`]),
        '<=',
        1,
      );
    this.rule([...ones(here), [-1, `w_${j}`]], '>=', 0);
  }

  /** Nothing is drawn unless a sum is one: one row for all is quicker to solve than one for each. */
  private onlyWhere(options: readonly Option[], isOne: readonly Term[], most: number): void {
    const { draws, spare } = this.drawsOfAtLeastOne(options);
    this.rule([...draws, ...isOne.map(([f, v]): Term => [-f * (most + spare), v])], '<=', 0);
  }

  /** Nothing is drawn where a sum is one. */
  private onlyUnless(options: readonly Option[], isOne: readonly Term[], most: number): void {
    const { draws, spare } = this.drawsOfAtLeastOne(options);
    const all = most + spare;
    this.rule([...draws, ...isOne.map(([f, v]): Term => [f * all, v])], '<=', all);
  }

  /** Draws in mA, none under 1, so that what takes next to nothing is ruled too; and what that adds to all. */
  private drawsOfAtLeastOne(options: readonly Option[]): { draws: Term[]; spare: number } {
    const draws = options.map((o): Term => [Math.max(1, this.current(o.t)), o.name]);
    return { draws, spare: options.reduce((n, o) => n + Math.max(0, 1 - this.current(o.t)), 0) };
  }

  private supplySuffices(id: string): void {
    const total = sure(this.places.find((p) => p.supply.id === id)).totalMilliamps;
    if (total === undefined) return;
    const here = this.options.filter((o) => o.p.supply.id === id);
    this.rule([...this.draws(here), ...this.passedThrough(here)], '<=', total);
  }

  /**
   * What quarrels shares no return: outlets that are isolated stand alone, the others of a supply are
   * one. Each return is either for one side of a quarrel or for the other.
   */
  private keepApart(): void {
    const returns = new Map<string, number[]>();
    this.places.forEach((p, j) => {
      const key = p.outlet.isolated ? placeKey(p) : p.supply.id;
      returns.set(key, [...(returns.get(key) ?? []), j]);
    });
    [...returns.values()].forEach((group, g) => {
      const most = group.reduce((sum, j) => sum + entryAt(this.places, j).outlet.milliamps, 0);
      for (const [name, isOne, isOther] of QUARRELS) {
        const here = this.options.filter((o) => group.includes(o.j));
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
        if (both.length > 1) this.rule(ones(both), '<=', 1);
        for (const rest of [one, other]) if (rest.length) this.onlyUnless(rest, ones(both), most);
      }
    });
  }

  /** What was chosen, read. */
  plan(chosen: readonly Option[], isProven: boolean): Uncured {
    const { takers, places, fitting, options } = this;
    const current = (t: Taker) => this.current(t);
    const choice = new PowerChoice({ takers, places, fitting, options, current }, chosen);
    return { ...choice.plan(), isProven };
  }
}
