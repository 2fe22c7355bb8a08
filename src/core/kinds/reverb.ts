import { defineKind } from './define';
import { midiFigures, midiIn, midiThru } from './midi-parts';
import {
  latency,
  medium,
  mixed,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  through,
  mixKnob,
  effectKnob,
} from './parts';

export const reverb = defineKind({
  id: 'reverb',
  name: 'Reverb',
  family: 'Time',
  job: 'reverb',
  about: 'Digital, with buffered bypass. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...midiFigures({ programMs: 25, controlMs: 4, why: 'a digital pedal that loads a preset' }),
  ],
  parameters: [
    effectKnob('decay', 'Decay', 4),
    mixKnob(3),
    { type: 'switch', id: 'tails', label: 'Tails ring on when bypassed', initial: false },
  ],
  through,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 0 } },
    controls: [
      { setting: 'engaged', cc: 102, ways: ['absolute', 'toggle'] },
      { setting: 'mix', cc: 15, ways: ['absolute'] },
    ],
    thrus: ['hardware'],
  },
  power: { volts: 9, milliamps: 150, noisy: true },
  size: medium,
  block: { slots: 1, percent: 15 },
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
              outputDb: gainDb,
              wet: mixed(s.knob('mix')),
              rings: true,
            }
          : {
              id: side ?? from,
              from,
              to,
              outputDb: gainDb,
              noiseDbu: -105,
              ...(s.on('tails') ? { rings: true } : {}),
            },
      ),
    ]),
});
