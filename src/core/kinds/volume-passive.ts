import { defineKind } from './define';
import {
  figure,
  footPedal,
  load,
  taperedShare,
  taperFigure,
  through,
  throughJacks,
  wire,
} from './parts';

export const volumePassive = defineKind({
  id: 'volume-passive',
  name: 'Volume pedal, passive',
  family: 'Volume',
  job: 'volume',
  about:
    'A pot under the foot. It loads a bare pickup and drives its lead from up to a quarter of its track.',
  jacks: [
    ...throughJacks,
    { id: 'tuner', label: 'tuner out', direction: 'out', signal: 'audio', connector: 'TS' },
  ],
  figures: [
    figure('trackOhms', 'Track', 'Ω', 250_000, [1000, 1e7], 'made for bare pickups'),
    taperFigure(0.5, 'linear; a track with an audio taper gives 0.1 to 0.3'),
  ],
  parameters: [footPedal(10)],
  through,
  alwaysOn: true,
  size: { width: 100, depth: 260, height: 75, grams: 1500 },
  passes: (s) => {
    const track = s.figure('trackOhms');
    const share = taperedShare(s.knob('pedal'), s.figure('halfShare'));
    const way =
      share >= 1
        ? wire('in', 'out')
        : ({ is: 'resistor', a: 'in', b: 'out', ohms: track * (1 - share) } as const);
    return [wire('in', 'tuner'), way, load('out', Math.max(1, track * share))];
  },
});
