import { at as entryAt } from '../outcome';
import {
  type Mip,
  type MipAnswer,
  type MipSolver,
  solveMip,
  type Term,
  type Whole,
} from '../optimum/mip';
import { handsOn, type Place, type Taker } from './power';
import { PowerChoice } from './power-choice';
import type { Fed } from './power-plan';
import { pairs } from './pairs';
import { Alike } from './alike';
import { counted, isNow, ones, type Option, optionsOf } from './power-options';
import { PowerRules, unfed } from './power-rules';
import { givenOut, type GivenOut } from './power-search';
import { type Counts, isBetter } from './power-state';

/** Costs are whole numbers: what is less than one from the best is the best. */
const ALL_WHOLE = { absolute: 0.9 };

/** How long the solver may look for something better, in seconds for each aim: most is answered sooner. */
export const PATIENCE = 0.5;

/**
 * What is asked for, one after the other: as many fed as can be; of those plans the ones with the most
 * outlets in use; of those the ones with the fewest moved plugs.
 */
export const AIMS = ['fed', 'used', 'moved'] as const;

type Aim = (typeof AIMS)[number];

/**
 * A plan as good for an aim as was found, and what none can be better than: the same, unless the solver
 * gave up.
 */
export interface Best {
  found: GivenOut<Option>;
  limit: number;
}

/**
 * The question to the solver. Devices that take the same are one: `n` says how many of them an outlet feeds
 * at a voltage, `x` whether one of them stays where it is plugged, `u` how many are left without power. `w` is
 * one for each outlet that is used, `y` which voltage an outlet stands at.
 */
export class PowerProgram {
  /** What fits by voltage, polarity and pin, and of that what suffices for the device alone. */
  private readonly fitting: readonly Option[];
  readonly options: readonly Option[];
  private readonly alike: Alike;
  private readonly rules: PowerRules;
  /** What was found for the aims so far, which nothing after it betters. */
  private known: Partial<Counts> = {};

  constructor(
    private readonly takers: readonly Taker[],
    private readonly places: readonly Place[],
    private readonly headroom: number,
    private readonly seconds = PATIENCE,
  ) {
    this.alike = new Alike(takers, (t) => handsOn(t, places));
    this.fitting = takers.flatMap((t, i) =>
      places.flatMap((p, j) => optionsOf(t, i, this.alike.of(i), p, j)),
    );
    // What one device alone overloads is no choice: half a device is none either.
    this.options = this.fitting.filter(
      (o) => this.current(o.t) <= Math.min(o.p.outlet.milliamps, o.p.totalMilliamps ?? Infinity),
    );
    const { options, alike } = this;
    const current = (t: Taker) => this.current(t);
    this.rules = new PowerRules({ takers, places, options, alike, current });
  }

  private mip(minimise: Term[], more: Mip['rules'] = []): Mip {
    return {
      minimise,
      rules: [...this.rules.rows, ...more],
      binaries: [
        ...ones(this.options.filter(isNow)).map(([, v]) => v),
        ...this.places.map((_, j) => `w_${j}`),
        ...this.rules.binaries,
      ],
      reals: this.rules.reals,
      wholes: this.wholes(),
      gap: ALL_WHOLE,
      seconds: this.seconds,
    };
  }

  /** What counts devices that are alike: no more than there are. */
  private wholes(): Whole[] {
    return [
      ...counted(this.options.filter((o) => !isNow(o))).map((o) => ({
        name: o.name,
        most: this.mostOf(o),
      })),
      ...this.alike.sizes.map((size, c) => ({ name: unfed(c), most: size })),
    ];
  }

  /** How many like a device an outlet could feed. */
  private mostOf({ i, t, p }: Option): number {
    const suffices = Math.floor(p.outlet.milliamps / Math.max(1e-3, this.current(t)) + 1e-9);
    return Math.min(entryAt(this.alike.sizes, this.alike.of(i)), suffices);
  }

  /** What is counted for an aim, the less the better, and what it comes to in a plan. */
  private counted(aim: Aim, { fed, used, moved }: Counts): { costs: Term[]; now: number } {
    switch (aim) {
      case 'fed':
        return {
          costs: this.alike.sizes.map((_, c): Term => [1, unfed(c)]),
          now: this.takers.length - fed,
        };
      case 'used':
        return { costs: this.places.map((_, j): Term => [-1, `w_${j}`]), now: -used };
      case 'moved':
        return { costs: ones(this.options.filter((o) => !isNow(o))), now: moved };
    }
  }

  /** What a plan comes to for an aim, by what it costs the solver. */
  private reached(aim: Aim, cost: number): number {
    if (aim === 'fed') return this.takers.length - Math.round(cost);
    return aim === 'used' ? -Math.round(cost) : Math.round(cost);
  }

