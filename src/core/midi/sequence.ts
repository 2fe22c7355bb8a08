import { at as entryAt } from '../outcome';
import type { Rig, Sound, State } from '../rig/schema';
import { effectiveSound } from '../control/effective';
import { type Press, pressesBetween } from './presses';
import { levelsNear } from '../control/reach';

/** The order in which to press, and how much louder than both sounds it gets on the way at worst. */
export interface Sequence {
  steps: { press: Press; loudestDb: number; at: string | null }[];
  overshootDb: number;
}

/** Orders are tried one by one up to this many presses; beyond, each step takes the quietest next press. */
const TRIED_UP_TO = 4;

const own = (states: Record<string, State>, id: string): State | undefined =>
  Object.hasOwn(states, id) ? states[id] : undefined;

/**
 * The sound as it is after some presses: what they change is as in the second sound, the rest as in
 * the first.
 */
function after(
  rig: Rig,
  from: Sound,
  to: Sound,
  pressed: readonly Press[],
  hosts: ReadonlyMap<string, string[]>,
): Sound {
  const [a, b] = [effectiveSound(rig, from), effectiveSound(rig, to)];
  const states = { ...a.states };
  for (const p of pressed) {
    for (const id of hosts.get(p.control === undefined ? p.device : `control ${p.control}`) ?? []) {
      const state = own(b.states, id);
      if (state) states[id] = state;
      else delete states[id];
    }
  }
  return { ...a, states };
}

/**
 * The order of presses from one sound to another in which the level rises least above the louder of
 * the two, at any destination. Found by evaluating the rig after every press; up to four presses
 * every order is tried.
 */
export function sequenceOf(rig: Rig, from: Sound, to: Sound): Sequence {
  const { presses } = pressesBetween(rig, from, to);
  const reach = new Map<string, string[]>();
  for (const p of presses) {
    const key = p.control === undefined ? p.device : `control ${p.control}`;
    const inside = (id: string): string[] =>
      rig.devices.filter((d) => d.host === id).flatMap((d) => [d.id, ...inside(d.id)]);
    const moved =
      p.control === undefined
        ? [p.device, ...inside(p.device)]
        : (rig.controls?.find((c) => c.id === p.control)?.assigns.map((x) => x.device) ?? []);
    // A press that calls the sound changes everything that no other press does.
    reach.set(
      key,
      p.calls
        ? rig.devices
            .map((d) => d.id)
            .filter(
              (id) =>
                !presses.some(
                  (q) =>
                    q !== p &&
                    (q.device === id ||
                      rig.controls
                        ?.find((c) => c.id === q.control)
                        ?.assigns.some((x) => x.device === id)),
                ),
            )
        : moved,
    );
  }
  const levels = levelsNear(rig, effectiveSound(rig, from));
  const level = (s: Sound) =>
    levels(s).map((d) => ({ device: d.device, level: d.levelDbu?.normal ?? -Infinity }));
  const [start, end] = [from, to].map((s) => level(effectiveSound(rig, s))) as [
    ReturnType<typeof level>,
    ReturnType<typeof level>,
  ];
  const ceiling = new Map(
    start.map((s, i) => [s.device, Math.max(s.level, entryAt(end, i).level)]),
  );
  const known = new Map<string, { db: number; at: string | null }>();
  const worst = (pressed: readonly Press[]) => {
    const key = pressed
      .map((p) => presses.indexOf(p))
      .sort((a, b) => a - b)
      .join();
    let found = known.get(key);
    if (!found) {
      const over = level(after(rig, from, to, pressed, reach))
        .map((x) => ({ at: x.device, db: x.level - (ceiling.get(x.device) ?? 0) }))
        .filter((x) => Number.isFinite(x.db));
      const top = over.sort((a, b) => b.db - a.db)[0];
      known.set(key, (found = top ? { db: top.db, at: top.at } : { db: -Infinity, at: null }));
    }
    return found;
  };
  const steps = (order: readonly Press[]) =>
    order.map((press, i) => {
      const w = i === order.length - 1 ? { db: 0, at: null } : worst(order.slice(0, i + 1));
      return { press, loudestDb: Math.max(0, w.db), at: w.db > 0.1 ? w.at : null };
    });
  const over = (order: readonly Press[]) => Math.max(0, ...steps(order).map((s) => s.loudestDb));
  const best =
    presses.length <= TRIED_UP_TO
      ? entryAt(
          orders(presses).sort((a, b) => over(a) - over(b)),
          0,
        )
      : greedy(presses, worst);
  return { steps: steps(best), overshootDb: over(best) };
}

function orders<T>(list: readonly T[]): T[][] {
  return list.length < 2
    ? [[...list]]
    : list.flatMap((x, i) =>
        orders([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]),
      );
}

function greedy(
  presses: readonly Press[],
  worst: (pressed: readonly Press[]) => { db: number },
): Press[] {
  const done: Press[] = [];
  while (done.length < presses.length)
    done.push(
      entryAt(
        presses
          .filter((p) => !done.includes(p))
          .sort((a, b) => worst([...done, a]).db - worst([...done, b]).db),
        0,
      ),
    );
  return done;
}
