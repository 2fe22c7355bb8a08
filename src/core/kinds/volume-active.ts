import { decibels } from '../units';
import { defineKind } from './define';
import {
  footPedal,
  pedalFigures,
  stage,
  through,
  throughJacks,
  taperedShare,
  taperFigure,
} from './parts';

export const volumeActive = defineKind({
  id: 'volume-active',
  name: 'Volume pedal, active',
  family: 'Volume',
  job: 'volume',
  about: 'Buffered in and out: its position changes the level and nothing else.',
  jacks: [
    ...throughJacks,
    { id: 'tuner', label: 'tuner out', direction: 'out', signal: 'audio', connector: 'TS' },
  ],
  figures: [
    ...pedalFigures(1e6, -103, 'a buffer, a pot and another buffer'),
    taperFigure(0.5, 'linear; a track with an audio taper gives 0.1 to 0.3'),
  ],
  parameters: [footPedal(10)],
  through,
  alwaysOn: true,
  power: { volts: 9, milliamps: 10 },
  size: { width: 100, depth: 260, height: 75, grams: 1500 },
  block: { slots: 1, percent: 1 },
  passes: (s) => [
    stage(s, {
      outputDb: decibels(taperedShare(s.knob('pedal'), s.figure('halfShare'))),
    }),
    stage(s, { id: 'tuner', to: 'tuner' }),
  ],
});
