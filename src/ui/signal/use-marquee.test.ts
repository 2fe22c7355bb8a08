import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import { placeWalk, walkView } from '../../core/draw';
import { devicesIn } from './use-marquee';

const geometry = placeWalk(
  walkView(touringRig, analyse(touringRig).sounds[0]!),
  touringRig.leads,
  5,
);

test('a frame takes the devices whose strips it touches, whichever way it was drawn, and none beside', () => {
  const [first, second, third] = geometry.stations;
  const around = (a: typeof first, b: typeof first) => ({
    x: a!.x + a!.width - 2,
    y: a!.y + 2,
    width: b!.x + 2 - (a!.x + a!.width - 2),
    height: 10,
  });
  expect(devicesIn(geometry, around(first, second))).toEqual([
    first!.station.device,
    second!.station.device,
  ]);
  expect(devicesIn(geometry, around(first, third))).toHaveLength(3);
  const between = { x: first!.x + first!.width + 1, y: first!.y, width: 2, height: 10 };
  expect(devicesIn(geometry, between)).toEqual([]);
});

test('a frame around everything takes every device of the walk once', () => {
  const all = devicesIn(geometry, { x: 0, y: 0, width: geometry.width, height: geometry.height });
  expect(all).toEqual([...new Set(geometry.stations.map((p) => p.station.device))]);
});
