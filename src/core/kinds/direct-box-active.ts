import { defineKind } from './define';
import { directJacks } from './line-parts';
import { ceiling, figure, inputOhms, noise, outputOhms, stage, wire } from './parts';

export const directBoxActive = defineKind({
  id: 'direct-box-active',
  name: 'Direct box, active',
  family: 'Outputs',
  job: 'direct',
  about:
    'A buffer from an unbalanced jack to a microphone line, fed by the input behind it (phantom ' +
    'power, 48 V). It loads a bare pickup as little as an amplifier does; most do not break the ground.',
  jacks: directJacks,
  figures: [
    inputOhms(1e6, 'a transistor follower'),
    outputOhms(100, 'an output amplifier behind build-out resistors'),
    figure('gainDb', 'Level change', 'dB', -8, [-40, 20], 'brought down towards microphone level'),
    noise(-110, 'a transistor follower'),
    ceiling(10, 'what a few milliamps of phantom power let it swing at its input'),
  ],
  parameters: [],
  through: { in: 'in', out: 'out' },
  alwaysOn: true,
  phantom: true,
  size: { width: 85, depth: 130, height: 50, grams: 450 },
  passes: (s) => [
    wire('in', 'thru'),
    stage(s, {
      outputDb: s.figure('gainDb'),
      ceiling: { dbu: s.figure('ceilingDbu'), shape: 'hard', meant: false },
    }),
  ],
});
