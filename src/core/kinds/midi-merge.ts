import { defineKind } from './define';
import { midiFigures, midiIn, midiOut } from './midi-parts';

export const midiMerge = defineKind({
  id: 'midi-merge',
  name: 'MIDI merge box',
  family: 'Control',
  job: 'interface',
  about:
    'Two inputs joined in one stream, message by message, so that two senders can reach the same devices.',
  jacks: [
    { ...midiIn, id: 'in1', label: 'in 1' },
    { ...midiIn, id: 'in2', label: 'in 2' },
    midiOut,
  ],
  figures: midiFigures({ thruMs: 1, why: 'a small processor' }),
  parameters: [],
  alwaysOn: true,
  midi: { thrus: ['merged'] },
  power: { volts: 9, milliamps: 60, noisy: true },
  size: { width: 110, depth: 60, height: 35, grams: 250 },
  passes: () => [],
});
