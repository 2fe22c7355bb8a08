import { defineKind } from './define';
import {
  between,
  knob,
  medium,
  pedalFigures,
  stage,
  sweptFilter,
  through,
  throughJacks,
  trueBypass,
  effectKnob,
} from './parts';

export const envelopeFilter = defineKind({
  id: 'envelope-filter',
  name: 'Envelope filter',
  family: 'Filter and dynamics',
  job: 'filter',
  about: 'A filter that opens with picking strength. The tilt is that of its resting point.',
  jacks: throughJacks,
  figures: pedalFigures(470_000, -96, 'an op-amp input ahead of a state-variable filter'),
  parameters: [effectKnob('sense', 'Sense', 5), knob('range', 'Range', 5)],
  through,
  power: { volts: 9, milliamps: 20 },
  size: medium,
  block: { slots: 1, percent: 4 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        gainDb: 2,
        tiltDb: between(-12, 4, s.knob('range')),
        filters: { after: [sweptFilter(300, 1800, s.knob('range'), 2)] },
      }),
    ]),
});
