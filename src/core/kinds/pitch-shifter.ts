import { defineKind } from './define';
import { asTrs, midiFigures, midiIn } from './midi-parts';
import {
  figure,
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
    latency(
      12,
      'it hears one wave of the lowest note first: 12 ms at 82 Hz, 8 to 25 by instrument and tuning',
    ),
    figure('dryLatencyMs', 'Latency of the dry part', 'ms', 1.5, [0, 20], 'converters alone'),
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
  passes: (s) => {
    const { dryDb, wetDb } = mixed(s.knob('mix'));
    return trueBypass(s, [
      ...(dryDb > -Infinity
        ? [stage(s, { id: 'dry', latencyMs: s.figure('dryLatencyMs'), outputDb: dryDb })]
        : []),
      ...(wetDb > -Infinity
        ? [
            stage(s, {
              id: 'voice',
              latencyMs: s.figure('latencyMs'),
              wet: { dryDb: -Infinity, wetDb },
            }),
          ]
        : []),
    ]);
  },
});
