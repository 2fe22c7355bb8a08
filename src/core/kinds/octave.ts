import { defineKind } from './define';
import {
  latency,
  medium,
  mixed,
  pedalFigures,
  stage,
  through,
  throughJacks,
  trueBypass,
  mixKnob,
} from './parts';

export const octave = defineKind({
  id: 'octave',
  name: 'Octave',
  family: 'Pitch',
  job: 'pitch',
  about: 'Follows the note and adds another; tracks best on the clean string, early in the chain.',
  jacks: throughJacks,
  figures: [
    ...pedalFigures(500_000, -96, 'analog octave dividers'),
    latency(0, 'analog octave dividers'),
  ],
  parameters: [mixKnob(5)],
  through,
  tracksPitch: true,
  power: { volts: 9, milliamps: 20, noisy: true },
  size: medium,
  block: { slots: 1, percent: 8 },
  passes: (s) =>
    trueBypass(s, [stage(s, { latencyMs: s.figure('latencyMs'), wet: mixed(s.knob('mix')) })]),
});
