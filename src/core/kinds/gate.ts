import { defineKind } from './define';
import {
  as,
  figure,
  pedalFigures,
  scaled,
  small,
  stage,
  through,
  throughJacks,
  trueBypass,
} from './parts';

export const gate = defineKind({
  id: 'gate',
  name: 'Noise gate',
  family: 'Filter and dynamics',
  job: 'gate',
  about:
    'Shuts while nobody plays. What starts behind it is not touched; with a lead in the key jack it listens there.',
  jacks: [
    ...throughJacks,
    { id: 'key', label: 'key in', direction: 'in', signal: 'audio', connector: 'TS' },
  ],
  figures: [
    ...pedalFigures(500_000, -100, 'a variable-gain amplifier with nothing to do most of the time'),
    figure('rangeDb', 'Shuts by', 'dB', 60, [0, 120], 'what a good gate takes away'),
  ],
  parameters: [as('gate threshold', scaled('threshold', 'Threshold', -60, [-80, -20], 'dBu'))],
  through,
  power: { volts: 9, milliamps: 25 },
  size: small,
  block: { slots: 1, percent: 2 },
  passes: (s, plugged) => {
    const keyed = plugged('key');
    return [
      ...(keyed ? [{ is: 'shunt' as const, at: 'key', ohms: s.figure('inputOhms') }] : []),
      ...trueBypass(s, [
        stage(s, {
          gate: {
            key: keyed ? 'key' : 'in',
            thresholdDbu: s.knob('threshold'),
            rangeDb: s.figure('rangeDb'),
          },
        }),
      ]),
    ];
  },
});
