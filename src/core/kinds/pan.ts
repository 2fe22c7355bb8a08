import { defineKind } from './define';
import {
  ceiling,
  inputOhms,
  noise,
  outputOhms,
  scaled,
  stage,
  stereoJacks,
  through,
  as,
} from './parts';

export const pan = defineKind({
  id: 'pan',
  name: 'Level and pan',
  family: 'Routing',
  job: 'volume',
  about:
    'Sets level and place between two sides. Hard right sends nothing to the left, so ' +
    'two sends of a pair can feed different devices.',
  jacks: stereoJacks.map((j) => ({ ...j, pair: { ...j.pair!, loose: true } })),
  figures: [
    inputOhms(1e6, 'inside a host it loads nothing'),
    outputOhms(100, 'inside a host it drives nothing'),
    noise(-110, 'arithmetic, or one op-amp'),
    ceiling(20, 'full scale'),
  ],
  parameters: [
    as('pan', scaled('pan', 'Pan, left −10 to right +10', 0, [-10, 10], '')),
    scaled('level', 'Level', 0, [-60, 6], 'dB'),
  ],
  through,
  alwaysOn: true,
  block: { slots: 1, percent: 1 },
  passes: (s, plugged) => {
    const at = s.knob('pan');
    // Balance law: the middle leaves both sides whole, each end takes one side away.
    const db = (gain: number) => (gain <= 0 ? -Infinity : 20 * Math.log10(gain));
    const level = s.knob('level');
    const right = plugged('inR') ? 'inR' : 'in';
    return [
      stage(s, {
        id: 'left',
        from: 'in',
        to: 'out',
        outputDb: level + db(Math.min(1, 1 - at / 10)),
      }),
      stage(s, {
        id: 'right',
        from: right,
        to: 'outR',
        outputDb: level + db(Math.min(1, 1 + at / 10)),
      }),
    ];
  },
});
