import fc from 'fast-check';
import { effectiveRig } from '../control/effective';
import { heardOf } from '../signal';
import { anyRig } from '../testing/any-rig';
import { showRig } from '../testing/show-rigs';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { ORDER_RULES, orderRemarks } from '.';

test('each school advises what it advised', () => {
  const now: Record<string, string> = {};
  for (const { name, rig: written } of variants(2, 4))
    now[name] = (['follow', 'other'] as const)
      .map((stance) => {
        const stances = Object.fromEntries(ORDER_RULES.map((r) => [r.id, { stance }]));
        const rig = effectiveRig({ ...written, order: { stances } });
        return digest(rig.sounds.map((s) => orderRemarks(heardOf(rig, s))));
      })
      .join(' ');
  expect(now).toMatchSnapshot();
}, 120_000);

test('whatever stands in a row, each school advises what it advised', () => {
  const rigs = fc.sample(fc.oneof(showRig, anyRig), { numRuns: 60, seed: 31 });
  const rules = new Set<string>();
  const now = rigs.map((written) =>
    (['follow', 'other', 'ignore'] as const)
      .map((stance) => {
        const stances = Object.fromEntries(ORDER_RULES.map((r) => [r.id, { stance }]));
        const rig = effectiveRig({ ...written, order: { stances } });
        const remarks = rig.sounds.flatMap((s) => orderRemarks(heardOf(rig, s)));
        for (const r of remarks) rules.add(r.rule);
        return `${remarks.length} ${digest(remarks)}`;
      })
      .join(' '),
  );
  expect(rules.size).toBeGreaterThan(6);
  expect(now).toMatchSnapshot();
}, 120_000);
