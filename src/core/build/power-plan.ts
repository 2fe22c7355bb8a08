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
  const x = (i: number, j: number, v: number) => `x_${i}_${j}_${v}`;
  const current = (t: Taker) => t.need.milliamps * (1 + headroom);
  const options = takers.flatMap((t, i) =>
    places.flatMap((p, j) =>
      voltagesOf(p.outlet).flatMap((volts, v) => {
        const pin = t.device.supply?.pinned ? t.device.supply : undefined;
        if (pin && (pin.device !== p.supply.id || (pin.outlet ?? p.outlet.id) !== p.outlet.id))
          return [];
        return misfit(t.need, p.outlet, volts) ? [] : [{ t, i, p, j, volts, v, name: x(i, j, v) }];
      }),
    ),
  );
  const rules: Mip['rules'] = [];
  const rule = (terms: Term[], is: Mip['rules'][number]['is'], value: number) =>
    void rules.push({ name: `r${rules.length}`, terms, is, value });
  const one = (list: typeof options): Term[] => list.map((o) => [1, o.name]);
  takers.forEach((_, i) => rule([...one(options.filter((o) => o.i === i)), [1, `u_${i}`]], '=', 1));
  places.forEach((p, j) => {
    const here = options.filter((o) => o.j === j);
    rule(
      here.map((o): Term => [current(o.t), o.name]),
      '<=',
      p.outlet.milliamps,
    );
    // One voltage an outlet.
    const volts = [...new Set(here.map((o) => o.v))];
    if (volts.length > 1)
      rule(
        volts.map((v): Term => [1, `y_${j}_${v}`]),
        '<=',
        1,
      );
    if (volts.length > 1)
      for (const o of here)
        rule(
          [
            [1, o.name],
            [-1, `y_${j}_${o.v}`],
          ],
          '<=',
          0,
        );
    rule([...one(here), [-1, `s_${j}`]], '<=', 1);
  });
  for (const id of new Set(places.map((p) => p.supply.id))) {
    const total = sure(places.find((p) => p.supply.id === id)).totalMilliamps;
    if (total !== undefined)
      rule(
        options.filter((o) => o.p.supply.id === id).map((o): Term => [current(o.t), o.name]),
        '<=',
        total,
      );
  }
  // Outlets that are isolated stand alone; the others of a supply are one return.
  const returns = new Map<string, number[]>();
  places.forEach((p, j) => {
    const key = p.outlet.isolated ? placeKey(p) : p.supply.id;
    returns.set(key, [...(returns.get(key) ?? []), j]);
  });
  for (let a = 0; a < takers.length; a++) {
    for (let b = a + 1; b < takers.length; b++) {
      if (!quarrel(entryAt(takers, a).need, entryAt(takers, b).need)) continue;
      for (const group of returns.values())
        rule(one(options.filter((o) => (o.i === a || o.i === b) && group.includes(o.j))), '<=', 1);
    }
  }
  const isNow = (o: (typeof options)[number]) =>
    o.t.device.supply?.device === o.p.supply.id && o.t.device.supply.outlet === o.p.outlet.id;
  const answer = solveMip(
    {
      minimise: [
        ...takers.map((_, i): Term => [PRICE.starved, `u_${i}`]),
        ...places.map((_, j): Term => [PRICE.shared, `s_${j}`]),
        // The narrowest outlet that suffices, so that wide ones stay free.
        ...options.map((o): Term => [
          (isNow(o) ? 0 : PRICE.moved) + PRICE.wide * o.p.outlet.milliamps,
          o.name,
        ]),
      ],
      rules,
      binaries: [
        ...options.map((o) => o.name),
        ...takers.map((_, i) => `u_${i}`),
        ...new Set(
          rules.flatMap((r) => r.terms.map(([, v]) => v).filter((v) => v.startsWith('y_'))),
        ),
      ],
      reals: places.map((_, j) => `s_${j}`),
    },
    solver,
  );
  if (!answer.solved) return refused('The solver found no plan. Take out a pin, and try again.');
  const chosen = options.filter((o) => (answer.values[o.name] ?? 0) > 0.5);
  const fed = chosen.map((o): Fed => ({
    device: o.t.device.id,
    supply: o.p.supply.id,
    outlet: o.p.outlet.id,
    volts: o.volts,
  }));
  const free = places.map(
    (p, j) =>
      p.outlet.milliamps -
      chosen.filter((o) => o.j === j).reduce((sum, o) => sum + current(o.t), 0),
  );
  const left = (p: Place) =>
    p.totalMilliamps === undefined
      ? Infinity
      : p.totalMilliamps -
        chosen
          .filter((o) => o.p.supply.id === p.supply.id)
          .reduce((sum, o) => sum + current(o.t), 0);
  const starved = takers.flatMap((t, i) =>
    chosen.some((o) => o.i === i)
      ? []
      : [
          starvedBy(
            t,
            places,
            options.filter((o) => o.i === i),
            free,
            left,
            current(t),
          ),
        ],
  );
  const moves = chosen.filter(
    (o) => !isNow(o) || (o.t.device.supply?.volts ?? o.p.outlet.volts) !== o.volts,
  );
  return done({
    fed,
    starved,
    shared: places.reduce(
      (n, _, j) => n + Math.max(0, chosen.filter((o) => o.j === j).length - 1),
      0,
    ),
    moved: chosen.filter((o) => !isNow(o)).length,
    edits: [
      ...moves.map((o): Edit => ({
        edit: 'setDevice',
        device: o.t.device.id,
        supply: {
          ...o.t.device.supply,
          device: o.p.supply.id,
          outlet: o.p.outlet.id,
          volts: o.volts,
        },
      })),
      ...starved
        .filter((s) => sure(rig.devices.find((d) => d.id === s.device)).supply)
        .map((s): Edit => ({ edit: 'unplugPower', device: s.device })),
    ],
  });
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
