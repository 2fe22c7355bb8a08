import fc from 'fast-check';
import { brokenRig, touringRig } from '../demo';
import { analyse } from '../report';
import { finished, proposeRig } from '../start';
import { anyBrief } from '../start/any-brief';
import { cases } from '../testing/cases';
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

test('whatever a rig is begun with, no tag lies on another or on a strip', () => {
  fc.assert(
    fc.property(anyBrief, (brief) => {
      const choice = { id: 'new', name: 'New', otherSchool: [] };
      const { rig } = finished(proposeRig(brief, choice));
      for (const report of analyse(rig).sounds) {
        const { leads, stations } = placeWalk(walkView(rig, report), rig.leads, 3);
        leads.forEach((a, i) => {
          for (const b of leads.slice(i + 1))
            expect(Math.abs(a.x - b.x) >= 22 || Math.abs(a.y - b.y) >= 24).toBe(true);
          for (const s of stations)
            expect(a.x > s.x && a.x < s.x + s.width && a.y > s.y && a.y < s.y + SIZE.label).toBe(
              false,
            );
        });
      }
    }),
    { numRuns: cases(12, 200), seed: 78 },
  );
});

test('the live line ends where the signal is muted', () => {
  const report = analyse(touringRig).sounds.find((s) => s.sound === 'tune')!;
  const g = placeWalk(walkView(touringRig, report), touringRig.leads, 7);
  expect(g.ways.find((w) => w.key === 'join>tuner')!.live).toBe(true);
  expect(g.ways.find((w) => w.key === 'tuner>comp')!.live).toBe(false);
});
