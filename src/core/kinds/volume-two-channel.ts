import { defineKind } from './define';
import type { Pass } from './kind';
import { choice, figure, footPedal, load, taperedShare, taperFigure, wire } from './parts';

const channel = (n: number) => [
  {
    id: `in${n}`,
    label: `in ${n}`,
    direction: 'in' as const,
    signal: 'audio' as const,
    connector: 'TS' as const,
  },
  {
    id: `out${n}`,
    label: `out ${n}`,
    direction: 'out' as const,
    signal: 'audio' as const,
    connector: 'TS' as const,
  },
];

export const volumeTwoChannel = defineKind({
  id: 'volume-two-channel',
  name: 'Volume pedal, two channels',
  family: 'Volume',
  job: 'volume',
  about:
    'Two passive tracks under one foot. In opposite sense one comes up as the other ' +
    'goes down: a crossfader between two loops.',
  jacks: [...channel(1), ...channel(2)],
  figures: [
    figure(
      'trackOhms',
      'Track, each',
      'Ω',
      25_000,
      [1000, 1e7],
      'made to follow a buffer or a pedal',
    ),
    taperFigure(0.5, 'linear, so that one channel takes over evenly from the other'),
  ],
  parameters: [
    footPedal(10),
    choice(
      'sense',
      'Channel 2 runs',
      ['same', 'with channel 1'],
      ['opposite', 'against channel 1'],
    ),
  ],
  through: { in: 'in1', out: 'out1' },
  alwaysOn: true,
  size: { width: 110, depth: 270, height: 80, grams: 1700 },
  passes: (s) => {
    const track = s.figure('trackOhms');
    return [1, 2].flatMap((n): Pass[] => {
      const travel =
        n === 2 && s.choice('sense') === 'opposite' ? 10 - s.knob('pedal') : s.knob('pedal');
      const share = taperedShare(travel, s.figure('halfShare'));
      const way: Pass =
        share >= 1
          ? wire(`in${n}`, `out${n}`)
          : { is: 'resistor', a: `in${n}`, b: `out${n}`, ohms: track * (1 - share) };
      return [way, load(`out${n}`, Math.max(0.1, track * share))];
    });
  },
});
