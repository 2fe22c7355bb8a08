import { defineKind } from './define';
import {
  asTrs,
  midiFigures,
  midiIn,
  midiThru,
  rateFigures,
  rateKnob,
  rateTempo,
  tapIn,
} from './midi-parts';
import {
  medium,
  pedalFigures,
  stage,
  through,
  throughJacks,
  trueBypass,
  effectKnob,
} from './parts';

export const slicer = defineKind({
  id: 'slicer',
  name: 'Slicer',
  family: 'Modulation',
  job: 'modulation',
  about: 'Chops the signal in a rhythm; made to follow MIDI clock.',
  jacks: [...throughJacks, asTrs(midiIn, 'B'), asTrs(midiThru, 'B'), tapIn],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    ...rateFigures('a step sequencer'),
    ...midiFigures({ programMs: 20, controlMs: 4, why: 'a digital pedal that loads a preset' }),
  ],
  parameters: [rateKnob(5), effectKnob('depth', 'Depth', 8)],
  through,
  midi: {
    programs: { count: 50, bank: 'none', shows: { from: 1 } },
    controls: [{ setting: 'engaged', cc: 82, ways: ['absolute', 'toggle'] }],
    clock: 'wants',
    thrus: ['hardware'],
  },
  tempo: rateTempo,
  block: { slots: 1, percent: 4 },
  power: { volts: 9, milliamps: 90, noisy: true },
  size: medium,
  passes: (s) => trueBypass(s, [stage(s, { outputDb: -3, wet: { dryDb: -Infinity, wetDb: 0 } })]),
});
