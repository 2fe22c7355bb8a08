import { defineKind } from './define';
import { ENGAGED_BY_CC, PRESETS, digitalFigures, mixedEffect, presetFigures } from './effect-parts';
import {
  expressionIn,
  midiIn,
  midiThru,
  rateFigures,
  rateKnob,
  rateTempo,
  tapIn,
} from './midi-parts';
import { latency, medium, mixKnob, stereoJacks, through, effectKnob } from './parts';

export const modulationDigital = defineKind({
  id: 'modulation-digital',
  name: 'Modulation, digital',
  family: 'Modulation',
  job: 'modulation',
  about:
    'Several kinds of modulation with presets, a tempo, and buffered bypass. Mix 0 is dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru, tapIn, expressionIn()],
  figures: [
    ...digitalFigures(),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...rateFigures('a digital oscillator'),
    ...presetFigures(),
  ],
  parameters: [rateKnob(4), effectKnob('depth', 'Depth', 5), mixKnob(5)],
  through,
  midi: {
    programs: PRESETS,
    controls: [
      ENGAGED_BY_CC,
      { setting: 'rate', cc: 14, ways: ['absolute'] },
      { setting: 'depth', cc: 16, ways: ['absolute'] },
      { setting: 'mix', cc: 15, ways: ['absolute'] },
    ],
    clock: 'can',
    thrus: ['hardware'],
  },
  tempo: rateTempo,
  power: { volts: 9, milliamps: 180, noisy: true },
  size: medium,
  block: { slots: 1, percent: 6 },
  passes: (s, plugged) => mixedEffect(s, plugged),
});
