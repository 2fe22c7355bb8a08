import { defineKind } from './define';
import { medium, pedalFigures, scaled, stage, through, throughJacks, trueBypass } from './parts';

export const eq = defineKind({
  id: 'eq',
  name: 'Equaliser',
  family: 'Filter and dynamics',
  job: 'eq',
  about:
    'Tone shaping with an output level. Level is figured at 1 kHz, so the mid control ' +
    'moves it and the others do not.',
  jacks: throughJacks,
  figures: pedalFigures(500_000, -98, 'a row of op-amp filters'),
  parameters: [
    scaled('low', 'Low, 100 Hz', 0, [-15, 15], 'dB'),
    scaled('mid', 'Mid, 1 kHz', 0, [-15, 15], 'dB'),
    scaled('high', 'High, 5 kHz', 0, [-15, 15], 'dB'),
    scaled('level', 'Level', 0, [-15, 15], 'dB'),
  ],
  through,
  power: { volts: 9, milliamps: 20 },
  size: medium,
  block: { slots: 1, percent: 2 },
  passes: (s) =>
    trueBypass(s, [
      stage(s, {
        gainDb: s.knob('mid') + s.knob('level'),
        tiltDb: s.knob('high') - s.knob('mid'),
        filters: {
          before: [
            { is: 'peak', hertz: 100, q: 0.7, db: s.knob('low') },
            { is: 'peak', hertz: 1000, q: 0.7, db: s.knob('mid') },
            { is: 'peak', hertz: 5000, q: 0.7, db: s.knob('high') },
          ],
        },
      }),
    ]),
});
