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
  highestGain,
} from './parts';

export const boost = defineKind({
  id: 'boost',
  name: 'Boost',
  family: 'Drive',
  job: 'boost',
  about: 'Clean gain. Before dirt it makes more dirt, after it more level.',
  jacks: throughJacks,
  figures: [
    ...pedalFigures(1e6, -105, 'a field-effect transistor or a low-noise op-amp'),
    figure(
      'gainLowDb',
      'Gain with the knob down',
      'dB',
      0,
      [-60, 40],
      'the usual boost starts at unity',
    ),
    highestGain('Gain with the knob full', 20, [-20, 60], 'a tenfold voltage'),
  ],
  parameters: [knob('gain', 'Boost', 5, readsDb('gainLowDb', 'gainHighDb'))],
  through,
  power: { volts: 9, milliamps: 8, maxVolts: 18 },
  size: small,
  block: { slots: 1, percent: 1 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, { gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('gain')) }),
    ]),
});
