import { defineKind } from './define';
import { ENGAGED_BY_CC, PRESETS, digitalFigures, mixedEffect, presetFigures } from './effect-parts';
import { midiIn, midiThru } from './midi-parts';
import { latency, medium, stereoJacks, through, mixKnob, effectKnob } from './parts';

export const reverb = defineKind({
  id: 'reverb',
  name: 'Reverb',
  family: 'Time',
  job: 'reverb',
  about: 'Digital, with buffered bypass. Mix 0 is dry, 5 is as much wet as dry, 10 is wet only.',
  jacks: [...stereoJacks, midiIn, midiThru],
  figures: [...digitalFigures(), latency(1.5, 'converters take 1 to 3 ms'), ...presetFigures()],
  parameters: [
    effectKnob('decay', 'Decay', 4),
    mixKnob(3),
    { type: 'switch', id: 'tails', label: 'Tails ring on when bypassed', initial: false },
  ],
  through,
  midi: {
    programs: PRESETS,
    controls: [ENGAGED_BY_CC, { setting: 'mix', cc: 15, ways: ['absolute'] }],
    thrus: ['hardware'],
  },
  power: { volts: 9, milliamps: 150, noisy: true },
  size: medium,
  block: { slots: 1, percent: 15 },
  passes: (s, plugged) => mixedEffect(s, plugged, { rings: true, ringsBypassed: s.on('tails') }),
});
