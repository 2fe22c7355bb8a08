import { defineKind } from './define';
import { ENGAGED_BY_CC, PRESETS, digitalFigures, mixedEffect, presetFigures } from './effect-parts';
import { delayTempo, midiIn, midiThru, tapIn, timeFigures, timeKnob } from './midi-parts';
import { effectKnob, latency, medium, mixKnob, stereoJacks, through } from './parts';

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
    ...digitalFigures(),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...timeFigures(20, 2000, 1, 'a digital delay with a display in milliseconds'),
    ...presetFigures(),
  ],
  parameters: [
    timeKnob(5, { id: 'time', label: 'Time, left' }),
    timeKnob(6, { id: 'timeRight', label: 'Time, right' }),
    effectKnob('repeats', 'Repeats', 3),
    mixKnob(3),
  ],
  through,
  midi: {
    programs: PRESETS,
    controls: [
      ENGAGED_BY_CC,
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
  passes: (s, plugged) => mixedEffect(s, plugged, { rings: true }),
});
