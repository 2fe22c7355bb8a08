import { defineKind } from './define';
import {
  knob,
  latency,
  medium,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  through,
  effectKnob,
} from './parts';

export const rotary = defineKind({
  id: 'rotary',
  name: 'Rotary speaker effect',
  family: 'Modulation',
  job: 'modulation',
  about:
    'A digital picture of a turning horn and drum; wet only, and wide where both outputs are used.',
  jacks: stereoJacks,
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(2, 'converters take 1 to 3 ms'),
  ],
  parameters: [effectKnob('speed', 'Speed', 3), knob('level', 'Level', 5)],
  through,
  power: { volts: 9, milliamps: 180, noisy: true },
  size: medium,
  block: { slots: 1, percent: 8 },
  passes: (s, plugged) =>
    sides(plugged, (from, to, side, gainDb) => [
      stage(
        s,
        s.engaged
          ? {
              id: side ?? from,
              from,
              to,
              side,
              latencyMs: s.figure('latencyMs'),
              outputDb: gainDb + s.knob('level') - 5,
              wet: { dryDb: -Infinity, wetDb: 0 },
            }
          : { id: side ?? from, from, to, outputDb: gainDb, noiseDbu: -105 },
      ),
    ]),
});
