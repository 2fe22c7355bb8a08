import { defineKind } from './define';
import { knob, pedalFigures, small, stage, through, throughJacks, trueBypass } from './parts';

export const feedback = defineKind({
  id: 'feedback',
  name: 'Feedback pedal',
  family: 'Pitch',
  job: 'pitch',
  about: 'Adds a sustained overtone of the note while held.',
  jacks: throughJacks,
  figures: pedalFigures(1e6, -95, 'converters on both ends'),
  parameters: [knob('level', 'Overtone level', 5)],
  through,
  tracksPitch: true,
  block: { slots: 1, percent: 8 },
  power: { volts: 9, milliamps: 100 },
  size: small,
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        wet: {
          dryDb: 0,
          wetDb: s.knob('level') <= 0 ? -Infinity : 20 * Math.log10(s.knob('level') / 10),
        },
      }),
    ]),
});
