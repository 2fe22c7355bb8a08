import { pluggedJacks } from '../circuit';
import { effectiveRig } from '../control/effective';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { heardOf, pointFigures } from '.';

test('stations and destinations have the figures that they had', () => {
  const now: Record<string, string[]> = {};
  for (const { name, rig: written } of variants(2, 6)) {
    const rig = effectiveRig(written);
    now[name] = rig.sounds.map((sound) => {
      const { ctx, stations, destinations } = heardOf(rig, sound, pluggedJacks(rig));
      const points = rig.leads.map((l) => pointFigures(ctx, l.from.device, l.from.jack));
      return digest([stations, destinations, points]);
    });
  }
  expect(now).toMatchSnapshot();
});
