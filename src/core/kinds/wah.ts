import { defineKind } from './define';
import {
  between,
  footPedal,
  pedalFigures,
  stage,
  sweptFilter,
  through,
  throughJacks,
  trueBypass,
} from './parts';

export const wah = defineKind({
  id: 'wah',
  name: 'Wah',
  family: 'Filter and dynamics',
  job: 'filter',
  about: 'A resonant filter under the foot; toe down is bright.',
  jacks: throughJacks,
  figures: pedalFigures(100_000, -98, 'a transistor input that loads a pickup a little'),
  parameters: [footPedal(5)],
  through,
  power: { volts: 9, milliamps: 8 },
  size: { width: 100, depth: 250, height: 70, grams: 1600 },
  block: { slots: 1, percent: 3 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        gainDb: 3,
        tiltDb: between(-14, 8, s.knob('pedal')),
        inverts: true,
        filters: { after: [sweptFilter(400, 2200, s.knob('pedal'), 3)] },
      }),
    ]),
});
