import { defineKind } from './define';
import { microphoneJacks } from './line-parts';
import { ceiling, noise, outputOhms, stage } from './parts';

export const microphone = defineKind({
  id: 'microphone',
  name: 'Microphone',
  family: 'Amplifiers and speakers',
  job: 'microphone',
  about:
    'Stands in front of a speaker. The lead that joins them is air: its metres are the distance.',
  jacks: microphoneJacks,
  figures: [
    outputOhms(200, 'a dynamic microphone'),
    noise(-125, 'a coil of 200 Ω'),
    ceiling(10, 'what a dynamic microphone gives at most'),
  ],
  parameters: [],
  through: { in: 'air', out: 'out' },
  alwaysOn: true,
  size: { width: 55, depth: 160, height: 55, grams: 300 },
  passes: (s) => [stage(s, { from: 'air', inOhms: Infinity })],
});
