import { defineKind } from './define';
import { asTrs, midiFigures, midiIn } from './midi-parts';
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

export const pitchShifter = defineKind({
  id: 'pitch-shifter',
  name: 'Pitch shifter',
  family: 'Pitch',
  job: 'pitch',
  about: 'Follows the note and adds another; tracks best on the clean string, early in the chain.',
  jacks: [...throughJacks, asTrs(midiIn, 'A')],
  figures: [
    ...pedalFigures(500_000, -96, 'a digital shifter that must hear part of a wave first'),
    latency(3, 'a digital shifter that must hear part of a wave first'),
    ...midiFigures({ controlMs: 6, why: 'a small digital pedal' }),
  ],
  parameters: [mixKnob(5)],
  through,
  tracksPitch: true,
  midi: {
    controls: [
      { setting: 'engaged', cc: 80, ways: ['toggle'] },
      { setting: 'mix', cc: 16, ways: ['absolute'] },
    ],
    thrus: ['none'],
  },
  power: { volts: 9, milliamps: 200, noisy: true },
  size: medium,
  block: { slots: 1, percent: 20 },
  passes: (s) =>
    trueBypass(s, [stage(s, { latencyMs: s.figure('latencyMs'), wet: mixed(s.knob('mix')) })]),
});
