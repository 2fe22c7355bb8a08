import { defineKind } from './define';
import { directJacks } from './line-parts';
import { ceiling, figure, inputOhms, noise, outputOhms, stage, transformer, wire } from './parts';

export const directBox = defineKind({
  id: 'direct-box',
  name: 'Direct box, passive',
  family: 'Outputs',
  job: 'direct',
  about:
    'A transformer from an unbalanced jack to a microphone line. It breaks the ground between the two.',
  jacks: directJacks,
  figures: [
    inputOhms(140_000, 'a transformer of 12 to 1 into a microphone input'),
    outputOhms(150, 'the same transformer seen from behind'),
    figure('gainDb', 'Level change', 'dB', -21.6, [-60, 20], 'a transformer of 12 to 1'),
    noise(-125, 'a transformer adds next to none'),
    ceiling(16, 'the core saturates first at low notes'),
  ],
  parameters: [],
  through: { in: 'in', out: 'out' },
  alwaysOn: true,
  size: { width: 80, depth: 120, height: 50, grams: 500 },
  passes: (s) => [
    wire('in', 'thru'),
    stage(s, {
      outputDb: s.figure('gainDb'),
      groundThrough: false,
      filters: transformer,
      ceiling: { dbu: s.figure('ceilingDbu'), shape: 'hard', meant: false },
    }),
  ],
});
