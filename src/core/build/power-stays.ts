import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';
import { ones, type Option } from './power-options';

/** The rules that hold for what stays where it is plugged, to which more are added. */
interface Staying {
  readonly options: readonly Option[];
  mip(aim: 'moved'): Mip;
  rule(terms: Term[], is: '<=' | '>=' | '=', value: number): void;
}

/**
 * The most devices that could stay where they are plugged, by the rules for them, whatever becomes of the
 * others but that so many outlets can have a device each: no plan that uses them lets more stay. And what
 * is then left to choose for each device.
 *
 * The idea: only who stays is decided by whole numbers. That outlets can be used is a flow from devices to
 * outlets, and as devices that fit alike and outlets that are alike to all flow together, it is small.
 * Where something stays, that has the outlet: nothing else comes there to have it.
 */
export function mostThatStay(
  options: readonly Option[],
  here: Staying,
  used: number,
  solver: MipSolver,
): { stays: Option[]; choices: Option[][] } | undefined {
  const outlets = alike(
    options,
    (o) => o.j,
    (o) => o.i,
    (j) => here.options.some((n) => n.j === j),
  );
  const devices = alike(
    options,
    (o) => o.i,
    (o) => outlets.groupOf(o.j),
    (i) => here.options.some((n) => n.i === i),
  );
  const flow = (o: Option) => `f_${devices.groupOf(o.i)}_${outlets.groupOf(o.j)}`;
  const flows = new Map(options.map((o) => [flow(o), o]));
  const terms = (is: (o: Option) => boolean): Term[] =>
    [...flows].flatMap(([name, o]): Term[] => (is(o) ? [[1, name]] : []));
  for (const [group, members] of devices.groups)
    here.rule(
      terms((o) => devices.groupOf(o.i) === group),
      '<=',
      members.length,
    );
  for (const [group, members] of outlets.groups)
    here.rule(
      terms((o) => outlets.groupOf(o.j) === group),
      '<=',
      members.length,
    );
  for (const i of new Set(here.options.map((n) => n.i))) {
    const now = here.options.filter((n) => n.i === i);
    const elsewhere = terms((o) => o.i === i && !now.some((n) => n.j === o.j));
    here.rule([...elsewhere, ...ones(now)], '<=', 1);
  }
  for (const n of here.options) {
    const stayers = here.options.filter((x) => x.j === n.j);
    const comes = terms((o) => o.j === n.j && !stayers.some((x) => x.i === o.i));
    here.rule([...comes, [1, n.name]], '<=', 1);
  }
  here.rule(
    terms(() => true),
    '>=',
    used,
  );
  const rules = here.mip('moved');
  const minimise = here.options.map((o): Term => [-1, o.name]);
  const reals = [...(rules.reals ?? []), ...flows.keys()];
  const answer = solveMip({ ...rules, minimise, reals }, solver);
  if (!answer.solved) return undefined;
  const flowing = (name: string) => Math.round(answer.values[name] ?? 0);
  const stays = here.options.filter((o) => flowing(o.name) === 1);
  const covers = new Map<number, string>();
  for (const [name, o] of flows) {
    const left = devices.of(o.i).filter((i) => !covers.has(i));
    for (const i of left.slice(0, flowing(name))) covers.set(i, outlets.groupOf(o.j));
  }
  const choices = devices.all.map((i) => {
    const all = options.filter((o) => o.i === i);
    const stay = stays.find((o) => o.i === i);
    if (stay) return all.filter((o) => o.j === stay.j);
    const group = covers.get(i);
    return group === undefined ? all : all.filter((o) => outlets.groupOf(o.j) === group);
  });
  return { stays, choices };
}

/** Things that fit the same others, together; those that are apart stand alone. */
function alike<T>(
  options: readonly Option[],
  thing: (o: Option) => number,
  other: (o: Option) => T,
  isApart: (thing: number) => boolean,
) {
  const fits = new Map<number, Set<T>>();
  for (const o of options) fits.set(thing(o), (fits.get(thing(o)) ?? new Set()).add(other(o)));
  const keys = new Map<string, string>();
  const groups = new Map<string, number[]>();
  const groupBy = new Map<number, string>();
  for (const [t, set] of fits) {
    const key = isApart(t) ? `only ${t}` : [...set].map(String).sort().join(' ');
    const group = keys.get(key) ?? String(keys.size);
    keys.set(key, group);
    groups.set(group, [...(groups.get(group) ?? []), t]);
    groupBy.set(t, group);
  }
  const groupOf = (t: number): string => groupBy.get(t) ?? '';
  return {
    groups,
    groupOf,
    all: [...fits.keys()],
    of: (t: number) => groups.get(groupOf(t)) ?? [],
  };
}
