import { defineKind } from './define';
import { driveFigures, driveStage } from './drive-parts';
import { knob, medium, readsDb, through, throughJacks, trueBypass } from './parts';

export const fuzzLowImpedance = defineKind({
  id: 'fuzz-low-impedance',
  name: 'Fuzz, low impedance',
  family: 'Drive',
  job: 'fuzz',
  about: 'Two transistors that want the bare pickup: the guitar’s volume cleans it up only then.',
  jacks: throughJacks,
  figures: driveFigures({
    low: 20,
    high: 54,
    clip: -8,
    inOhms: 10_000,
    noiseDbu: -92,
    why: 'two transistors in feedback; the first is driven hard by a bare pickup',
  }),
  parameters: [
    knob('drive', 'Fuzz', 7, readsDb('gainLowDb', 'gainHighDb')),
    knob('tone', 'Tone', 5),
    knob('level', 'Level', 5, readsDb('levelLowDb', 'levelHighDb')),
  ],
  through,
  wantsBarePickup: true,
  power: { volts: 9, milliamps: 4, sensitive: true },
  size: medium,
  block: { slots: 1, percent: 6 },
  passes: (s) => trueBypass(s, [driveStage(s, 3)]),
});
