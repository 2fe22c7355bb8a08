import fc from 'fast-check';
import { touringRig } from '../../demo';
import { sure } from '../../outcome';
import { anyRig } from '../../testing/any-rig';
import { showRig } from '../../testing/show-rigs';
import { atEar, type Effects, effectsOf, joinedEffects, Listener } from '../effects';
import { faultsOf } from '../faults';
import { bitOf, SYMPTOM_IDS, type SymptomId } from '../symptoms';
import { type Evidence, Finder, matches } from './finder';
import { allOdds, NOTHING_KNOWN, TRADE_SHOWS } from './odds';
import { best, nextQuestion, quickest, type Question } from './search';
import { cases } from '../../testing/cases';

const symptoms = (bits: number): SymptomId[] => SYMPTOM_IDS.filter((id) => bits & bitOf(id));
const evidence = (sound: string, ear: string, what: SymptomId[]): Evidence => ({
  sound,
  noticed: [{ ear, sound, what }],
  answers: [],
  cannot: [],
});

/** What a crew tells of a fault: how it is at every place, in the first sound in which it is noticed. */
function firstNoticed(e: Effects, fault: number): Evidence | undefined {
  for (const [s, { id }] of e.sounds.entries()) {
    const noticed = e.ears.map((ear, k) => ({
      ear: ear.device,
      sound: id,
      what: symptoms(atEar(e, fault, s, k)),
    }));
    if (noticed.some((n) => n.what.length)) return { sound: id, noticed, answers: [], cannot: [] };
  }
  return undefined;
}

/** What one person tells who stands at one place: the first at which something is noticed. */
const atOnePlace = (known: Evidence): Evidence => ({
  ...known,
  noticed: known.noticed.filter((n) => n.what.length).slice(0, 1),
  answers: [],
});

/** All faults of the touring rig, worked out once. */
let touring: Promise<Effects> | undefined;
const touringEffects = () => (touring ??= effectsOf(new Listener(touringRig)));

/** Asks as the finder says, answers as the fault would, until nothing is left to ask. */
function hunt(
  rig: Parameters<typeof effectsOf>[0]['written'],
  e: Effects,
  fault: number,
  told: (known: Evidence) => Evidence = (known) => known,
) {
  const noticed = firstNoticed(e, fault);
  if (!noticed) return undefined;
  const known = told(noticed);
  let tests = 0;
  for (;;) {
    const found = new Finder(rig, e, known).find();
    const isThere = found.candidates.some((c) => c.faults.includes(fault));
    if (!isThere || !found.next) return { tests, isThere, left: found.candidates.length, known };
    known.answers.push({ test: found.next.test.id, answer: found.next.test.answer(fault) });
    tests++;
  }
}

describe('the next question', () => {
  const anyCase = fc
    .record({
      causes: fc.integer({ min: 2, max: 10 }),
      questions: fc.array(
        fc.record({
          seconds: fc.integer({ min: 1, max: 60 }),
          answers: fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 10, maxLength: 10 }),
        }),
        { minLength: 1, maxLength: 8 },
      ),
      odds: fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 10, maxLength: 10 }),
    })
    .map(({ causes, questions, odds }) => ({
      questions: questions,
      causes: Array.from({ length: causes }, (_, i) => i),
      odds,
    }));

  /** What a way of asking costs on average, played through. */
  const played = (
    questions: readonly Question[],
    odds: readonly number[],
    causes: number[],
    choose: (left: number[]) => number | undefined,
  ): number => {
    const q = causes.length > 1 ? choose(causes) : undefined;
    if (q === undefined) return 0;
    const all = causes.reduce((s, c) => s + odds[c]!, 0);
    const { answers, seconds } = questions[q]!;
    return [...new Set(causes.map((c) => answers[c]!))].reduce<number>((sum, a) => {
      const part = causes.filter((c) => answers[c] === a);
      const share = part.reduce((s, c) => s + odds[c]!, 0) / all;
      return sum + share * played(questions, odds, part, choose);
    }, seconds);
  };

  test('up to ten causes and eight questions: never over 1.3 times the best tree, played through', () => {
    fc.assert(
      fc.property(anyCase, ({ questions, causes, odds }) => {
        const least = best(questions, { causes, odds }).seconds;
        const asked = played(
          questions,
          odds,
          causes,
          (left) => nextQuestion(questions, { causes: left, odds }).question,
        );
        const promised = nextQuestion(questions, { causes, odds }).seconds;
        expect(asked).toBeLessThanOrEqual(1.3 * least + 1e-9);
        expect(promised).toBeCloseTo(asked, 6);
      }),
      { numRuns: cases(60, 150) },
    );
  });

  test('what is asked with many causes is near the best tree too, and no worse than always the quickest', () => {
    fc.assert(
      fc.property(anyCase, ({ questions, causes, odds }) => {
        // More of the same questions than are worked out exactly.
        const many = [...questions, ...questions, ...questions];
        const least = best(questions, { causes, odds }).seconds;
        const asked = played(many, odds, causes, (left) => {
          const { question } = nextQuestion(many, { causes: left, odds });
          return question;
        });
        const greedy = played(many, odds, causes, (left) => quickest(many, { causes: left, odds }));
        expect(asked).toBeLessThanOrEqual(greedy + 1e-9);
        expect(asked).toBeLessThanOrEqual(1.3 * least + 1e-9);
      }),
      { numRuns: cases(30, 60) },
    );
  });

  test('a question that tells nothing apart is never asked', () => {
    const dull: Question = { seconds: 1, answers: ['same', 'same'] };
    expect(nextQuestion([dull], { causes: [0, 1], odds: [1, 1] })).toEqual({ seconds: 0 });
  });
});