  /** What no plan can be better than: all that some outlet fits, by a largest matching, and what could stay. */
  private most(found?: Counts): Counts {
    const hopeful = this.choices().filter((c) => c.length);
    const fed = found?.fed ?? hopeful.length;
    return {
      fed: this.known.fed ?? hopeful.length,
      used: this.known.used ?? pairs(hopeful.map((c) => c.map((o) => o.j))),
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
    const handing = this.takers.filter((t) => handsOn(t, this.places)).map((t) => t.device.id);
    return givenOut(choices, {
      from,
      most,
      isNow,
      current: (t: Taker) => this.current(t),
      fedSupplies: new Set(handing),
    });
  }

  /**
   * The best plan for an aim, from one at hand. The solver is only asked for something better, which it
   * rules out much sooner than it finds what is known already; and first whether there is any where devices
   * may hang in parts, which it answers soonest.
   */
  bestFor(aim: Aim, found: GivenOut<Option>, solver: MipSolver): Best {
    const now = found[aim];
    if (now === this.most(found)[aim]) return { found, limit: now };
    const { costs, now: cost } = this.counted(aim, found);
    const better = this.mip(costs, [{ name: 'better', terms: costs, is: '<=', value: cost - 1 }]);
    const parts = this.inParts(aim, better, solver);
    if (!parts.solved && parts.why === 'impossible') return { found, limit: now };
    if (parts.solved && aim === 'moved') {
      const around = this.aroundStaying(found, parts.values);
      if (isBetter(around, found)) return this.bestFor(aim, around, solver);
    }
    // With whole numbers in it the solver may stop within its gap of the least: that much less may be it.
    const gap = aim === 'moved' ? ALL_WHOLE.absolute : 0;
    const limit = parts.solved
      ? this.reached(aim, Math.ceil(parts.cost - gap - 1e-6))
      : this.most(found)[aim];
    const answer = solveMip(better, solver);
    if (!answer.solved) return { found, limit: answer.why === 'impossible' ? now : limit };
    const chosen = this.chosenBy(answer.values);
    const most = { ...this.most(found), [aim]: this.reached(aim, answer.cost) };
    const best = this.search(this.choices(), chosen, most);
    // What the solver rounded may not go quite so: then the plan stands, and the proof does not.
    return { found: best, limit: most[aim] };
  }

  /**
   * What the problem comes to where all may hang on several outlets in parts, but for who stays where it
   * hangs, which is so or not: no plan is better than that.
   */
  private inParts(aim: Aim, whole: Mip, solver: MipSolver): MipAnswer {
    const staying = this.options.filter((o) => aim === 'moved' && isNow(o));
    const now = new Set(staying.map((o) => o.name));
    const kept = (name: string) => now.has(name);
    const parts: Whole[] = [
      ...whole.binaries.filter((v) => !kept(v)).map((name) => ({ name, most: 1 })),
      ...(whole.wholes ?? []),
    ];
    const bounds = parts.map(({ name, most }, k) => ({
      name: `part${k}`,
      terms: [[1, name]] as Term[],
      is: '<=' as const,
      value: most,
    }));
    return solveMip(
      {
        ...whole,
        rules: [...whole.rules, ...bounds],
        binaries: whole.binaries.filter(kept),
        wholes: [],
        reals: [...(whole.reals ?? []), ...parts.map((p) => p.name)],
      },
      solver,
    );
  }

  /** All given out around those that stay where the solver says so, with the others in parts. */
  private aroundStaying(found: Counts, values: Readonly<Record<string, number>>): GivenOut<Option> {
    const stays = this.options.filter((o) => isNow(o) && (values[o.name] ?? 0) > 0.5);
    const choices = this.choices().map((list, i) => {
      const stay = stays.find((o) => o.i === i);
      return stay ? [stay] : list;
    });
    const moved = found.fed - stays.length;
    return this.givenOut(this.search(choices, stays, { ...found, moved }).chosen);
  }

  /** What was found for one aim holds for all that are asked for after it. */
  keepTo(aim: Aim, found: Counts): void {
    const { costs, now } = this.counted(aim, found);
    this.rules.add(costs, '<=', now);
    this.known = { ...this.known, [aim]: found[aim] };
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
    // Of devices that are alike any may be the ones that are left.
    this.alike.sizes.forEach((size, c) => {
      const all = wanted.filter((is, i) => is && this.alike.of(i) === c).length;
      if (all) this.rules.add([[1, unfed(c)]], '<=', size - all);
    });
    return solveMip(this.mip([]), solver).solved;
  }

  private current(t: Taker): number {
    return t.need.milliamps * (1 + this.headroom);
  }

  /** The solver's answer with a device for each place that it gives: who stays first, then any that is alike. */
  private chosenBy(values: Readonly<Record<string, number>>): Option[] {
    const stays = this.options.filter((o) => isNow(o) && (values[o.name] ?? 0) > 0.5);
    const given = new Set(stays.map((o) => o.i));
    const others = counted(this.options.filter((o) => !isNow(o))).flatMap((o) => {
      const many = Math.round(values[o.name] ?? 0);
      const free = this.options.filter(
        (x) => x.j === o.j && x.v === o.v && !given.has(x.i) && this.alike.are(x.i, o.i),
      );
      const taken = free.slice(0, many);
      for (const x of taken) given.add(x.i);
      return taken;
    });
    return [...stays, ...others];
  }

  /** What was chosen, read. */
  plan(chosen: readonly Option[]): ReturnType<PowerChoice['plan']> {
    const { takers, places, fitting, options } = this;
    const current = (t: Taker) => this.current(t);
    const choice = new PowerChoice({ takers, places, fitting, options, current }, chosen);
    return choice.plan();
  }
}
