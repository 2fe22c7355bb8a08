import { DEMO_RIGS } from '../demo';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { walkOrder } from '../walk';
import { compareRigs, compareSounds, soundDifferences } from '.';

test('what is said of a changed rig is what it was, there and back', () => {
  const now: Record<string, string> = {};
  for (const { name, rig } of variants(8, 4)) {
    const whole = DEMO_RIGS.find((r) => r.id === rig.id);
    if (whole) now[name] = digest([compareRigs(whole, rig), compareRigs(rig, whole)]);
  }
  expect(now).toMatchSnapshot();
});

test('what is said of one demo rig against another is what it was', () =>
  expect(
    DEMO_RIGS.flatMap((a) =>
      DEMO_RIGS.filter((b) => b !== a).map((b) => {
        const lines = compareRigs(a, { ...b, id: a.id });
        return `${a.id} and ${b.id}: ${lines.length} changes ${digest(lines)}`;
      }),
    ),
  ).toMatchSnapshot());

test('walks and the differences of sounds are what they were', () =>
  expect(
    DEMO_RIGS.map((rig) =>
      digest([
        walkOrder(rig),
        rig.sounds.flatMap((a) =>
          rig.sounds.map((b) => [compareSounds(rig, a.id, b.id), [...soundDifferences(rig, a, b)]]),
        ),
      ]),
    ),
  ).toMatchSnapshot());
