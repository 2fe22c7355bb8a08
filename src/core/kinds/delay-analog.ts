import { defineKind } from './define';
import { delayTempo, tapIn, timeFigures, timeKnob } from './midi-parts';
import {
  medium,
  mixed,
  pedalFigures,
  stage,
  through,
  throughJacks,
  trueBypass,
  mixKnob,
  effectKnob,
} from './parts';

export const delayAnalog = defineKind({
  id: 'delay-analog',
  name: 'Delay, analog',
  family: 'Time',
  job: 'delay',
  about: 'A bucket-brigade line: dark, hissy repeats; the dry signal stays analog and on time.',
  jacks: [...throughJacks, tapIn],
  figures: [
    ...pedalFigures(500_000, -85, 'bucket-brigade lines hiss'),
    ...timeFigures(40, 600, 1, 'the clock range of its lines'),
  ],
  parameters: [timeKnob(), effectKnob('repeats', 'Repeats', 3), mixKnob(3)],
  through,
  tempo: delayTempo,
  power: { volts: 9, milliamps: 40 },
  size: medium,
  block: { slots: 1, percent: 7 },
  passes: (s) => trueBypass(s, [stage(s, { wet: mixed(s.knob('mix')), rings: true })]),
});
