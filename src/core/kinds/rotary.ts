import { defineKind } from './define';
import { digitalEffect, digitalFigures } from './effect-parts';
import { knob, latency, medium, stereoJacks, through, effectKnob } from './parts';

export const rotary = defineKind({
  id: 'rotary',
  name: 'Rotary speaker effect',
  family: 'Modulation',
  job: 'modulation',
  about:
    'A digital picture of a turning horn and drum; wet only, and wide where both outputs are used.',
  jacks: stereoJacks,
  figures: [...digitalFigures(), latency(2, 'converters take 1 to 3 ms')],
  parameters: [effectKnob('speed', 'Speed', 3), knob('level', 'Level', 5)],
  through,
  power: { volts: 9, milliamps: 180, noisy: true },
  size: medium,
  block: { slots: 1, percent: 8 },
  passes: (s, plugged) =>
    digitalEffect(s, plugged, {
      wet: { dryDb: -Infinity, wetDb: 0 },
      outputDb: s.knob('level') - 5,
    }),
});
