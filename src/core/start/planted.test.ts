import fc from 'fast-check';
import { sure } from '../outcome';
import { applyEdits, type Rig } from '../rig';
import { correctRig, CORRECT_RIGS } from './correct-rigs';
import { MISTAKES, type Planted } from '../testing/mistakes';
import { analyse, FixTrial, isSafe, type Report } from '../report';

/** What a mistake may bring beside what it is told by: figures that follow from it. */
const FOLLOWS = ['noise', 'headroom', 'input-level', 'empty-loop', 'gate-place'];

const analysed = new Map<string, { rig: Rig; report: Report }>();
function right(name: string): { rig: Rig; report: Report } {
  let known = analysed.get(name);
  if (!known) {
    const rig = correctRig(name);
    analysed.set(name, (known = { rig, report: analyse(rig) }));
  }
  return known;
}

/** One of the ways in which a kind of mistake can be made at a rig, as the seed of the run has it. */
const oneOf = (all: readonly Planted[]): Planted[] =>
  all.length ? fc.sample(fc.constantFrom(...all), 1) : [];

test.each(CORRECT_RIGS)('%s: no caution, and every promise is kept', (name) => {
  const { report } = right(name);
  expect(report.findings.filter((f) => f.severity !== 'advice').map((f) => f.what)).toEqual([]);
  expect(report.promises.filter((p) => !p.kept)).toEqual([]);
});

test('there are at least thirty kinds of mistake, and each can be made somewhere', () => {
  expect(Object.keys(MISTAKES).length).toBeGreaterThanOrEqual(30);
  for (const [kind, { plant }] of Object.entries(MISTAKES))
    expect([kind, CORRECT_RIGS.some((name) => plant(right(name).rig).length > 0)]).toEqual([
      kind,
      true,
    ]);
});

describe.each(CORRECT_RIGS)('%s', (name) => {
  test.each(Object.entries(MISTAKES))(
    '%s: that is told, before all but what follows from it, and a safe fix makes the rig right again',
    (_, { plant, told }) => {
      const { rig: good, report: before } = right(name);
      const known = new Set(before.findings.map((f) => f.key));
      for (const { what, rig } of oneOf(plant(good))) {
        const trial = new FixTrial(rig);
        const fresh = trial.report.findings.filter((f) => !known.has(f.key));
        const causes = fresh.filter(
          (f) => told.includes(f.rule) || ![...FOLLOWS, 'promise'].includes(f.rule),
        );
        // One that the rig has anyway, as the advice that a school gives, is not told twice.
        if (!causes.length && before.findings.some((f) => told.includes(f.rule))) continue;
        const [cause] = causes;
        expect([what, told.includes(cause?.rule ?? ''), cause?.what]).toEqual([
          what,
          true,
          cause?.what,
        ]);
        const [best] = trial.waysOut(sure(cause));
        expect([what, best?.fix.words, best && isSafe(best.tried)]).toEqual([
          what,
          best?.fix.words,
          true,
        ]);
        const cured = applyEdits(rig, sure(best).fix.edits);
        const after = analyse(cured.ok ? cured.value.rig : rig);
        expect([
          what,
          after.findings
            .filter((f) => !known.has(f.key) && f.severity !== 'advice')
            .map((f) => f.what),
        ]).toEqual([what, []]);
        expect(after.promises.filter((p) => !p.kept)).toEqual([]);
        expect([what, best?.fix.words, heardBy(after, good)]).toEqual([
          what,
          best?.fix.words,
          heardBy(before, good),
        ]);
      }
    },
  );
});

/** Who of a rig hears whom in every sound. */
const heardBy = (report: Report, { devices }: Rig) =>
  report.sounds.map((s) =>
    s.destinations
      .filter((d) => devices.some((x) => x.id === d.device))
      .map((d) => [d.device, [...d.sources].sort()]),
  );
