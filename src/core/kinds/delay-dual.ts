import { defineKind } from './define';
import {
  delayTempo,
  midiFigures,
  midiIn,
  midiThru,
  tapIn,
  timeFigures,
  timeKnob,
} from './midi-parts';
import {
  effectKnob,
  latency,
  medium,
  mixed,
  mixKnob,
  pedalFigures,
  sides,
  stage,
  stereoJacks,
  through,
} from './parts';

export const delayDual = defineKind({
  id: 'delay-dual',
  name: 'Delay, two in one box',
  family: 'Time',
  job: 'delay',
  about:
    'Two digital delays, one for each side, each with a time of its own; buffered bypass. Into one ' +
    'output both are heard. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru, tapIn],
  figures: [
    ...pedalFigures(1e6, -95, 'converters on both ends'),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...timeFigures(20, 2000, 1, 'a digital delay with a display in milliseconds'),
    ...midiFigures({ programMs: 25, controlMs: 4, why: 'a digital pedal that loads a preset' }),
  ],
  parameters: [
    timeKnob(5, { id: 'time', label: 'Time, left' }),
    timeKnob(6, { id: 'timeRight', label: 'Time, right' }),
    effectKnob('repeats', 'Repeats', 3),
    mixKnob(3),
  ],
  through,
  midi: {
    programs: { count: 128, bank: 'none', shows: { from: 0 } },
    controls: [
      { setting: 'engaged', cc: 102, ways: ['absolute', 'toggle'] },
      { setting: 'time', cc: 14, ways: ['absolute'] },
      { setting: 'timeRight', cc: 16, ways: ['absolute'] },
      { setting: 'mix', cc: 15, ways: ['absolute'] },
    ],
    clock: 'can',
    thrus: ['hardware'],
  },
  tempo: delayTempo,
  moreTempos: [{ ...delayTempo, setting: 'timeRight' }],
  power: { volts: 9, milliamps: 250, noisy: true },
  size: medium,
  block: { slots: 1, percent: 12 },
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
          : { id: side ?? from, from, to, outputDb: gainDb, noiseDbu: -105 },
      ),
    ]),
});
