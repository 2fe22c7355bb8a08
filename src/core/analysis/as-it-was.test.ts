import { effectiveRig } from '../control/effective';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import * as analysis from '.';

const remarkers = Object.entries(analysis).filter(([name]) => name.endsWith('Remarks')) as [
  string,
  analysis.Remarker,
][];

test('figures and remarks are what they were', () => {
  const now: Record<string, unknown> = {};
  for (const { name, rig: written } of variants(2, 6)) {
    const rig = effectiveRig(written);
    const evidence = rig.sounds.map((s) => analysis.evidenceOf(rig, s, { wantsFixes: true }));
    now[name] = [
      ...evidence.map((e) => digest(analysis.figuresIn(e))),
      ...remarkers.map(([which, look]) => `${which} ${digest(evidence.map((e) => look(e)))}`),
    ];
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('what a boost is worth, the order of connection, and the count of leads are what they were', () => {
  const now: Record<string, string> = {};
  for (const { name, rig } of variants(1, 12)) {
    const figures = rig.sounds.map((s) => analysis.figuresIn(analysis.evidenceOf(rig, s)));
    now[name] = digest([
      rig.sounds.slice(0, 1).map((s) => analysis.boostWorths(rig, s)),
      analysis.connectionOrder(rig, figures),
      analysis.countLeads(rig),
    ]);
  }
  expect(now).toMatchSnapshot();
}, 120_000);
