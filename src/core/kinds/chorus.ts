import { defineKind } from './define';
import { rateFigures, rateKnob, rateTempo } from './midi-parts';
import {
  inputPad,
  knob,
  medium,
  mixed,
  padded,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  stereoWires,
  through,
} from './parts';

export const chorus = defineKind({
  id: 'chorus',
  name: 'Chorus',
  family: 'Modulation',
  job: 'modulation',
  about:
    'Moves the signal; with both outputs in use the two sides differ and the sound becomes wide.',
  jacks: stereoJacks,
  figures: [
    ...pedalFigures(500_000, -92, 'a bucket-brigade or short digital delay line'),
    ...rateFigures('a low-frequency oscillator'),
  ],
  parameters: [rateKnob(4), knob('depth', 'Depth', 5), inputPad],
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
            wet: mixed(s.knob('depth') / 2),
            ...padded(s, gainDb),
          }),
        ])
      : stereoWires(plugged),
});
