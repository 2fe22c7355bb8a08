import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { placeStations, reachedFrom, routeTo, sourcesOf, stationsOf } from '.';

test('the walk is unrolled as it was', () => {
  const now: Record<string, string[]> = {};
  for (const { name, rig } of variants(2, 3))
    now[name] = rig.sounds.map((sound) => {
      const { stations, steps } = stationsOf(rig, sound);
      const size = placeStations(stations, steps);
      const last = stations[stations.length - 1];
      return digest([
        stations,
        steps,
        size,
        sourcesOf(rig),
        routeTo(stations, steps, (s) => s === last),
        [...reachedFrom(stations, steps, (s) => s.source)].sort(),
      ]);
    });
  expect(now).toMatchSnapshot();
}, 120_000);
