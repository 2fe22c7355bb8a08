import type { Scene } from '../control/scene';
import { differences, hearingOf } from '../control/hearing';
import type { Rig } from '../rig/schema';
import { type Change, runChange } from './change';
import type { Message } from './message';
import { type Mismatch, programKey } from './mismatch';
import { isIdle } from './rehearsal';
import type { Stage } from './stage';
import { type Machine, soundOf } from './stand-in';

/** What comes of it when one message of a change gets lost. */
export interface Lost {
  /** Who gives it. */
  sender: string;
  message: Message;
  /** What then is not as the scene wants it and would be otherwise. */
  off: Mismatch[];
  /** What is heard of that, destination by destination, in words; nothing where nobody hears it. */
  heard: { destination: string; what: string[] }[];
  /** Of the changes that may come next, those after which nothing is left of it, and those that do not heal it. */
  next: { healed: number; of: number; not: string[] };
}

/**
 * For each message of a change: what is not as meant and what is heard where it gets lost at its
 * sender, and whether the next change heals it. Each is simulated: the change without that message,
 * the rig as it then stands, and every change from there.
 */
export function oneLost(rig: Rig, stage: Stage, from: Scene, to: Scene): Lost[] {
  const whole = runChange(stage, from, to, { quiet: true });
  if (whole.traffic.endless) return [];
  const next = stage.orders.scenes
    .filter((s) => s !== to)
    .map((scene) => ({
      scene,
      whole: runChange(stage, to, scene, { quiet: true, start: whole.end }),
    }));
  const listen = (machine: Machine) =>
    hearingOf(
      rig,
      soundOf(
        to,
        [...machine.values()].map((s) => s.values),
      ),
    );
  const meant = listen(whole.end);
  return whole.given.map(({ device, message }, i): Lost => {
    const without = runChange(stage, from, to, { quiet: true, lost: i });
    const off = newIn(without, whole).filter(
      (m) => m.key === programKey(m.device) || !isIdle(stage.memory.intent(to, m.device), m.key),
    );
    const there = off.length ? listen(without.end) : meant;
    const heard = meant.arriving.flatMap(({ name }, k) => {
      const what = off.length ? differences(meant, there, k) : [];
      return what.length ? [{ destination: name, what }] : [];
    });
    const not = off.length
      ? next.filter(({ scene, whole: well }) => {
          const then = runChange(stage, to, scene, { quiet: true, start: without.end });
          return newIn(then, well).length > 0;
        })
      : [];
    return {
      sender: device,
      message,
      off,
      heard,
      next: {
        healed: next.length - not.length,
        of: next.length,
        not: not.map((n) => n.scene.name),
      },
    };
  });
}

/** What is not as meant at the end of one change and was at the end of another. */
const newIn = (then: Change, well: Change): Mismatch[] =>
  then.mismatches.filter((m) => !well.mismatches.some((w) => w.key === m.key));
