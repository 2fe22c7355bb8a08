import { defineKind } from './define';
import { driveFigures, driveKnobs, driveStage } from './drive-parts';
import { small, through, throughJacks, trueBypass } from './parts';

export const driveLow = defineKind({
  id: 'drive-low',
  name: 'Drive, low gain',
  family: 'Drive',
  job: 'drive',
  about: 'Clips on purpose: adds saturation and sustain as it is driven harder.',
  jacks: throughJacks,
  figures: driveFigures({
    low: 6,
    high: 30,
    clip: -4,
    why: 'soft clipping around an op-amp; stays near clean',
  }),
  parameters: driveKnobs(4, 6),
  through,
  power: { volts: 9, milliamps: 12, maxVolts: 18 },
  size: small,
  block: { slots: 1, percent: 5 },
  passes: (s) => trueBypass(s, [driveStage(s, 2)]),
});
