import { defineKind } from './define';
import { ENGAGED_BY_CC, PRESETS, digitalFigures, mixedEffect, presetFigures } from './effect-parts';
import {
  delayTempo,
  expressionIn,
  midiIn,
  midiThru,
  tapIn,
  timeFigures,
  timeKnob,
} from './midi-parts';
import { latency, medium, stereoJacks, through, mixKnob, effectKnob } from './parts';

export const delay = defineKind({
  id: 'delay',
  name: 'Delay',
  family: 'Time',
  job: 'delay',
  about: 'Digital, with buffered bypass. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru, tapIn, expressionIn()],
  figures: [
    ...digitalFigures(),
    latency(1.5, 'converters take 1 to 3 ms'),
    ...timeFigures(20, 2000, 1, 'a digital delay with a display in milliseconds'),
    ...presetFigures(),
  ],
  parameters: [
    timeKnob(),
    effectKnob('repeats', 'Repeats', 3),
    mixKnob(3),
    { type: 'switch', id: 'tails', label: 'Tails ring on when bypassed', initial: false },
  ],
  through,
  midi: {
    programs: PRESETS,
    controls: [
      ENGAGED_BY_CC,
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
  passes: (s, plugged) => mixedEffect(s, plugged, { rings: true, ringsBypassed: s.on('tails') }),
});