describe('hidden faults', () => {
  test('in random rigs the fault is always among the candidates, and found in half the tests or less', async () => {
    let [hidden, byFinder, byOne, byLeads] = [0, 0, 0, 0];
    const rigs = fc.sample(showRig, { numRuns: RIGS, seed: 4711 });
    for (const [i, rig] of rigs.entries()) {
      const e = await effectsOf(new Listener(rig));
      const fault = (i * 31) % e.faults.length;
      const found = hunt(rig, e, fault);
      if (!found) continue;
      hidden++;
      expect(found.isThere).toBe(true);
      byFinder += found.tests;
      const alone = sure(hunt(rig, e, fault, atOnePlace));
      expect(alone.isThere).toBe(true);
      byOne += alone.tests;
      // Trying one lead after the other, in the order of the signal, until it is good again; what is
      // no lead is still not found when all of them were tried.
      const leads = rig.leads.filter((l) => l.type !== 'air').map((l) => l.id);
      const at = leads.findIndex((l) => e.faults[fault]!.subjects[0] === l);
      byLeads += at < 0 ? leads.length : at + 1;
    }
    expect(hidden).toBeGreaterThan(RIGS / 2);
    expect(byFinder).toBeLessThanOrEqual(byLeads / 2);
    // So it is where nobody says how it is elsewhere.
    expect(byOne).toBeLessThanOrEqual(byLeads / 2);
  });

  test('every fault of the touring rig that is noticed is among what explains it, and answers keep it', async () => {
    const e = await touringEffects();
    for (let f = 0; f < e.faults.length; f += cases(41, 23)) {
      const found = hunt(touringRig, e, f);
      if (found) expect(found.isThere).toBe(true);
    }
  });

  test('house fine and in-ears silent halve the list; a second fault only where no single one explains it', async () => {
    const e = await touringEffects();
    const silent = evidence('flat', 'wide', ['silent']);
    const one = new Finder(touringRig, e, silent).find();
    const two = new Finder(touringRig, e, {
      ...silent,
      noticed: [...silent.noticed, { ear: 'cab', sound: 'flat', what: [] }],
    }).find();
    expect(two.candidates.length).toBeLessThan(one.candidates.length / 2);
    expect(two.pairs).toBe(false);
    const strange = new Finder(touringRig, e, {
      ...silent,
      noticed: [
        { ear: 'wide', sound: 'flat', what: ['silent'] },
        { ear: 'cab', sound: 'flat', what: [] },
        { ear: 'tdesk', sound: 'flat', what: ['silent'] },
      ],
    }).find();
    if (strange.candidates.length) expect(strange.pairs).toBe(true);
    for (const c of strange.candidates) expect(c.faults.length).toBe(2);
  });

  test('an answer counts in the sound in which it was made, whatever is on later', async () => {
    const e = await touringEffects();
    const known = evidence('flat', 'wide', ['silent']);
    const answers = [{ test: 'listen wide', answer: 'silent', sound: 'flat' }];
    const here = new Finder(touringRig, e, { ...known, answers }).find();
    const later = new Finder(touringRig, e, { ...known, sound: 'steel', answers }).find();
    expect(later.candidates.map((c) => c.faults)).toEqual(here.candidates.map((c) => c.faults));
  });

  test('where nothing explains everything, what is wrong alone is pointed at', async () => {
    const e = await touringEffects();
    const known: Evidence = {
      ...evidence('flat', 'wide', ['silent']),
      answers: [{ test: 'listen wide', answer: 'all fine', sound: 'flat' }],
    };
    const finder = new Finder(touringRig, e, known);
    expect(finder.find().candidates).toEqual([]);
    expect(finder.doubtful()).toEqual({ noticed: [0], answers: [0] });
  });

  test('cannot do that now takes the next best', async () => {
    const e = await touringEffects();
    const known = evidence('flat', 'cab', ['silent']);
    const first = new Finder(touringRig, e, known).find().next!.test.id;
    const second = new Finder(touringRig, e, { ...known, cannot: [first] }).find().next!.test.id;
    expect(second).not.toBe(first);
  });
});

