import type * as Reports from './report';
import { DEMO_RIGS } from '../demo';
import type { Rig } from '../rig';
import { HAND_WIRED } from '../testing/hand-wired';
import { MISTAKES } from '../testing/mistakes';
import { cases } from '../testing/cases';
import { Analyser } from './report';

/** The analysis as it would be if devices kept their names in it. */
let underNames: typeof Reports;
const keepingNames = jest.fn((rig: Rig) => rig);
beforeAll(async () => {
  jest.doMock('./names', () => ({
    ...jest.requireActual<object>('./names'),
    withoutNames: keepingNames,
  }));
  await jest.isolateModulesAsync(async () => void (underNames = await import('./report')));
});

/** A rig, and the rigs that come of each sort of mistake made in it once. */
const withMistakes = (rig: Rig): Rig[] => [
  rig,
  ...Object.values(MISTAKES).flatMap(({ plant }) =>
    plant(rig)
      .slice(0, 1)
      .map((planted) => planted.rig),
  ),
];

test('no check reads of a name more than it tells: under true names all is told in the same words', () => {
  const rigs = [
    ...DEMO_RIGS,
    ...Object.values(HAND_WIRED).slice(0, cases(6, 24)).flatMap(withMistakes),
  ];
  expect(rigs.length).toBeGreaterThan(20);
  for (const rig of rigs)
    expect(Analyser.withWaysOut().analyse(rig)).toEqual(
      underNames.Analyser.withWaysOut().analyse(structuredClone(rig)),
    );
  expect(keepingNames).toHaveBeenCalledTimes(rigs.length);
});
