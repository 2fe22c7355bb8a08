import { effectiveSound, heardIn } from '../control';
import { kindOf, settingWith } from '../kinds';
import { type Presses, pressesBetween } from '../midi';
import { done, type Outcome, refused, sure } from '../outcome';
import { applyEdits } from '../rig/apply';
import { deviceOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { showChange } from '../units';
import { type OnePress, type Try } from './press-ways';
import { byControl } from './press-control';
import { byMessages } from './press-messages';
import { byLoops } from './press-loops';

const count = (p: Presses): number => p.presses.length + p.turns.length;

/**
 * Ways to bring a wanted change down to one press, fewest left-over presses first; each was tried
 * on a copy, and those that gain nothing are left out.
 */
export function proposeOnePress(rig: Rig, from: string, to: string): Outcome<OnePress[]> {
  const [a, b] = [from, to].map((id) => rig.sounds.find((s) => s.id === id));
  if (!a || !b) return refused('One of the two sounds is not in this rig.');
  const before = pressesBetween(rig, a, b);
  if (count(before) <= 1)
    return refused(
      `From ${a.name} to ${b.name} it takes ${count(before) === 0 ? 'nothing' : 'one press'} as it is.`,
    );
  const tries = [
    byControl(rig, a, b, before),
    byMessages(rig, before),
    byLoops(rig, before),
    byLoopsAndMessages(rig, before),
  ];
  const found = tries
    .flatMap((t): OnePress[] => {
      const made = t && applyEdits(rig, t.edits);
      if (!t || !made?.ok) return [];
      const after = pressesBetween(
        made.value.rig,
        ...([a, b].map((s) => sure(made.value.rig.sounds.find((x) => x.id === s.id))) as [
          Sound,
          Sound,
        ]),
      );
      return count(after) < count(before)
        ? [{ ...t, before, after, changes: audible(rig, made.value.rig) }]
        : [];
    })
    .sort((x, y) => count(x.after) - count(y.after) || x.edits.length - y.edits.length);
  return found.length
    ? done(found)
    : refused(
        `Nothing in this rig brings ${a.name} to ${b.name} below ${count(before)} presses: ` +
          'what has to change is neither in a loop, nor in a host, nor set by messages, and ' +
          'cannot be put there.',
      );
}

/** What edits change at the destinations, in any sound, in words. */
function audible(before: Rig, after: Rig): string[] {
  const found: string[] = [];
  for (const s of before.sounds) {
    const [one, two] = [
      heardIn(before, effectiveSound(before, s)),
      heardIn(after, effectiveSound(after, sure(after.sounds.find((x) => x.id === s.id)))),
    ];
    for (const d of one) {
      const e = two.find((x) => x.device === d.device);
      const [x, y] = [d.levelDbu?.normal ?? null, e?.levelDbu?.normal ?? null];
      if ((x === null) !== (y === null))
        found.push(`${d.name} ${y === null ? 'falls silent' : 'is heard'} in ${s.name}`);
      else if (x !== null && y !== null && Math.abs(y - x) > 0.3)
        found.push(`${d.name} ${showChange(y - x)} in ${s.name}`);
    }
  }
  return found;
}

/**
 * Both together: pedals into loops, and the switcher and whatever else knows MIDI called by one
 * controller.
 */
function byLoopsAndMessages(rig: Rig, before: Presses): Try | undefined {
  const loops = byLoops(rig, before);
  const made = loops && applyEdits(rig, loops.edits);
  if (!loops || !made?.ok) return undefined;
  const first = loops.edits.find((e) => e.edit === 'insertInLead');
  const switcher =
    first?.edit === 'insertInLead'
      ? first.device.id
      : rig.devices.find((d) => settingWith(kindOf(d.kind), 'loop order'))?.id;
  const rest = {
    presses: [
      ...before.presses.filter((p) => deviceOf(made.value.rig, p.device)),
      ...(switcher ? [{ device: switcher, changes: [] }] : []),
    ],
    turns: before.turns,
  };
  const messages = byMessages(made.value.rig, rest);
  return (
    messages && {
      words: `${loops.words}, and let it be called with the rest`,
      why: `${loops.why} ${messages.why}`,
      edits: [...loops.edits, ...messages.edits],
    }
  );
}
