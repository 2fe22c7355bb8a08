import { analyse } from '../report';
import { brokenRig, touringRig } from '../demo';
import { placeWalk, SIZE } from './walk-geometry';
import { walkView } from './walk-view';

test.each([touringRig, brokenRig])(
  'strips never overlap, and every drawn lead has its tag in a gap',
  (rig) => {
    for (const report of analyse(rig).sounds) {
      const g = placeWalk(walkView(rig, report, { quiet: true }), rig.leads, 7);
      for (const a of g.stations) {
        for (const b of g.stations) {
          if (a === b || a.y !== b.y) continue;
          expect(a.x + a.width <= b.x || b.x + b.width <= a.x).toBe(true);
        }
        expect(a.x + a.width).toBeLessThanOrEqual(g.width);
        expect(a.y + SIZE.label).toBeLessThanOrEqual(g.height);
      }
      for (const l of g.leads)
        expect(
          g.stations.some(
            (s) => l.y > s.y && l.y < s.y + SIZE.label && l.x > s.x && l.x < s.x + s.width,
          ),
        ).toBe(false);
    }
  },
);

test('the live line ends where the signal is muted', () => {
  const report = analyse(touringRig).sounds.find((s) => s.sound === 'tune')!;
  const g = placeWalk(walkView(touringRig, report), touringRig.leads, 7);
  expect(g.ways.find((w) => w.key === 'join>tuner')!.live).toBe(true);
  expect(g.ways.find((w) => w.key === 'tuner>comp')!.live).toBe(false);
});