/** How many random rigs. */
const RIGS = cases(50, 200);

describe('what is noticed', () => {
  test('all that was named is there; what was not named is minor; all fine is nothing at all', () => {
    const bits = bitOf('crackle') | bitOf('weaker');
    expect(matches({ what: ['crackle'] }, bits)).toBe(true);
    expect(matches({ what: ['weaker'] }, bits)).toBe(false);
    expect(matches({ what: [] }, bits)).toBe(false);
    expect(matches({ what: [] }, 0)).toBe(true);
    expect(matches({ what: ['silent'] }, bitOf('silent') | bitOf('hum'))).toBe(false);
  });

  test('any rig at all: faults are worked out, and what is taken over changes nothing', () => {
    fc.assert(
      fc.property(anyRig, (rig) => {
        const listener = new Listener(rig);
        const faults = faultsOf(listener.whole);
        for (const f of faults.slice(0, 60).filter((_, i) => i % 5 === 0)) {
          const broken = f.change(listener.whole);
          for (const s of listener.sounds.slice(0, 2)) {
            const [near, anew] = [listener.hears(broken, s), listener.hearsAnew(broken, s)];
            near.forEach((h, i) => expect(h.dbu ?? -999).toBeCloseTo(anew[i]!.dbu ?? -999, 6));
          }
        }
      }),
      { numRuns: cases(15, 40) },
    );
  });
});

test('what several workers find, each of its share, is what one finds', async () => {
  const listener = new Listener(touringRig);
  const whole = await touringEffects();
  const [a, b, c] = await Promise.all(
    [0, 1, 2].map((part) => effectsOf(listener, undefined, { part, of: 3 })),
  );
  expect(joinedEffects([a!, b!, c!])).toEqual(whole);
});

describe('odds', () => {
  const faults = faultsOf(new Listener(touringRig).whole);
  const lead = faults.findIndex((f) => f.id.startsWith('lead open'));

  test('the trade’s, where nothing is known; and those that somebody set', () => {
    expect(allOdds(faults, NOTHING_KNOWN)[lead]).toBeCloseTo(faults[lead]!.perThousand, 9);
    const set = { [faults[lead]!.id]: 40 };
    expect(allOdds(faults, { ...NOTHING_KNOWN, set })[lead]).toBe(40);
  });

  test('what failed is found more often, what held in many shows less, by the mean of a gamma prior', () => {
    const f = faults[lead]!;
    const held = allOdds(faults, { shows: 300, failures: {} })[lead]!;
    expect(held).toBeCloseTo((f.perThousand * TRADE_SHOWS) / (TRADE_SHOWS + 300), 9);
    const id = f.subjects[0]!;
    const siblings = faults.filter((x) => x.subjects.includes(id)).length;
    const failed = allOdds(faults, { shows: 0, failures: { [id]: 2 } })[lead]!;
    expect(failed).toBeCloseTo(f.perThousand + (1000 * 2) / siblings / TRADE_SHOWS, 9);
  });
});
