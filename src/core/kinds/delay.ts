import { defineKind } from './define';
import {
  delayTempo,
  expressionIn,
  midiFigures,
  midiIn,
  midiThru,
  tapIn,
  timeFigures,
  timeKnob,
} from './midi-parts';
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

export const delay = defineKind({
  id: 'delay',
  name: 'Delay',
  family: 'Time',
  job: 'delay',
  about: 'Digital, with buffered bypass. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru, tapIn, expressionIn()],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...timeFigures(20, 2000, 1, 'a digital delay with a display in milliseconds'),
    ...midiFigures({ programMs: 25, controlMs: 4, why: 'a digital pedal that loads a preset' }),
  ],
  parameters: [
    timeKnob(),
    effectKnob('repeats', 'Repeats', 3),
    mixKnob(3),
    { type: 'switch', id: 'tails', label: 'Tails ring on when bypassed', initial: false },
  ],
  through,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 0 } },
    controls: [
      { setting: 'engaged', cc: 102, ways: ['absolute', 'toggle'] },
      { setting: 'time', cc: 14, ways: ['absolute'] },
      { setting: 'mix', cc: 15, ways: ['absolute'] },
    ],
    clock: 'can',
    thrus: ['hardware'],
  },
  tempo: delayTempo,
  power: { volts: 9, milliamps: 200, noisy: true },
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
