import { defineKind } from './define';
import { driveFigures, driveKnobs, driveStage } from './drive-parts';
import { medium, through, throughJacks, trueBypass } from './parts';

export const fuzz = defineKind({
  id: 'fuzz',
  name: 'Fuzz',
  family: 'Drive',
  job: 'fuzz',
  about:
    'Several clipping stages with an input of its own: it stands behind a buffer or a wah as ' +
    'happily as behind the guitar.',
  jacks: throughJacks,
  figures: driveFigures({
    low: 30,
    high: 66,
    clip: -7,
    inOhms: 120_000,
    noiseDbu: -96,
    why: 'three or four transistor stages in a row, here as one',
  }),
  parameters: driveKnobs(6, 5),
  through,
  power: { volts: 9, milliamps: 6, sensitive: true },
  size: medium,
  block: { slots: 1, percent: 6 },
  passes: (s) => trueBypass(s, [driveStage(s, 4)]),
});
