import { at, sure } from '../outcome';
import type { Rig } from '../rig/schema';
import { atEar, type Effects } from './effects';
import { Finder, type Evidence, type Noticing } from './finder/finder';
import { allOdds, type Known, NOTHING_KNOWN } from './finder/odds';
import type { Test } from './finder/tests';
import { bitOf, SYMPTOM_IDS } from './symptoms';

/** How hard it is: by how many faults would be noticed in the same way. */
export const DIFFICULTIES = {
  easy: { words: 'Easy', upTo: 12 },
  usual: { words: 'Usual', upTo: 45 },
  hard: { words: 'Hard', upTo: Infinity },
} as const;
export type Difficulty = keyof typeof DIFFICULTIES;

/** Trouble that was hidden in a rig: the fault, by number, and what the player complains of. */
export interface Trouble {
  fault: number;
  complaint: Noticing;
  /** How many faults would be noticed so, and the seconds that the best strategy needs on average. */
  alike: number;
  bestSeconds: number;
}

/**
 * Hides a fault, likelier ones more often, such that what is noticed of it has the difficulty that is
 * wished. `random` gives numbers from 0 up to 1. Nothing where the rig has no such fault.
 */
export function hide(
  rig: Rig,
  effects: Effects,
  difficulty: Difficulty,
  random: () => number,
  known: Known = NOTHING_KNOWN,
): Trouble | undefined {
  const odds = allOdds(effects.faults, known);
  const order = effects.faults
    .map((_, f) => ({ f, key: Math.log(1 - random()) / at(odds, f) }))
    .sort((a, b) => b.key - a.key);
  const limits = Object.values(DIFFICULTIES).map((d) => d.upTo);
  const { upTo } = DIFFICULTIES[difficulty];
  const least = limits[limits.indexOf(upTo) - 1] ?? 0;
  let nearest: Trouble | undefined;
  for (const { f } of order) {
    const complaint = complaintOf(effects, f, random);
    if (!complaint) continue;
    const finder = new Finder(rig, effects, evidenceOf(complaint), known);
    const { candidates, seconds } = finder.find();
    const trouble = { fault: f, complaint, alike: candidates.length, bestSeconds: seconds };
    if (candidates.length > least && candidates.length <= upTo) return trouble;
    nearest ??= trouble;
  }
  return nearest;
}

/** Numbers from 0 up to 1 that a text and a number make the same each time (a linear congruence). */
export function diceOf(text: string, number: number): () => number {
  let state = [...text].reduce((h, c) => (h * 31 + c.charCodeAt(0)) % MODULUS, 17 + 7919 * number);
  return () => {
    state = (state * 1_103_515_245 + 12_345) % MODULUS;
    return state / MODULUS;
  };
}
const MODULUS = 2 ** 31;

/** What the player says who has the fault: somewhere where something is noticed. */
function complaintOf(effects: Effects, f: number, random: () => number): Noticing | undefined {
  const places = effects.sounds.flatMap((sound, s) =>
    effects.ears.flatMap((ear, e) => {
      const bits = atEar(effects, f, s, e);
      return bits ? [{ sound: sound.id, ear: ear.device, bits }] : [];
    }),
  );
  if (!places.length) return undefined;
  const { sound, ear, bits } = sure(places[Math.floor(random() * places.length)]);
  return { sound, ear, what: SYMPTOM_IDS.filter((id) => bits & bitOf(id)) };
}

export const evidenceOf = (complaint: Noticing): Evidence => ({
  sound: complaint.sound,
  noticed: [complaint],
  answers: [],
  cannot: [],
});

/** One test that a trainee made: what it showed, what it took, and whether it could tell anything. */
export interface Made {
  test: Test;
  answer: string;
  /** How many were possible before and after. */
  before: number;
  after: number;
  /** Why it was wasted, where it was. */
  wasted?: string;
}

/** What a test shows in a rig with the hidden fault, and what it told. */
export function makeTest(
  rig: Rig,
  effects: Effects,
  trouble: Trouble,
  evidence: Evidence,
  id: string,
): Made | undefined {
  const finder = new Finder(rig, effects, evidence);
  const test = finder.test(id);
  if (!test) return undefined;
  const answer = test.answer(trouble.fault);
  const before = finder.find().candidates.length;
  const told = { ...evidence, answers: [...evidence.answers, { test: id, answer }] };
  const after = new Finder(rig, effects, told).find().candidates.length;
  return {
    test,
    answer,
    before,
    after,
    ...(before === after && {
      wasted: `all ${before} that were possible would have shown "${answer}"`,
    }),
  };
}

/** How a trainee did: seconds of all tests against what the best strategy needs on average. */
export interface Score {
  seconds: number;
  bestSeconds: number;
  /** 100 for as quick as the best strategy or quicker, less in proportion, 0 where the guess was wrong. */
  points: number;
  right: boolean;
}

/** The score of a guess after some tests. What nothing tells apart from the fault counts as right. */
export function scoreOf(
  effects: Effects,
  trouble: Trouble,
  made: readonly Made[],
  guess: number,
): Score {
  const seconds = made.reduce((s, m) => s + m.test.seconds, 0);
  const shares = (a: number, b: number) => {
    const [one, two] = [effects.faults[a], effects.faults[b]];
    return (
      one !== undefined &&
      two !== undefined &&
      one.sort === two.sort &&
      one.subjects.join() === two.subjects.join()
    );
  };
  const right = guess === trouble.fault || shares(guess, trouble.fault);
  const points = right
    ? Math.round(100 * Math.min(1, Math.max(trouble.bestSeconds, 1) / Math.max(seconds, 1)))
    : 0;
  return { seconds, bestSeconds: trouble.bestSeconds, points, right };
}
