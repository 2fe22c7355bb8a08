import { defineKind } from './define';
import { driveFigures, driveKnobs, driveStage } from './drive-parts';
import { lowCut, small, through, throughJacks, trueBypass } from './parts';

export const driveMid = defineKind({
  id: 'drive-mid',
  name: 'Drive, mid gain',
  family: 'Drive',
  job: 'drive',
  about: 'Clips on purpose: adds saturation and sustain as it is driven harder.',
  jacks: throughJacks,
  figures: driveFigures({
    low: 14,
    high: 42,
    clip: -5,
    why: 'symmetric diodes in feedback, brighter than the low-gain kind',
  }),
  parameters: driveKnobs(5, 6),
  through,
  power: { volts: 9, milliamps: 12 },
  size: small,
  block: { slots: 1, percent: 5 },
  passes: (s) => trueBypass(s, [driveStage(s, 4, { filters: lowCut(350) })]),
});
