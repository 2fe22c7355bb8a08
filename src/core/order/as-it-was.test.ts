import { effectiveRig } from '../control/effective';
import { heardOf } from '../signal';
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
