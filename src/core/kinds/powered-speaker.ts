import { defineKind } from './define';

import { figure, inJack, inputOhms, noise, wire, worldMains, ownLevelKnob } from './parts';

export const poweredSpeaker = defineKind({
  id: 'powered-speaker',
  name: 'Powered speaker',
  family: 'Amplifiers and speakers',
  job: 'destination',
  about: 'A full-range speaker with its own power stage; it adds no character.',
  jacks: [
    { ...inJack, connector: 'combo' },
    { id: 'thru', label: 'line out', direction: 'out', signal: 'audio', connector: 'XLR' },
  ],
  figures: [
    inputOhms(20_000, 'a balanced line input'),
    noise(-95, 'an input amplifier and converters'),
    figure('maxInDbu', 'Input clips at', 'dBu', 20, [-20, 40], 'a line input'),
  ],
  parameters: [ownLevelKnob('Level', 5)],
  alwaysOn: true,
  earth: 'in',
  destination: { jacks: ['in'], hears: 'stage' },
  mains: { ...worldMains, watts: 200 },
  size: { width: 330, depth: 330, height: 560, grams: 15_000 },
  passes: (s) => [
    {
      is: 'arrive',
      at: 'in',
      ohms: s.figure('inputOhms'),
      maxDbu: s.figure('maxInDbu'),
      noiseDbu: s.figure('noiseDbu'),
      wantsDbu: [-20, 10],
      fullRange: true,
    },
    wire('in', 'thru'),
  ],
});
