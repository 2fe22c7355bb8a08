import { at, sure } from '../../outcome';
import type { Rig } from '../../rig/schema';
import { atEar, type Effects } from '../effects';
import { SYMPTOM_IDS, type SymptomId, bitOf } from '../symptoms';
import { allOdds, type Known, NOTHING_KNOWN } from './odds';
import { nextQuestion, type Question } from './search';
import { type Test, testsOf } from './tests';

/** What somebody noticed at one destination in one sound; an empty list is "all fine". */
export interface Noticing {
  ear: string;
  sound: string;
  what: SymptomId[];
}

/** What is known so far: what was noticed, what tests said, and what cannot be done now. */
export interface Evidence {
  sound: string;
  noticed: Noticing[];
  /** A test counts in the sound in which it was made; in the one that is on where none is named. */
  answers: { test: string; answer: string; sound?: string }[];
  cannot: string[];
}

/** A fault, or two, that would explain everything. */
export interface Candidate {
  faults: number[];
  /** Share of all that is possible, from 0 to 1. */
  share: number;
  perThousand: number;
}

export interface Found {
  candidates: Candidate[];
  /** Whether one fault alone explains nothing of it, so that pairs were looked at. */
  pairs: boolean;
  next?: { test: Test; answers: string[] };
  /** Seconds until it is known which, to expect from here; then mending. */
  seconds: number;
  /** Nothing that can be done now tells the places apart. */
  alike: boolean;
  /** All that is left is at this box or lead. */
  at?: string;
}

/** Seconds that every test takes besides: reading it, getting there, saying what it showed. */
const TURN_SECONDS = 40;
/** Pairs are made of this many of the likeliest faults that explain part of it. */
const PAIRED = 60;
/** Candidates that are told apart by tests; the rest is less likely than these together. */
const MOST_CAUSES = 80;

/**
 * Narrows down what is wrong. The idea: every fault says what would be noticed and what each test
 * would show; those that say all that was noticed and shown are left, likeliest first. The next test
 * is the one after which least time is to be expected. A second fault is considered only where no
 * single one explains everything.
 */
export class Finder {
  private readonly tests: Map<string, Test>;
  private readonly testsIn = new Map<string, Map<string, Test>>();
  private readonly odds: number[];

  constructor(
    private readonly rig: Rig,
    private readonly effects: Effects,
    readonly evidence: Evidence,
    known: Known = NOTHING_KNOWN,
  ) {
    this.tests = this.testsOfSound(evidence.sound);
    this.odds = allOdds(effects.faults, known);
  }

  find(): Found {
    const { effects, evidence } = this;
    const singles = effects.faults.map((_, f) => f).filter((f) => this.explains([f]));
    const pairs = singles.length ? [] : this.pairs();
    const sets = singles.length ? singles.map((f) => [f]) : pairs;
    const weights = sets.map((s) => s.reduce((p, f) => (p * at(this.odds, f)) / 1000, 1000));
    const all = weights.reduce((a, b) => a + b, 0);
    const candidates = sets
      .map((faults, i) => ({
        faults,
        share: at(weights, i) / all,
        perThousand: at(weights, i),
      }))
      .sort((a, b) => b.share - a.share);
    const causes = this.toTellApart(candidates).slice(0, MOST_CAUSES);
    const done = new Set([...evidence.answers.map((a) => a.test), ...evidence.cannot]);
    const tests = [...this.tests.values()].filter((t) => !done.has(t.id));
    const questions = tests.map((t): Question => ({
      seconds: t.seconds + TURN_SECONDS,
      answers: causes.map((c) => this.answerOf(t, c.faults)),
    }));
    const next = nextQuestion(questions, {
      causes: causes.map((_, i) => i),
      odds: causes.map((c) => c.share),
    });
    const test = next.question === undefined ? undefined : at(tests, next.question);
    return {
      candidates,
      pairs: !singles.length && pairs.length > 0,
      ...(test && {
        next: {
          test,
          answers: [...new Set(causes.map((c) => this.answerOf(test, c.faults)))],
        },
      }),
      seconds: next.seconds,
      alike: !test && causes.length > 1,
      ...(causes.length === 1 && this.placeOf(sure(causes[0]).faults)),
    };
  }

  private placeOf(faults: readonly number[]): { at: string } {
    return { at: sure(sure(this.effects.faults[sure(faults[0])]).subjects[0]) };
  }

  /**
   * What tests must tell apart: places. When all that is left is at one box or lead, nothing more need be
   * known; what is wrong there is mended one after the other, the likeliest first.
   */
  private toTellApart(candidates: readonly Candidate[]): Candidate[] {
    const place = (f: number) => sure(sure(this.effects.faults[f]).subjects[0]);
    const by = new Map<string, Candidate>();
    for (const c of candidates) {
      const key = c.faults.map(place).sort().join(' ');
      const held = by.get(key);
      if (held) held.share += c.share;
      else by.set(key, { ...c });
    }
    return [...by.values()].sort((a, b) => b.share - a.share);
  }

