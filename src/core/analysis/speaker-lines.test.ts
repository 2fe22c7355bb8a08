import type { Device } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from '../report';

/** A power amplifier of 100 W with cabinets on its left channel; leads of 1 m and 2.5 mm² unless said. */
function line(loads: readonly number[], metres = 1, squareMm = 2.5) {
  const figures = (ohms: number): Device['figures'] => ({
    ohms: { value: ohms, from: 'sheet' },
    watts: { value: 400, from: 'sheet' },
  });
  const cabinets = loads.map((ohms, i) =>
    device(`c${i}`, 'cabinet', `Cabinet ${i}`, { figures: figures(ohms) }),
  );
  // Cabinets are chained: each passes the line on by its link.
  const leads = loads.map((_, i) => ({
    ...lead(`l${i}`, i ? `c${i - 1}.link` : 'a.speaker', `c${i}.in`, i ? 0 : metres, 'speaker'),
    squareMm,
  }));
  const rig = rigOf(
    [
      device('g', 'line-instrument', 'G'),
      device('a', 'power-amp', 'Amp', {
        figures: { watts: { value: 100, from: 'sheet' }, lowestOhms: { value: 2, from: 'sheet' } },
      }),
      ...cabinets,
    ],
    [lead('in', 'g.out', 'a.in', 1), ...leads],
    [sound('s', 'S', [])],
  );
  return analyse(rig).sounds[0]!.speakers.find((l) => l.amp === 'a' && l.loads.length)!;
}

/**
 * Cabinets in parallel, their impedance together in ohms, and each one's share of the power in
 * percent; worked out apart from the program.
 */
const PARALLEL: [loads: number[], ohms: number, shares: number[]][] = [
  [[8], 8.0, [100.0]],
  [[16], 16.0, [100.0]],
  [[4], 4.0, [100.0]],
  [[8, 8], 4.0, [50.0, 50.0]],
  [[16, 16], 8.0, [50.0, 50.0]],
  [[16, 8], 5.3333, [33.333, 66.667]],
  [[4, 4], 2.0, [50.0, 50.0]],
  [[16, 16, 8], 4.0, [25.0, 25.0, 50.0]],
];

test.each(PARALLEL)('%j ohms in parallel are %d ohms', (loads, ohms, shares) => {
  const found = line(loads);
  expect(found.loadOhms).toBeCloseTo(ohms, 3);
  const total = found.loads.reduce((s, l) => s + l.watts, 0);
  found.loads.forEach((l, i) => expect((100 * l.watts) / total).toBeCloseTo(shares[i]!, 1));
});

/**
 * Cabinet in ohms, metres and mm² of the lead, and what is lost in it in dB: two conductors of
 * copper, 0.01725 ohms a metre and mm².
 */
const LOSSES: [ohms: number, metres: number, squareMm: number, db: number][] = [
  [4, 1, 0.75, -0.0993],
  [4, 1, 1.5, -0.0498],
  [4, 1, 2.5, -0.0299],
  [4, 3, 0.75, -0.2946],
  [4, 3, 1.5, -0.1486],
  [4, 3, 2.5, -0.0894],
  [4, 10, 0.75, -0.9455],
  [4, 10, 1.5, -0.4856],
  [4, 10, 2.5, -0.2946],
  [4, 20, 0.75, -1.7981],
  [4, 20, 1.5, -0.9455],
  [4, 20, 2.5, -0.5796],
  [8, 1, 0.75, -0.0498],
  [8, 1, 1.5, -0.0249],
  [8, 1, 2.5, -0.015],
  [8, 3, 0.75, -0.1486],
  [8, 3, 1.5, -0.0746],
  [8, 3, 2.5, -0.0448],
  [8, 10, 0.75, -0.4856],
  [8, 10, 1.5, -0.2462],
  [8, 10, 2.5, -0.1486],
  [8, 20, 0.75, -0.9455],
  [8, 20, 1.5, -0.4856],
  [8, 20, 2.5, -0.2946],
  [16, 1, 0.75, -0.0249],
  [16, 1, 1.5, -0.0125],
  [16, 1, 2.5, -0.0075],
  [16, 3, 0.75, -0.0746],
  [16, 3, 1.5, -0.0374],
  [16, 3, 2.5, -0.0224],
  [16, 10, 0.75, -0.2462],
  [16, 10, 1.5, -0.124],
  [16, 10, 2.5, -0.0746],
  [16, 20, 0.75, -0.4856],
  [16, 20, 1.5, -0.2462],
  [16, 20, 2.5, -0.1486],
];

test.each(LOSSES)('%d ohms over %d m of %d mm² lose %d dB', (ohms, metres, squareMm, db) =>
  expect(line([ohms], metres, squareMm).lossDb).toBeCloseTo(db, 3),
);

test('longer loses more, thicker loses less', () => {
  expect(line([8], 20).lossDb).toBeLessThan(line([8], 5).lossDb);
  expect(line([8], 20, 4).lossDb).toBeGreaterThan(line([8], 20, 1).lossDb);
});
