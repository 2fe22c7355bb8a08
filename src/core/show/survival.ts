import type { PromiseOf, Rig } from '../rig/schema';
import { promiseWords } from '../rig/promise-words';
import type { Drill, Hit, Loss } from './drill';
import type { Rescue } from './rescue';
import { doesFor, type SparePlan } from './spares';

/** How a promise that sound comes back stands in a drill. */
export interface Survival {
  promise: string;
  words: string;
  /** Seconds until the destination hears something again, at worst; null where no way was found. */
  seconds: number | null;
  kept: boolean;
  /** What is done then, where it takes longest; nothing where it is heard all the same. */
  by: string | undefined;
  /** A sound in which no way was found, or in which it takes longest. */
  sound: string | undefined;
}

/**
 * Every promise that sound comes back when a device dies, held against a drill: with what hands and the
 * planned spares do, within some seconds, in every sound of the promise that the set plays. A device that
 * needs no power does not die; it is held against whatever else can fail in it.
 */
export const survivals = (rig: Rig, drill: Drill, plan: SparePlan, seconds: number): Survival[] =>
  (rig.promises ?? []).flatMap((p) =>
    p.type === 'survives' ? [survival(rig, drill, plan, seconds, p)] : [],
  );

function survival(
  rig: Rig,
  drill: Drill,
  plan: SparePlan,
  limit: number,
  promise: PromiseOf<'survives'>,
): Survival {
  const { device, destination, sounds } = promise;
  const spares = plan.take.map((i) => i.spare);
  const can = (w: Rescue) => !w.spare || spares.some((s) => w.spare && doesFor(s, w.spare));
  const silences = lossesOf(drill, device).flatMap((l) =>
    l.hits.filter((h: Hit) => h.ear === destination).flatMap((h) => h.bySound),
  );
  const asked = silences.filter(({ sound }) => !sounds?.length || sounds.includes(sound));
  const each = asked.map(({ sound, ways }) => ({ sound, way: ways.find(can) }));
  const worst =
    each.find((e) => !e.way) ??
    each.reduce<(typeof each)[number] | undefined>(
      (a, b) => (a?.way && b.way && b.way.seconds <= a.way.seconds ? a : b),
      undefined,
    );
  const took = worst ? (worst.way?.seconds ?? null) : 0;
  return {
    promise: promise.id,
    words: promiseWords(rig, promise),
    seconds: took,
    kept: took !== null && took <= limit,
    by: worst?.way?.words,
    sound: worst?.sound,
  };
}

/** Losses by the death of a device; where it cannot die, by whatever fails in it alone. */
function lossesOf(drill: Drill, device: string): Loss[] {
  const dead = drill.losses.filter((l) => l.fault.id === `dead ${device}`);
  return dead.length ? dead : drill.losses.filter((l) => l.fault.subjects.join() === device);
}
