import { defineKind } from './define';
import {
  ceiling,
  figure,
  inputOhms,
  knob,
  noise,
  outputOhms,
  readsDb,
  between,
  small,
  stage,
  through,
  throughJacks,
  trueBypass,
  highestGain,
} from './parts';

export const trebleBooster = defineKind({
  id: 'treble-booster',
  name: 'Treble booster',
  family: 'Drive',
  job: 'boost',
  about:
    'One transistor with a small input capacitor; it loads the pickup on purpose and pushes what follows.',
  jacks: throughJacks,
  figures: [
    inputOhms(15_000, 'a bipolar transistor with a low bias divider'),
    outputOhms(10_000, 'a collector load and level pot'),
    noise(-95, 'a single transistor at low input impedance'),
    ceiling(8, 'one transistor on 9 V'),
    figure('gainLowDb', 'Gain with the knob down', 'dB', 0, [-60, 40], 'the level pot turned down'),
    highestGain('Gain with the knob full', 22, [-20, 60], 'one common-emitter stage'),
    figure(
      'tiltDb',
      'Treble lift, 5 kHz against 1 kHz',
      'dB',
      6,
      [-12, 20],
      'the small input capacitor',
    ),
  ],
  parameters: [knob('level', 'Boost', 7, readsDb('gainLowDb', 'gainHighDb'))],
  through,
  wantsBarePickup: true,
  power: { volts: 9, milliamps: 3, sensitive: true, positiveGround: true },
  size: small,
  block: { slots: 1, percent: 3 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('level')),
        ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
        tiltDb: s.figure('tiltDb'),
        inverts: true,
      }),
    ]),
});
