import { defineKind } from './define';
import {
  between,
  figure,
  footPedal,
  pedalFigures,
  stage,
  sweptFilter,
  through,
  throughJacks,
  trueBypass,
} from './parts';
import { gainAtMiddle } from './response';

export const wah = defineKind({
  id: 'wah',
  name: 'Wah',
  family: 'Filter and dynamics',
  job: 'filter',
  about:
    'A resonant filter under the foot; toe down is bright. What it passes of 1 kHz, by which levels are ' +
    'told, moves with it.',
  jacks: throughJacks,
  figures: [
    ...pedalFigures(100_000, -98, 'a transistor input that loads a pickup a little'),
    figure('gainDb', 'Gain at its resonance', 'dB', 9, [0, 30], 'a coil of moderate quality'),
  ],
  parameters: [footPedal(5)],
  through,
  power: { volts: 9, milliamps: 8 },
  size: { width: 100, depth: 250, height: 70, grams: 1600 },
  block: { slots: 1, percent: 3 },
  passes: (s) => {
    const resonance = sweptFilter(400, 2200, s.knob('pedal'), 3);
    return trueBypass(s, [
      stage(s, {
        // Levels are those of 1 kHz: most where the resonance is there, less the further it is away.
        gainDb: s.figure('gainDb') + gainAtMiddle(resonance),
        tiltDb: between(-14, 8, s.knob('pedal')),
        inverts: true,
        filters: { after: [resonance] },
      }),
    ]);
  },
});
