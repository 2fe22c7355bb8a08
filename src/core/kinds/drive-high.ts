import { defineKind } from './define';
import { driveFigures, driveKnobs, driveStage } from './drive-parts';
import { small, through, throughJacks, trueBypass } from './parts';

export const driveHigh = defineKind({
  id: 'drive-high',
  name: 'Drive, high gain',
  family: 'Drive',
  job: 'drive',
  about: 'Clips on purpose: adds saturation and sustain as it is driven harder.',
  jacks: throughJacks,
  figures: driveFigures({
    low: 26,
    high: 62,
    clip: -6,
    why: 'two clipping stages in a row, here as one',
  }),
  parameters: driveKnobs(6, 5),
  through,
  power: { volts: 9, milliamps: 12, sensitive: true },
  size: small,
  block: { slots: 1, percent: 6 },
  passes: (s) => trueBypass(s, [driveStage(s, 4)]),
});
