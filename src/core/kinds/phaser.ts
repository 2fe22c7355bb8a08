import { defineKind } from './define';
import { rateFigures, rateKnob, rateTempo } from './midi-parts';
import {
  knob,
  medium,
  mixed,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  stereoWires,
  through,
} from './parts';

export const phaser = defineKind({
  id: 'phaser',
  name: 'Phaser',
  family: 'Modulation',
  job: 'modulation',
  about:
    'Moves the signal; with both outputs in use the two sides differ and the sound becomes wide.',
  jacks: stereoJacks,
  figures: [
    ...pedalFigures(500_000, -94, 'a row of all-pass stages'),
    ...rateFigures('a low-frequency oscillator'),
  ],
  parameters: [rateKnob(4), knob('depth', 'Depth', 5)],
  through,
  tempo: rateTempo,
  power: { volts: 9, milliamps: 40 },
  size: medium,
  block: { slots: 1, percent: 5 },
  passes: (s, plugged) =>
    s.engaged
      ? sides(plugged, (from, to, side, gainDb) => [
          stage(s, {
            id: side ?? from,
            from,
            to,
            side,
            outputDb: gainDb,
            wet: mixed(s.knob('depth') / 2),
          }),
        ])
      : stereoWires(plugged),
});
