import fc from 'fast-check';
import loadHighs from 'highs';
import { brokenRig, DEMO_RIGS, flyRig, touringRig } from '../demo';
import { at } from '../outcome';
import { exactly, type MipSolver } from '../optimum';
import type { Rig } from '../rig/schema';
import { digest } from '../testing/digest';
import { oddRigs } from '../testing/odd-rigs';
import { showRig } from '../testing/show-rigs';
import { demoBook } from './demo-book';
import { drillOf } from './drill';
import { atEar, type Effects, effectsOf, Listener } from './effects';
import { faultsOf, wholeOf } from './faults';
import { Finder } from './finder/finder';
import { dueOf, EMPTY_BOOK, knownOf, pastOf, scheduleOf, withChanges } from './book';
import { lineCheckOf } from './line-check';
import { rewire } from './rewire';
import { smallestSpares } from './spares';
import { survivals } from './survival';
import { diceOf, evidenceOf, hide, makeTest } from './trainer';

const first = (rig: Rig, sounds: number): Rig => ({ ...rig, sounds: rig.sounds.slice(0, sounds) });
const RIGS = [flyRig, first(touringRig, 2), first(brokenRig, 2), ...oddRigs()];

let solver: MipSolver;
const effects = new Map<Rig, Effects>();
beforeAll(async () => {
  solver = exactly(await loadHighs({}));
  for (const rig of RIGS) effects.set(rig, await effectsOf(new Listener(rig)));
}, 120_000);

test('every fault is what it was: its words, odds and mending, and what is noticed of it at each place', () => {
  const now: Record<string, string> = {};
  for (const rig of RIGS) {
    const e = effects.get(rig)!;
    const sorts = new Map<string, unknown[]>();
    e.faults.forEach((f, i) => {
      const bits = e.sounds.flatMap((_, s) => e.ears.map((__, k) => atEar(e, i, s, k)));
      sorts.set(f.sort, [...(sorts.get(f.sort) ?? []), [f, bits]]);
    });
    for (const [sort, found] of sorts)
      now[`${rig.id} ${sort}`] = `${found.length} ${digest(found)}`;
    now[`${rig.id} at leads`] = digest([...e.atLeads]);
  }
  expect(now).toMatchSnapshot();
});

test('every test asks what it asked, and would show of each fault what it showed', () => {
  const now: Record<string, string> = {};
  for (const rig of RIGS) {
    const e = effects.get(rig)!;
    const [sound] = e.sounds;
    if (!sound) continue;
    const finder = new Finder(rig, e, { sound: sound.id, noticed: [], answers: [], cannot: [] });
    const sorts = new Map<string, unknown[]>();
    for (const { answer, ...test } of finder.allTests()) {
      const sort = test.id.split(' ')[0]!;
      const shows = e.faults.map((_, f) => answer(f));
      sorts.set(sort, [...(sorts.get(sort) ?? []), [test, shows]]);
    }
    for (const [sort, found] of sorts)
      now[`${rig.id} ${sort}`] = `${found.length} ${digest(found)}`;
  }
  expect(now).toMatchSnapshot();
});

test('a hidden fault is complained of, looked for and scored as it was', () => {
  const now: Record<string, string> = {};
  for (const rig of RIGS.slice(0, 3))
    for (const difficulty of ['easy', 'usual', 'hard'] as const) {
      const e = effects.get(rig)!;
      const trouble = hide(rig, e, difficulty, diceOf(rig.id, 4));
      if (!trouble) continue;
      const evidence = evidenceOf(trouble.complaint);
      const finder = new Finder(rig, e, evidence);
      const { candidates, next, seconds, alike } = finder.find();
      const made = next && makeTest(rig, e, trouble, evidence, next.test.id);
      now[`${rig.id} ${difficulty}`] = digest([
        trouble,
        ...[candidates, next?.test.id, next?.answers, seconds, alike],
        made,
        finder.doubtful(),
      ]);
    }
  expect(now).toMatchSnapshot();
});

test('the drill, the spares and what they outlast, the line check and the second ways are what they were', async () => {
  const now: Record<string, string> = {};
  for (const [i, rig] of fc.sample(showRig, { numRuns: 3, seed: 5 }).entries()) {
    const name = `rig ${i}`;
    const drill = await drillOf(rig, undefined);
    drill.losses.forEach((l) => (now[`${name} ${l.fault.id}`] = digest(l)));
    const plan = smallestSpares(rig, drill, 60, solver);
    now[`${name} spares`] = digest(plan);
    now[`${name} outlasts`] = digest(survivals(rig, drill, plan, 60));
    const listener = new Listener(rig);
    const faults = faultsOf(wholeOf(rig)).filter((_, i) => i % 12 === 0);
    const [sound] = rig.sounds;
    now[`${name} second ways`] = digest(
      faults.map((f) => [f.id, sound && rewire(listener, f, sound.id, 0)]),
    );
  }
  for (const rig of DEMO_RIGS)
    now[`${rig.id} line check`] = digest(lineCheckOf(rig, rig.sets?.[0], solver));
  expect(now).toMatchSnapshot();
}, 120_000);

test('the book of the demo crew reads as it read: what failed, what is due, how a day is laid out', () => {
  const today = '2026-06-15';
  const book = withChanges(EMPTY_BOOK, demoBook(touringRig, today));
  const days = book.show.map((show) => [show.id, scheduleOf(touringRig, show, 1500)] as const);
  expect({
    known: digest(knownOf(book, today)),
    past: pastOf(book).map(digest),
    due: dueOf(touringRig, book, today).map((d) => `${d.id} ${digest(d)}`),
    days: days.map(([id, day]) => `${id} ${digest(day)}`),
    first: digest(scheduleOf(touringRig, at(book.show, 0), null)),
  }).toMatchSnapshot();
});
