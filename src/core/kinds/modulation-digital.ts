import { defineKind } from './define';
import {
  expressionIn,
  midiFigures,
  midiIn,
  midiThru,
  rateFigures,
  rateKnob,
  rateTempo,
  tapIn,
} from './midi-parts';
import {
  latency,
  medium,
  mixed,
  mixKnob,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  through,
  effectKnob,
} from './parts';

export const modulationDigital = defineKind({
  id: 'modulation-digital',
  name: 'Modulation, digital',
  family: 'Modulation',
  job: 'modulation',
  about:
    'Several kinds of modulation with presets, a tempo, and buffered bypass. Mix 0 is dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru, tapIn, expressionIn()],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...rateFigures('a digital oscillator'),
    ...midiFigures({ programMs: 25, controlMs: 4, why: 'a digital pedal that loads a preset' }),
  ],
  parameters: [rateKnob(4), effectKnob('depth', 'Depth', 5), mixKnob(5)],
  through,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 0 } },
    controls: [
      { setting: 'engaged', cc: 102, ways: ['absolute', 'toggle'] },
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
  passes: (s, plugged) =>
    sides(plugged, (from, to, side, gainDb) => [
      stage(
        s,
        s.engaged
          ? {
              ...{ id: side ?? from, from, to, side, outputDb: gainDb },
              latencyMs: s.figure('latencyMs'),
              wet: mixed(s.knob('mix')),
            }
          : { id: side ?? from, from, to, outputDb: gainDb, noiseDbu: -105 },
      ),
    ]),
});
