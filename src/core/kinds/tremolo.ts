import { defineKind } from './define';
import { rateFigures, rateKnob, rateTempo, tapIn } from './midi-parts';
import {
  medium,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  stereoWires,
  through,
  effectKnob,
} from './parts';

export const tremolo = defineKind({
  id: 'tremolo',
  name: 'Tremolo',
  family: 'Modulation',
  job: 'modulation',
  about:
    'Moves the signal; with both outputs in use the two sides differ and the sound becomes wide.',
  jacks: [...stereoJacks, tapIn],
  figures: [
    ...pedalFigures(500_000, -98, 'a variable-gain amplifier moved by an oscillator'),
    ...rateFigures('a low-frequency oscillator'),
  ],
  parameters: [rateKnob(4), effectKnob('depth', 'Depth', 5)],
  through,
  tempo: rateTempo,
  power: { volts: 9, milliamps: 40 },
  size: medium,
  block: { slots: 1, percent: 3 },
  passes: (s, plugged) =>
    s.engaged
      ? sides(plugged, (from, to, side, gainDb) => [
          stage(s, {
            id: side ?? from,
            from,
            to,
            side,
            outputDb: gainDb,
            wet: { dryDb: -Infinity, wetDb: -2 },
          }),
        ])
      : stereoWires(plugged),
});