  /** A test by its id, and what it could show under what is still possible. */
  test(id: string): Test | undefined {
    return this.tests.get(id);
  }

  /** Everything that can be tried. */
  allTests(): Test[] {
    return [...this.tests.values()];
  }

  /** Whether faults together say all that was noticed, and all that tests said. */
  private explains(faults: readonly number[]): boolean {
    return (
      this.evidence.noticed.every((n) => matches(n, this.bitsOf(n, faults))) &&
      this.evidence.answers.every((a) => this.agrees(a, faults))
    );
  }

  private agrees({ test, answer, sound }: Evidence['answers'][number], faults: readonly number[]) {
    const t = this.testsOfSound(sound ?? this.evidence.sound).get(test);
    return !t || this.answerOf(t, faults) === answer;
  }

  /** Everything that can be tried while a sound is on. */
  private testsOfSound(id: string): Map<string, Test> {
    const { rig, effects } = this;
    const sound = Math.max(
      0,
      effects.sounds.findIndex((s) => s.id === id),
    );
    let tests = this.testsIn.get(id);
    if (!tests)
      this.testsIn.set(
        id,
        (tests = new Map(testsOf({ rig, effects, sound }).map((t) => [t.id, t]))),
      );
    return tests;
  }

  /**
   * Where nothing explains everything: what, taken back alone, leaves something possible, as numbers of
   * what was noticed and of the answers.
   */
  doubtful(): { noticed: number[]; answers: number[] } {
    const { noticed, answers } = this.evidence;
    const without = (change: Partial<Evidence>) =>
      new Finder(this.rig, this.effects, { ...this.evidence, ...change }).hasAny();
    return {
      noticed: noticed.flatMap((_, i) =>
        without({ noticed: noticed.filter((__, k) => k !== i) }) ? [i] : [],
      ),
      answers: answers.flatMap((_, i) =>
        without({ answers: answers.filter((__, k) => k !== i) }) ? [i] : [],
      ),
    };
  }

  private hasAny(): boolean {
    return this.effects.faults.some((_, f) => this.explains([f]));
  }

  private bitsOf({ ear, sound }: Noticing, faults: readonly number[]): number {
    const s = this.effects.sounds.findIndex((x) => x.id === sound);
    const e = this.effects.ears.findIndex((x) => x.device === ear);
    if (s < 0 || e < 0) return 0;
    return joined(faults.map((f) => atEar(this.effects, f, s, e)));
  }

  /** What a test shows under several faults: whatever one of them alone makes it show. */
  private answerOf(test: Test, faults: readonly number[]): string {
    const answers = faults.map((f) => test.answer(f));
    const usual = USUAL.find((u) => answers.includes(u));
    return answers.find((a) => a !== usual) ?? sure(answers[0]);
  }

  /** Two faults that explain together what neither does alone, the likeliest first. */
  private pairs(): number[][] {
    const part = this.effects.faults
      .map((_, f) => f)
      .filter((f) =>
        this.evidence.noticed.some((n) => n.what.length > 0 && matches(n, this.bitsOf(n, [f]))),
      )
      .sort((a, b) => at(this.odds, b) - at(this.odds, a))
      .slice(0, PAIRED);
    return part.flatMap((a, i) =>
      part.slice(i + 1).flatMap((b) => (this.explains([a, b]) ? [[a, b]] : [])),
    );
  }
}

/** What a test shows when nothing is wrong with what it looks at. */
const USUAL = ['all fine', 'lit', 'as it should', 'the right one', 'no change'];

/** What is noticed of two faults at once: silence hides all else but noises. */
function joined(bits: readonly number[]): number {
  const all = bits.reduce((a, b) => a | b, 0);
  if (!(all & bitOf('silent'))) return all;
  return all & (bitOf('silent') | bitOf('hum') | bitOf('crackle') | bitOf('hiss'));
}

/** What is minor beside what was noticed, so that nobody need name it. */
const MINOR: readonly SymptomId[] = ['thin', 'effect', 'late', 'weaker', 'louder', 'hiss'];

/**
 * Whether what a fault does is what somebody noticed: all that they named is there; and what they did
 * not name is nothing that nobody could miss. Somebody who says "crackle" need not say that it is
 * softer, too. "All fine" is nothing at all.
 */
export function matches({ what }: Pick<Noticing, 'what'>, bits: number): boolean {
  if (!what.length) return bits === 0;
  const named = what.reduce((b, id) => b | bitOf(id), 0);
  if ((named & bits) !== named) return false;
  return SYMPTOM_IDS.every((id) => !(bits & bitOf(id)) || named & bitOf(id) || MINOR.includes(id));
}
