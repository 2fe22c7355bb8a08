import { defineKind } from './define';
import { figure, pedalFigures, small, stage, through, throughJacks, trueBypass } from './parts';

export const pickupSimulator = defineKind({
  id: 'pickup-simulator',
  name: 'Pickup simulator',
  family: 'Front of the chain',
  job: 'buffer',
  about:
    'Looks like a bare pickup to what follows: a coil and a resistance behind a buffer, ' +
    'for a fuzz that stands behind a wireless. The guitar’s volume knob still does ' +
    'not reach it.',
  jacks: throughJacks,
  figures: [
    ...pedalFigures(1e6, -105, 'a buffer').filter((f) => f.id !== 'outputOhms'),
    figure('coilOhms', 'Resistance in the output', 'Ω', 6000, [10, 50_000], 'a single-coil pickup'),
    figure('coilHenries', 'Inductance in the output', 'H', 2.5, [0, 20], 'a single-coil pickup'),
  ],
  parameters: [],
  through,
  power: { volts: 9, milliamps: 10 },
  size: small,
  passes: (s) =>
    trueBypass(s, [
      stage(s, { outOhms: s.figure('coilOhms'), outHenries: s.figure('coilHenries') }),
    ]),
});
