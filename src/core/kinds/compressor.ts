import { fixed } from '../units';
import { defineKind } from './define';
import {
  between,
  figure,
  knob,
  pedalFigures,
  readsDb,
  small,
  stage,
  through,
  throughJacks,
  trueBypass,
} from './parts';

export const compressor = defineKind({
  id: 'compressor',
  name: 'Compressor',
  family: 'Filter and dynamics',
  job: 'compressor',
  about: 'Holds loud notes back and brings soft ones up; its make-up gain raises the noise too.',
  jacks: throughJacks,
  figures: [
    ...pedalFigures(500_000, -98, 'a variable-gain amplifier'),
    figure('ratio', 'Ratio', ':1', 4, [1, 100], 'a medium squeeze'),
    figure(
      'levelLowDb',
      'Make-up with the knob down',
      'dB',
      -6,
      [-60, 20],
      'the level pot turned down',
    ),
    figure(
      'levelHighDb',
      'Make-up with the knob full',
      'dB',
      18,
      [-20, 40],
      'enough to lift a squeezed signal back',
    ),
  ],
  parameters: [
    knob('sustain', 'Sustain', 5, (v) => `threshold ${fixed(between(-10, -50, v), 0)} dBu`),
    knob('level', 'Level', 5, readsDb('levelLowDb', 'levelHighDb')),
  ],
  through,
  power: { volts: 9, milliamps: 15, sensitive: true },
  size: small,
  block: { slots: 1, percent: 4 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        outputDb: between(s.figure('levelLowDb'), s.figure('levelHighDb'), s.knob('level')),
        compress: { thresholdDbu: between(-10, -50, s.knob('sustain')), ratio: s.figure('ratio') },
      }),
    ]),
});
