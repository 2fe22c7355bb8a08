import { kindOf } from '../kinds';
import type { Device, Rig, Sound } from '../rig/schema';
import { type Flow, type Flowing, runSignal } from '../signal';
import { buildCircuit } from '../circuit';
import { at, sure } from '../outcome';
import { ALONE, isIn, type Share } from '../report/share';
import { type FaultFacts, faultsOf, type Whole, wholeOf } from './faults';
import { type Heard, heardOf, noticed } from './symptoms';

/** A place where somebody listens. */
export interface Ear {
  device: string;
  name: string;
  jacks: readonly string[];
}

/**
 * What every fault of a rig would make noticed: bits of `SYMPTOM_IDS` by fault, sound and ear, in one
 * row after another; and, in the same order, what would be noticed at the far end of each lead.
 */
export interface Effects {
  faults: FaultFacts[];
  sounds: { id: string; name: string }[];
  ears: Ear[];
  leads: { id: string; device: string; jack: string }[];
  atEars: Uint16Array;
  atLeads: Uint16Array;
}

/** Listens to a rig with a fault, sound by sound, and remembers how it is meant. */
export class Listener {
  readonly whole: Whole;
  readonly sounds: readonly Sound[];
  readonly ears: readonly Ear[];
  readonly leads: Effects['leads'];
  private readonly meant = new Map<string, { flowing: Flowing; heard: Heard[] }>();
  private readonly points: { device: string; jacks: readonly string[] }[];

  constructor(readonly written: Rig) {
    this.whole = wholeOf(written);
    this.sounds = this.whole.rig.sounds;
    this.ears = earsOf(this.whole.rig);
    this.leads = this.whole.rig.leads
      .filter((l) => l.type === 'instrument' || l.type === 'balanced' || l.type === 'stereo')
      .map((l) => ({ id: l.id, device: l.from.device, jack: l.from.jack }));
    this.points = [...this.ears, ...this.leads.map((l) => ({ device: l.device, jacks: [l.jack] }))];
  }

  /** A sound as it is meant: what is there, and what is heard of it at ears, then at leads. */
  private asMeant(sound: Sound): { flowing: Flowing; heard: Heard[] } {
    let known = this.meant.get(sound.id);
    if (!known) {
      const flowing = this.run(this.whole, sound);
      known = { flowing, heard: this.points.map((p) => heardOf(flowsAt(flowing, p))) };
      this.meant.set(sound.id, known);
    }
    return known;
  }

  /**
   * What is noticed of a whole that differs from the one that is meant: bits at ears, then at leads.
   * Where nothing else arrives, nothing is.
   */
  noticed(other: Whole, sound: Sound): number[] {
    const { whole, points } = this;
    const stands = other.sound(sound);
    const alike = other.rig === whole.rig && other.plugged === whole.plugged && stands === sound;
    if (alike) return points.map(() => 0);
    const { flowing, heard } = this.asMeant(sound);
    const now = this.run(other, sound, flowing);
    return points.map((p, i) => {
      const [meant, here] = [flowsAt(flowing, p), flowsAt(now, p)];
      const same = here.every((flows, k) => flows === meant[k]);
      return same ? 0 : noticed(sure(heard[i]), heardOf(here));
    });
  }

  /** What arrives at the ears of a whole, as such. */
  hears(other: Whole, sound: Sound): Heard[] {
    const now = this.run(other, sound, this.asMeant(sound).flowing);
    return this.ears.map((e) => heardOf(flowsAt(now, e)));
  }

  /** The same with nothing taken over, for whoever doubts it. */
  hearsAnew(other: Whole, sound: Sound): Heard[] {
    const now = this.run(other, sound);
    return this.ears.map((e) => heardOf(flowsAt(now, e)));
  }

  /** A sound as it is meant, with all that is present in it. */
  flowing(sound: Sound): Flowing {
    return this.asMeant(sound).flowing;
  }

  /** What is meant to arrive at the ears. */
  means(sound: Sound): Heard[] {
    return this.asMeant(sound).heard.slice(0, this.ears.length);
  }

  private run(whole: Whole, sound: Sound, like?: Flowing): Flowing {
    return runSignal(buildCircuit(whole.rig, whole.sound(sound), whole.plugged), {
      like,
      withoutNoise: true,
    });
  }
}

const NOTHING: readonly Flow[] = [];
const flowsAt = (
  flowing: Flowing,
  { device, jacks }: { device: string; jacks: readonly string[] },
): (readonly Flow[])[] =>
  jacks.map((jack) => {
    const net = flowing.circuit.netAt(device, jack);
    const flows = net && flowing.present(net.index).flows;
    return flows?.length ? flows : NOTHING;
  });

const earsOf = (rig: Rig): Ear[] =>
  rig.devices.flatMap((d: Device) => {
    const destination = kindOf(d.kind).destination;
    return destination && destination.hears !== 'tuner'
      ? [{ device: d.id, name: d.name, jacks: destination.jacks }]
      : [];
  });

/** Tells how far long work has come, from 0 to 1; it may be thrown out of to stop. */
export type Tell = (share: number, words: string) => Promise<void>;

/**
 * Every single fault of a rig in every sound, figured by the engine itself on copies that share with
 * the whole rig what the fault leaves alone. Given a share, the others are left at nothing.
 */
export async function effectsOf(
  listener: Listener,
  tell: Tell = () => Promise.resolve(),
  share: Share = ALONE,
): Promise<Effects> {
  const { whole, sounds, ears, leads } = listener;
  const faults = faultsOf(whole);
  const atEars = new Uint16Array(faults.length * sounds.length * ears.length);
  const atLeads = new Uint16Array(faults.length * sounds.length * leads.length);
  for (const [f, fault] of faults.entries()) {
    if (!isIn(share, f)) continue;
    if (Math.floor(f / share.of) % 8 === 0) await tell(f / faults.length, fault.words);
    const broken = fault.change(whole);
    sounds.forEach((sound, s) => {
      const bits = listener.noticed(broken, sound);
      const row = f * sounds.length + s;
      atEars.set(bits.slice(0, ears.length), row * ears.length);
      atLeads.set(bits.slice(ears.length), row * leads.length);
    });
  }
  return {
    faults: faults.map(({ change: _, ...facts }) => facts),
    sounds: sounds.map(({ id, name }) => ({ id, name })),
    ears: [...ears],
    leads: [...leads],
    atEars,
    atLeads,
  };
}

/** What several workers found, each of its share, as one. */
export function joinedEffects(shares: readonly [Effects, ...Effects[]]): Effects {
  const [first, ...others] = shares;
  const whole = { ...first, atEars: first.atEars.slice(), atLeads: first.atLeads.slice() };
  for (const { atEars, atLeads } of others) {
    atEars.forEach((bits, i) => (whole.atEars[i] = (whole.atEars[i] ?? 0) | bits));
    atLeads.forEach((bits, i) => (whole.atLeads[i] = (whole.atLeads[i] ?? 0) | bits));
  }
  return whole;
}

/** What a fault would make noticed by an ear in a sound. */
export const atEar = (e: Effects, fault: number, sound: number, ear: number): number =>
  at(e.atEars, (fault * e.sounds.length + sound) * e.ears.length + ear);

/** What a fault would make noticed where a lead begins, in a sound. */
export const atLead = (e: Effects, fault: number, sound: number, lead: number): number =>
  at(e.atLeads, (fault * e.sounds.length + sound) * e.leads.length + lead);
