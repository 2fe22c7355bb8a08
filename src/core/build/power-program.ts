import { at as entryAt, sure } from '../outcome';
import type { PowerNeed } from '../kinds';
import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';
import { type Place, placeKey, type Taker } from './power';
import { PowerChoice, type Uncured } from './power-choice';
import { pairs } from './pairs';
import { givenOut } from './power-greedy';
import { isNow, ones, type Option, optionsOf } from './power-options';
import { mostThatStay } from './power-stays';

/** Sides that must not share a return: digital and high gain, chassis on plus and all others. */
const QUARRELS: readonly [
  name: string,
  one: (need: PowerNeed) => boolean,
  other: (need: PowerNeed) => boolean,
][] = [
  ['noise', (n) => n.noisy === true, (n) => n.sensitive === true],
  ['plus', (n) => n.positiveGround === true, (n) => n.positiveGround !== true],
];

/** The first that is found is as good as any. */
const ANY = { absolute: 1e6 };

/** Costs are whole numbers: what is less than one from the best is the best. */
const ALL_WHOLE = { absolute: 0.9 };

/**
 * What is asked for, one after the other: as few without power as can be and of those plans the one
 * with the most outlets in use; then as few moved plugs.
 */
export const AIMS = ['fed', 'moved'] as const;

type Aim = (typeof AIMS)[number];

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
    isAsked: (o: Option) => boolean = () => true,
  ) {
    this.fitting = takers.flatMap((t, i) => places.flatMap((p, j) => optionsOf(t, i, p, j)));
    // What one device alone overloads is no choice: half a device is none either.
    this.options = this.fitting.filter(
      (o) =>
        this.current(o.t) <= Math.min(o.p.outlet.milliamps, o.p.totalMilliamps ?? Infinity) &&
        isAsked(o),
    );
    this.takers.forEach((_, i) => this.feedsOnceOrNot(i));
    this.takers.forEach((_, i) => this.handsOn(i));
    this.places.forEach((_, j) => this.outletSuffices(j));
    for (const id of new Set(this.places.map((p) => p.supply.id))) this.supplySuffices(id);
    this.keepApart();
  }

  mip(aim: Aim): Mip {
    const voltages = this.rules.flatMap((r) =>
      r.terms.map(([, v]) => v).filter((v) => v.startsWith('y_')),
    );
    return {
      minimise: this.costs(aim),
      rules: this.rules,
      binaries: [
        ...this.options.map((o) => o.name),
        ...this.takers.map((_, i) => `u_${i}`),
        ...this.places.map((_, j) => `w_${j}`),
        ...new Set(voltages),
        ...this.binaries,
      ],
      reals: this.reals,
      gap: ALL_WHOLE,
    };
  }

  private costs(aim: Aim): Term[] {
    switch (aim) {
      case 'fed':
        // One device more fed is worth more than all outlets there are.
        return [
          ...this.takers.map((_, i): Term => [this.places.length + 1, `u_${i}`]),
          ...this.places.map((_, j): Term => [-1, `w_${j}`]),
        ];
      case 'moved':
        return ones(this.options.filter((o) => !isNow(o)));
    }
  }

  /** What was found for one aim holds for all that are asked for after it. */
  keepTo(aim: Aim, values: Readonly<Record<string, number>>): void {
    if (aim === 'moved') return;
    const count = (names: readonly Term[]) =>
      names.reduce((sum, [, v]) => sum + Math.round(values[v] ?? 0), 0);
    this.keepToCounts(count(this.unfed()), count(this.inUse()));
  }

  private unfed = (): Term[] => this.takers.map((_, i): Term => [1, `u_${i}`]);
  private inUse = (): Term[] => this.places.map((_, j): Term => [1, `w_${j}`]);

  /** So many go without, so many outlets are used: by a rule for each the solver sees further than by one for both. */
  private keepToCounts(starved: number, used: number): void {
    this.rule(this.unfed(), '<=', starved);
    this.rule(this.inUse(), '>=', used);
  }

  /**
   * Outlets that are simply given out one after the other. Where that feeds all that can be fed at all
   * and uses all outlets that can be used, nothing is better, and it is kept to; where besides as many
   * plugs stay as could stay in any plan, it is the plan.
   */
  keepToGivenOut(solver: MipSolver): { isBest: boolean; plan?: Uncured } {
    // Giving out knows nothing of what is handed on.
    if (this.reals.length) return { isBest: false };
    const choices = this.takers.map((_, i) => this.options.filter((o) => o.i === i));
    const hopeful = choices.filter((c) => c.length);
    const most = {
      fed: hopeful.length,
      used: pairs(hopeful.map((c) => c.map((o) => o.j))),
      moved: hopeful.filter((c) => !c.some(isNow)).length,
    };
    const give = (from: readonly (readonly Option[])[], aim: typeof most) =>
      givenOut(from, (t) => this.current(t), isNow, aim);
    const found = give(choices, most);
    if (found.fed < most.fed || found.used < most.used) return { isBest: false };
    if (found.moved === most.moved) return { isBest: true, plan: this.choice(found.chosen) };
    const here = new PowerProgram(this.takers, this.places, this.headroom, isNow);
    const staying = mostThatStay(this.options, here, most.used, solver);
    if (staying) {
      const rest = give(staying.choices, { ...most, moved: most.fed - staying.stays.length });
      const { fed, used } = most;
      if (rest.fed === fed && rest.used === used && rest.moved === fed - staying.stays.length)
        return { isBest: true, plan: this.choice(rest.chosen) };
      const plan = this.withStaying(staying.stays, this.takers.length - fed, used, solver);
      if (plan) return { isBest: true, plan };
    }
    this.keepToCounts(this.takers.length - found.fed, found.used);
    return { isBest: true };
  }

  /** Any plan in which these stay, so many go without and so many outlets are used; nothing where there is none. */
  private withStaying(
    stays: readonly Option[],
    starved: number,
    used: number,
    solver: MipSolver,
  ): Uncured | undefined {
    const fixed = new PowerProgram(this.takers, this.places, this.headroom);
    fixed.keepToCounts(starved, used);
    for (const o of stays) fixed.rule([[1, o.name]], '=', 1);
    const answer = solveMip({ ...fixed.mip('moved'), gap: ANY }, solver);
    return answer.solved ? fixed.plan(answer.values) : undefined;
  }

  mustFeed(devices: readonly string[]): void {
    this.takers.forEach((t, i) => {
      if (devices.includes(t.device.id)) this.rule([[1, `u_${i}`]], '=', 0);
    });
  }

  rule(terms: Term[], is: Mip['rules'][number]['is'], value: number): void {
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

  /** What the solver chose, read. */
  plan = (values: Readonly<Record<string, number>>): Uncured =>
    this.choice(this.options.filter((o) => (values[o.name] ?? 0) > 0.5));

  private choice(solved: readonly Option[]): Uncured {
    const { takers, places, fitting, options } = this;
    const current = (t: Taker) => this.current(t);
    return new PowerChoice({ takers, places, fitting, options, current }, solved).plan();
  }
}
