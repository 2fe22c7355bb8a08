import { type Job, kindOf } from '../kinds';
import type { Character, Device, Sound } from '../rig/schema';
import { jobOf, METRES, type Waiting } from './making';
import type { Wiring } from './ways/amp-parts';
import { allOf } from '../units';

/** A loop switcher of the start, and what hangs in each of its loops. */
export interface Switching {
  switcher: Device;
  loops: readonly (readonly Device[])[];
}

/** What stays in front of a switcher: a tuner, and what wants the bare pickup before any buffer. */
export const staysInFront = (d: Device): boolean =>
  jobOf(d) === 'tuner' ||
  jobOf(d) === 'buffer' ||
  kindOf(d.kind).wantsBarePickup === true ||
  d.kind === 'splitter-tuner' ||
  d.kind === 'pickup-simulator';

/** Groups of neighbours for so many loops at most: those that differ in the fewest sounds come together. */
export function sharedLoops(
  row: readonly Device[],
  sounds: readonly Sound[],
  most: number,
): Device[][] {
  const isOn = (d: Device, s: Sound) => s.states[d.id]?.engaged === true;
  const differ = (a: readonly Device[], b: readonly Device[]) =>
    Math.max(
      ...a.flatMap((x) => b.map((y) => sounds.filter((s) => isOn(x, s) !== isOn(y, s)).length)),
    );
  let groups = row.map((d) => [d]);
  while (groups.length > most) {
    const [best] = groups
      .slice(1)
      .map((g, i) => ({ i, cost: differ(groups[i] ?? [], g) }))
      .sort((a, b) => a.cost - b.cost || b.i - a.i);
    if (!best) break;
    const { i } = best;
    groups = [
      ...groups.slice(0, i),
      [...(groups[i] ?? []), ...(groups[i + 1] ?? [])],
      ...groups.slice(i + 2),
    ];
  }
  return groups;
}

/** Pedals hung in the loops of a switcher, which then is one of the row; nothing where none needs it. */
export function hangInLoops(
  { making, choices, brief, other }: Wiring,
  from: Waiting,
  row: readonly Device[],
  sounds: readonly Sound[],
): { at: Waiting; switching?: Switching } {
  const free = brief.means?.switching === 'loops-free';
  const kind = kindOf(free ? 'loop-switcher' : 'loop-switcher-fixed');
  const front = row.filter(staysInFront);
  const held = row.filter((d) => !front.includes(d));
  if (!held.length) return { at: making.through(from, row) };
  const asFront = other.has('tuner-place') ? front.filter((d) => jobOf(d) !== 'tuner') : front;
  const behind = front.filter((d) => !asFront.includes(d));
  // Wide loops of a switcher are left for what is wide.
  const loops = sharedLoops(held, sounds, free ? 6 : (kind.loops?.length ?? 0));
  const before = making.through(from, asFront);
  const switcher = making.add(kind.id, 'Loop switcher', { place: 'floor' });
  making.join(before.left, { device: switcher.id, jack: 'in' }, before.metres);
  for (const [i, group] of loops.entries()) {
    const jack = (id: string) => ({ device: switcher.id, jack: id });
    const out = making.through({ left: jack(`send${i + 1}`), metres: 0.5 }, group);
    making.join(out.left, jack(`return${i + 1}`), 0.5);
  }
  const names = (group: readonly Device[]) => allOf(group.map((d) => d.name));
  for (const [i, group] of loops.entries()) {
    const others = sounds.filter((s) =>
      group.some(
        (d) =>
          (s.states[d.id]?.engaged ?? false) !== (s.states[group[0]?.id ?? '']?.engaged ?? false),
      ),
    );
    choices.take(`loop-${i + 1}`, `Loop ${i + 1}`, [['so', names(group)]], 'so', () =>
      group.length === 1
        ? 'A loop of its own: switched by itself.'
        : others.length
          ? 'They share a loop, as there are more pedals than loops; they differ in ' +
            `${others.map((s) => s.name).join(', ')} only, where a foot does the rest.`
          : 'They share a loop: they are on and off together in every sound.',
    );
  }
  if (front.length)
    choices.take(
      'before-loops',
      'In front of the switcher',
      [['so', names(front)]],
      'so',
      () =>
        'A tuner has to hear in every sound, and what wants the bare pickup stands before any buffer.',
    );
  const at: Waiting = { left: { device: switcher.id, jack: 'out' }, metres: METRES.patch };
  return { at: making.through(at, behind), switching: { switcher, loops } };
}

/**
 * Sounds told to the switcher: a pedal in a loop is on always, and its loop in the sounds that want
 * it; where a loop is shared by what is not wanted together, the pedal itself is off.
 */
export function soundsByLoops(
  sounds: readonly Sound[],
  { switcher, loops }: Switching,
  { choices, brief }: Pick<Wiring, 'choices' | 'brief'>,
): Sound[] {
  const held = loops.flat();
  const free = switcher.kind === 'loop-switcher';
  return sounds.map((s, n) => {
    const isOn = (d: Device) => s.states[d.id]?.engaged === true;
    const used = loops.flatMap((group, i) => (group.some(isOn) ? [i + 1] : []));
    const states = Object.fromEntries(
      Object.entries(s.states).filter(([id]) => !held.some((d) => d.id === id)),
    );
    const off: [string, { engaged: boolean }][] = loops.flatMap((group) =>
      group.some(isOn)
        ? group
            .filter((d) => !isOn(d))
            .map((d): [string, { engaged: boolean }] => [d.id, { engaged: false }])
        : [],
    );
    const order = free ? withBoost(used, loops, s, brief.sounds[n]?.character, choices) : used;
    const settings = free
      ? { order: order.join(' ') }
      : Object.fromEntries(loops.map((_, i) => [`loop${i + 1}`, used.includes(i + 1)]));
    return {
      ...s,
      states: { ...states, ...Object.fromEntries(off), [switcher.id]: { settings } },
    };
  });
}

const DIRT: readonly Job[] = ['drive', 'fuzz'];

/**
 * The order of the loops of one sound, where they can come in any: a boost behind what drives makes it
 * louder, in front of it dirtier. Asked only where a boost and a drive are on in loops of their own.
 */
function withBoost(
  used: readonly number[],
  loops: Switching['loops'],
  sound: Sound,
  character: Character | undefined,
  choices: Wiring['choices'],
): readonly number[] {
  const has = (loop: number, jobs: readonly Job[]) =>
    (loops[loop - 1] ?? []).some(
      (d) => jobs.includes(jobOf(d)) && sound.states[d.id]?.engaged === true,
    );
  const boosts = used.filter((l) => has(l, ['boost']) && !has(l, DIRT));
  const dirt = used.filter((l) => has(l, DIRT));
  const [boost] = boosts;
  const [first, last] = [dirt[0], dirt.at(-1)];
  if (boost === undefined || first === undefined || last === undefined) return used;
  const place = choices.take(
    `boost-${sound.id}`,
    `The boost in ${sound.name}`,
    [
      ['behind', 'behind what drives: louder'],
      ['front', 'in front of it: dirtier'],
    ],
    character === 'edge' || character === 'crunch' ? 'front' : 'behind',
    (taken) =>
      taken === 'behind'
        ? 'Loops come in any order here; behind what drives, a boost lifts the sound over the band.'
        : 'Loops come in any order here; in front, a boost drives what follows harder.',
  );
  const others = used.filter((l) => l !== boost);
  const at = place === 'behind' ? others.indexOf(last) + 1 : others.indexOf(first);
  return [...others.slice(0, at), boost, ...others.slice(at)];
}
