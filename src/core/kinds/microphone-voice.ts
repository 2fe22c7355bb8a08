import { defineKind } from './define';
import { figure, noise, outputOhms } from './parts';

export const microphoneVoice = defineKind({
  id: 'microphone-voice',
  name: 'Handheld microphone',
  family: 'Instruments',
  job: 'instrument',
  feed: 'voice',
  about: 'A dynamic voice microphone, on a lead or as a wireless handheld.',
  jacks: [{ id: 'out', label: 'out', direction: 'out', signal: 'audio', connector: 'XLR' }],
  figures: [
    outputOhms(200, 'a dynamic capsule'),
    noise(-128, 'the thermal noise of the capsule'),
    figure('nominalDbu', 'Level', 'dBu', -42, [-80, 20], 'singing close'),
    figure('peakDbu', 'Peak', 'dBu', -24, [-80, 30], 'singing close'),
  ],
  parameters: [],
  startsEngaged: true,
  stateWords: { on: 'in use', off: 'not in use' },
  size: { width: 55, depth: 180, height: 55, grams: 350 },
  passes: (s) =>
    s.engaged
      ? [
          {
            is: 'source',
            at: 'out',
            ohms: s.figure('outputOhms'),
            henries: 0,
            touch: false,
            bare: false,
            noiseDbu: s.figure('noiseDbu'),
            nominalDbu: s.figure('nominalDbu'),
            peakDbu: s.figure('peakDbu'),
          },
        ]
      : [],
});
