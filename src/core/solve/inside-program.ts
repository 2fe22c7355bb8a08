import { type Budget, kindOf } from '../kinds';
import type { Mip, Term } from '../optimum/mip';
import { sure } from '../outcome';
import { deviceOf, leadInto, partnerEnd } from '../rig/find';
import type { Rig } from '../rig/schema';
import { type Candidate, type Path, POINTS } from './inside-candidates';

/** What is taken before any candidate is placed, and how many loops are free. */
interface Taken {
  slots: number;
  percent: number;
  loops: number;
}

/**
 * The mixed-integer problem of what lives inside a host. For each candidate one of three holds:
 * `in` (inside), `front` (a real pedal before everything inside) or `out` (a real pedal on a send
 * and return); `loop` says that a send and return begins there, since neighbours share one.
 */
export class InsideProgram {
  private readonly names: Map<string, string>;
  private readonly movable: ReadonlySet<string>;

  constructor(
    private readonly rig: Rig,
    private readonly host: string,
    private readonly paths: readonly Path[],
    private readonly candidates: readonly Candidate[],
    private readonly taken: Taken,
    private readonly has: Budget,
  ) {
    this.names = new Map([...new Set(paths.flatMap((p) => p.row))].map((id, i) => [id, `d${i}`]));
    this.movable = new Set(candidates.map((c) => c.device));
  }

  /** The name of a device in the problem's variables. */
  name(id: string): string {
    return sure(this.names.get(id));
  }

  /**
   * The problem with some candidates held inside or outside; soft, it may go over what there is, at
   * a price, to tell how much is short.
   */
  of(held: ReadonlyMap<string, boolean>, soft = false): Mip {
    const mip: Mip = { minimise: [], rules: [], binaries: [], reals: [] };
    for (const c of this.candidates) {
      const x = `in_${this.name(c.device)}`;
      mip.binaries.push(x);
      // Being inside forgoes the points for outside; moving at all costs a little.
      mip.minimise.push([c.outsidePoints + (c.inside ? -POINTS.stay : POINTS.stay), x]);
      const wanted = held.get(c.device);
      if (wanted !== undefined)
        mip.rules.push({
          name: `hold_${this.name(c.device)}`,
          terms: [[1, x]],
          is: '=',
          value: wanted ? 1 : 0,
        });
    }
    const loops = this.paths.flatMap((p) => this.row(p.row, mip));
    this.limits(loops, soft, mip);
    return mip;
  }

  /** The places along one path; gives the loops that begin on it. */
  private row(row: readonly string[], mip: Mip): Term[] {
    const loops: Term[] = [];
    let before: string | undefined;
    let looped: string | undefined;
    for (const id of row) {
      const n = this.name(id);
      if (!this.movable.has(id)) {
        // A device of the row that is fixed: outside in front keeps the front going, inside ends it.
        if (sure(deviceOf(this.rig, id)).host === this.host)
          [before, looped] = ['never', undefined];
        continue;
      }
      const [f, o, l] = [`front_${n}`, `out_${n}`, `loop_${n}`];
      mip.binaries.push(f, o, l);
      const one: Term[] = [
        [1, `in_${n}`],
        [1, f],
        [1, o],
      ];
      mip.rules.push({ name: `place_${n}`, terms: one, is: '=', value: 1 });
      if (before === 'never')
        mip.rules.push({ name: `nofront_${n}`, terms: [[1, f]], is: '=', value: 0 });
      else if (before) {
        const after: Term[] = [
          [1, f],
          [-1, before],
        ];
        mip.rules.push({ name: `front_after_${n}`, terms: after, is: '<=', value: 0 });
      }
      const begins: Term[] = [[1, l], [-1, o], ...(looped ? [[1, looped] as Term] : [])];
      mip.rules.push({ name: `begins_${n}`, terms: begins, is: '>=', value: 0 });
      const sides = partnerLinked(this.rig, id) ? 2 : 1;
      loops.push([sides, l]);
      mip.minimise.push([POINTS.loop * sides, l]);
      if (before !== 'never') before = f;
      looped = o;
    }
    return loops;
  }

  /** Slots, processing and loops: no more than there is. */
  private limits(loops: Term[], soft: boolean, mip: Mip): void {
    const limit = (key: string, terms: Term[], value: number) =>
      mip.rules.push({
        name: key,
        terms: soft ? [...terms, [-1, `over_${key}`]] : terms,
        is: '<=',
        value,
      });
    const inside = (cost: (c: Candidate) => number) =>
      this.candidates.map((c): Term => [cost(c), `in_${this.name(c.device)}`]);
    limit(
      'slots',
      inside((c) => c.slots),
      this.has.slots - this.taken.slots,
    );
    limit(
      'percent',
      inside((c) => c.percent),
      this.has.percent - this.taken.percent,
    );
    limit('loops', loops, this.taken.loops);
    if (!soft) return;
    mip.reals = ['over_slots', 'over_percent', 'over_loops'];
    mip.minimise.push([1000, 'over_slots'], [100, 'over_percent'], [1000, 'over_loops']);
  }
}

/** Whether both sides of a device's stereo pair are joined to something. */
export function partnerLinked(rig: Rig, id: string): boolean {
  const way = kindOf(sure(deviceOf(rig, id)).kind).through!;
  const right = partnerEnd(rig, { device: id, jack: way.in });
  return right !== undefined && leadInto(rig, right.device, right.jack) !== undefined;
}
