import { applyEdits, type Lead, type Rig } from '../rig';
import { analyse, FixTrial, isSafe } from '../report';
import { allOn, device, lead } from '../testing/rigs';

/** A mix from the desk through a splitter for each side, to a recorder and to two wedges. */
const mix: Rig = allOn(
  [
    device('m', 'mix-feed', 'Mix'),
    device('l', 'splitter-microphone', 'Left split'),
    device('r', 'splitter-microphone', 'Right split'),
    device('rec', 'recorder', 'Recorder', { settings: { input: 'line' } }),
    device('w', 'powered-speaker', 'Wedge'),
    device('v', 'powered-speaker', 'Other wedge'),
  ],
  [
    lead('1', 'm.out', 'l.in', 3, 'balanced'),
    lead('2', 'm.outR', 'r.in', 3, 'balanced'),
    lead('3', 'l.a', 'rec.in', 3, 'balanced'),
    lead('4', 'r.a', 'rec.inR', 3, 'balanced'),
    lead('5', 'l.b', 'w.in', 9, 'balanced'),
    lead('6', 'r.b', 'v.in', 9, 'balanced'),
  ],
);
const without = (rig: Rig, id: string): Rig => ({
  ...rig,
  leads: rig.leads.filter((l) => l.id !== id),
});
/** What is told of a rig that is not told of the right one. */
const fresh = (rig: Rig, right: Rig) => {
  const known = new Set(analyse(right).findings.map((f) => f.key));
  return new FixTrial(rig).report.findings.filter((f) => !known.has(f.key));
};
/** The leads of a rig once its first new finding is put right by the best way out. */
const cured = (rig: Rig, right: Rig): string[] => {
  const trial = new FixTrial(rig);
  const [finding] = fresh(rig, right);
  const best = finding && trial.waysOut(finding)[0];
  expect([finding?.what, best && isSafe(best.tried)]).toEqual([finding?.what, true]);
  const made = applyEdits(rig, best?.fix.edits ?? []);
  return made.ok ? endsOf(made.value.rig) : [];
};
const endsOf = (rig: Rig): string[] =>
  rig.leads.map((l: Lead) => `${l.from.device}.${l.from.jack} ${l.to.device}.${l.to.jack}`).sort();

test('a mix that arrives side by side draws nothing', () => {
  expect(analyse(mix).findings.filter((f) => f.severity !== 'advice')).toEqual([]);
});

test('left and right of a mix exchanged, behind boxes of one side each, are told and put right', () => {
  const swapped = applyEdits(mix, [{ edit: 'swapEnds', leads: ['1', '2'] }]);
  const rig = swapped.ok ? swapped.value.rig : mix;
  expect(fresh(rig, mix).map((f) => [f.rule, f.what])).toEqual([
    ['sides-exchanged', 'Recorder hears left and right exchanged of what leaves Mix.'],
  ]);
  const [finding] = fresh(rig, mix);
  const [best] = new FixTrial(rig).waysOut(finding!);
  expect(best!.tried).toMatchObject({ cures: true, breaks: [] });
});

test.each(['1', '2'])(
  'a box that feeds something and is fed by nothing: lead %s is missed',
  (id) => {
    const rig = without(mix, id);
    const box = id === '1' ? 'Left split' : 'Right split';
    expect(fresh(rig, mix)[0]!.what).toMatch(
      new RegExp(`^Nothing is plugged into ${box}, which feeds`),
    );
    expect(cured(rig, mix)).toEqual(endsOf(mix));
  },
);

test('a line that the one side has and the other lacks is told with its jack, and put right', () => {
  const rig = without(mix, '4');
  expect(fresh(rig, mix)[0]!.what).toMatch(
    /^Recorder gets the left side alone: nothing is plugged into Right split, .*\.$/,
  );
  expect(cured(rig, mix)).toEqual(endsOf(mix));
  // Two lines of their own are none of one pair.
  const apart = without(without(mix, '4'), '6');
  expect(fresh(without(apart, '2'), mix).map((f) => f.rule)).not.toContain('half-wide');
});

test('a return that is missing silences a side where the box is off: told with the lead', () => {
  const inside = (id: string, from: string, to: string): Lead => ({
    ...lead(id, from, to, 0),
    type: 'inside',
  });
  const rig = allOn(
    [
      device('g', 'guitar-active', 'Guitar'),
      device('m', 'modeler-compact', 'Modeler'),
      device('c', 'modulation-digital', 'Swirl'),
      device('e', 'in-ear-mix', 'Ears', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'm.in', 5),
      inside('i1', 'm.fromIn', 'm.toSend1'),
      lead('2', 'm.send1', 'c.in', 1),
      lead('3', 'c.out', 'm.return1', 1),
      lead('4', 'c.outR', 'm.return2', 1),
      inside('i2', 'm.fromReturn1', 'm.toOut'),
      inside('i3', 'm.fromReturn2', 'm.toOutR'),
      lead('5', 'm.out', 'e.in', 20, 'balanced'),
      lead('6', 'm.outR', 'e.inR', 20, 'balanced'),
    ],
  );
  const off = (r: Rig): Rig => ({
    ...r,
    sounds: r.sounds.map((s) => ({ ...s, states: { ...s.states, c: { engaged: false } } })),
  });
  expect(analyse(off(rig)).findings.filter((f) => f.severity !== 'advice')).toEqual([]);
  const cut = off(without(rig, '4'));
  const [finding] = fresh(cut, off(rig));
  expect([finding!.rule, finding!.what]).toEqual([
    'half-pair',
    'Nothing reaches the right side of Ears.',
  ]);
  expect(cured(cut, off(rig))).toEqual(endsOf(rig));
});
