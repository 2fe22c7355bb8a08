import { at, sure } from '../../outcome';

/**
 * A question that can be asked of what may be wrong: `answers[i]` is what it would say if cause i
 * were it. Seconds it takes.
 */
export interface Question {
  seconds: number;
  answers: readonly (string | number)[];
}

/** Causes that are still possible, by number, with their odds, which need not add up to one. */
interface Left {
  causes: readonly number[];
  odds: readonly number[];
}

/** Up to so many causes and questions the best order is worked out exactly. */
export const EXACT_CAUSES = 10;
export const EXACT_QUESTIONS = 12;

/** Causes by what a question would say of them. */
function parts(q: Question, causes: readonly number[]): number[][] {
  const by = new Map<string | number, number[]>();
  for (const c of causes) {
    const answer = at(q.answers, c);
    const part = by.get(answer);
    if (part) part.push(c);
    else by.set(answer, [c]);
  }
  return [...by.values()];
}

const sumOf = (odds: readonly number[], causes: readonly number[]): number =>
  causes.reduce((s, c) => s + at(odds, c), 0);

/** What is not known of which it is, in bits. */
function doubt(odds: readonly number[], causes: readonly number[]): number {
  const all = sumOf(odds, causes);
  return causes.reduce((h, c) => {
    const p = at(odds, c) / all;
    return p > 0 ? h - p * Math.log2(p) : h;
  }, 0);
}

/** The question that settles most doubt for its time; nothing where none settles any. */
export function quickest(
  questions: readonly Question[],
  { causes, odds }: Left,
): number | undefined {
  const all = sumOf(odds, causes);
  const before = doubt(odds, causes);
  let best: { index: number; worth: number } | undefined;
  questions.forEach((q, index) => {
    const split = parts(q, causes);
    if (split.length < 2) return;
    const after = split.reduce((s, p) => s + (sumOf(odds, p) / all) * doubt(odds, p), 0);
    const worth = (before - after) / q.seconds;
    if (!best || worth > best.worth) best = { index, worth };
  });
  return best?.index;
}

/**
 * Seconds until it is known, on average, when the quickest question is asked each time. What no
 * question tells apart costs nothing more here: mending tells.
 */
function greedySeconds(questions: readonly Question[], left: Left): number {
  const next = left.causes.length > 1 ? quickest(questions, left) : undefined;
  if (next === undefined) return 0;
  const q = at(questions, next);
  const all = sumOf(left.odds, left.causes);
  return parts(q, left.causes).reduce(
    (s, p) =>
      s + (sumOf(left.odds, p) / all) * greedySeconds(questions, { causes: p, odds: left.odds }),
    q.seconds,
  );
}

/** Seconds of the best order of questions, on average, and its first question. */
export function best(
  questions: readonly Question[],
  left: Left,
): { seconds: number; question?: number } {
  const known = new Map<string, { seconds: number; question?: number }>();
  const solve = (causes: readonly number[]): { seconds: number; question?: number } => {
    if (causes.length < 2) return { seconds: 0 };
    const key = causes.join();
    const hit = known.get(key);
    if (hit) return hit;
    const all = sumOf(left.odds, causes);
    let found: { seconds: number; question?: number } = { seconds: Infinity };
    questions.forEach((q, question) => {
      const split = parts(q, causes);
      if (split.length < 2) return;
      const seconds = split.reduce(
        (s, p) => s + (sumOf(left.odds, p) / all) * solve(p).seconds,
        q.seconds,
      );
      if (seconds < found.seconds) found = { seconds, question };
    });
    if (found.question === undefined) found = { seconds: 0 };
    known.set(key, found);
    return found;
  };
  return solve(left.causes);
}

/** How many of the quickest questions are looked at further, where there are too many for the best. */
const LOOKED_AT = 6;

/**
 * The next question and the seconds to expect from here. Few causes: the best order. Many: each of
 * the most telling questions is followed by the quickest ones to the end, and the one with the least
 * time to expect is taken, which is never longer than always asking the quickest.
 */
export function nextQuestion(
  questions: readonly Question[],
  left: Left,
): { seconds: number; question?: number } {
  const telling = questions
    .map((q, index) => ({ q, index }))
    .filter(({ q }) => parts(q, left.causes).length > 1);
  if (left.causes.length < 2 || !telling.length) return { seconds: 0 };
  const back = (found: { seconds: number; question?: number }) => ({
    ...found,
    ...(found.question !== undefined && { question: at(telling, found.question).index }),
  });
  const list = telling.map(({ q }) => q);
  if (left.causes.length <= EXACT_CAUSES && list.length <= EXACT_QUESTIONS)
    return back(best(list, left));
  const all = sumOf(left.odds, left.causes);
  const before = doubt(left.odds, left.causes);
  const worth = (q: Question) =>
    (before -
      parts(q, left.causes).reduce(
        (s, p) => s + (sumOf(left.odds, p) / all) * doubt(left.odds, p),
        0,
      )) /
    q.seconds;
  const tried = telling
    .map(({ q, index }) => ({ q, index, worth: worth(q) }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, LOOKED_AT)
    .map(({ q, index }) => ({
      question: index,
      seconds: parts(q, left.causes).reduce(
        (s, p) =>
          s + (sumOf(left.odds, p) / all) * greedySeconds(list, { causes: p, odds: left.odds }),
        q.seconds,
      ),
    }));
  return sure(tried.sort((a, b) => a.seconds - b.seconds)[0]);
}
