import { sure } from '../outcome';
import { kindOf, type SettingValue } from '../kinds';
import { applyEdits, type Edit, integrityProblems, type Rig, rigSchema } from '../rig';
import { cases } from '../testing/cases';
import { digest } from '../testing/digest';
import { HAND_WIRED } from '../testing/hand-wired';
import { MISTAKES } from '../testing/mistakes';
import { analyse, FixTrial, isSafe, type Report } from '.';

/** Figures that follow from a mistake, and promises. */
const FOLLOWS = [
  'noise',
  'headroom',
  'input-level',
  'empty-loop',
  'gate-place',
  'promise',
  'latency',
];
/** A second cabinet is something that hears: what takes it off silences it. */
const NO_WAY_BACK = ['a second cabinet'];

const heardBy = (report: Report, { devices }: Rig) =>
  report.sounds.map((s) =>
    s.destinations
      .filter((d) => devices.some((x) => x.id === d.device))
      .map((d) => [d.device, [...d.sources].sort()]),
  );
/** Every switch, choice and level of a rig turned to where it does not usually stand. */
const turned = (rig: Rig): { what: string; edit: Edit }[] =>
  rig.devices.flatMap((d) =>
    kindOf(d.kind).parameters.flatMap((p) => {
      const values: SettingValue[] =
        p.type === 'choice'
          ? p.options.map((o) => o.value)
          : p.type === 'switch'
            ? [!p.initial]
            : p.type === 'knob' && LEVELS.test(p.id)
              ? [p.min, p.max]
              : [];
      return values
        .filter((v) => v !== p.initial)
        .map((value) => ({
          what: `${d.name}, ${p.id} at ${String(value)}`,
          edit: { edit: 'setSetting' as const, device: d.id, setting: p.id, value },
        }));
    }),
  );
const LEVELS = /level|master|gain|drive/;
/** Of a synthesizer pedal the late part alone is heard where the other is turned down. */
const TURNED_DOWN = ['latency'];

/** All of a list, or a few from first to last. */
function some<T>(all: readonly T[], usual = 2): T[] {
  const few = cases(usual, 1000);
  return all.length <= few
    ? [...all]
    : Array.from({ length: few }, (_, i) =>
        sure(all[Math.round((i * (all.length - 1)) / (few - 1))]),
      );
}
const isSerious = (f: Report['findings'][number]) => f.severity !== 'advice';

describe.each(Object.entries(HAND_WIRED))('%s', (_, rig) => {
  const before = analyse(rig);
  const known = new Set(before.findings.map((f) => f.key));
  const heard = heardBy(before, rig);

  test('it is correct, and draws no caution', () => {
    expect(rigSchema.safeParse(rig).error).toBeUndefined();
    expect(integrityProblems(rig)).toEqual([]);
    expect(before.findings.filter(isSerious).map((f) => f.what)).toEqual([]);
  });

  test('of a mistake one thing is told, which puts it right; or nobody lost anything', () => {
    for (const [kind, { plant }] of Object.entries(MISTAKES))
      for (const { what, rig: broken } of some(plant(rig))) {
        const trial = new FixTrial(broken);
        const told = trial.report.findings.filter((f) => isSerious(f) && !known.has(f.key));
        const causes = told.filter((f) => !FOLLOWS.includes(f.rule));
        const [cause] = causes;
        const isLost = digest(heardBy(trial.report, rig)) !== digest(heard);
        if (!cause) {
          expect([what, isLost]).toEqual([what, false]);
          continue;
        }
        if (isLost) expect([what, causes.map((f) => f.what)]).toEqual([what, [cause.what]]);
        if (NO_WAY_BACK.includes(kind)) continue;
        const [best] = trial.waysOut(cause);
        const way = [what, cause.what, best?.fix.words];
        expect([...way, best && isSafe(best.tried)]).toEqual([...way, true]);
        const cured = applyEdits(broken, sure(best).fix.edits);
        const after = analyse(cured.ok ? cured.value.rig : broken);
        const left = after.findings.filter((f) => isSerious(f) && !known.has(f.key));
        expect([...way, left.map((f) => f.what)]).toEqual([...way, []]);
        expect([...way, heardBy(after, rig)]).toEqual([...way, heard]);
      }
  }, 60_000);

  test('whatever is turned to an end: what is told of it has a way that puts it right', () => {
    for (const { what, edit } of some(turned(rig), 6)) {
      const done = applyEdits(rig, [edit]);
      if (!done.ok) continue;
      const trial = new FixTrial(done.value.rig);
      for (const f of trial.report.findings.filter((x) => isSerious(x) && !known.has(x.key))) {
        if (TURNED_DOWN.includes(f.rule)) continue;
        const [best] = trial.waysOut(f);
        const way = [what, f.what, best?.fix.words];
        expect([...way, best && isSafe(best.tried)]).toEqual([...way, true]);
      }
    }
  }, 60_000);
});
