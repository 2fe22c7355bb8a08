import { defineKind } from './define';
import { midiIn, midiOut, midiFigures, tapIn } from './midi-parts';

export const clockBox = defineKind({
  id: 'clock-box',
  name: 'MIDI clock box',
  family: 'Control',
  job: 'controller',
  about: 'Sends MIDI clock at a tempo that is dialled or tapped, and joins it with what comes in.',
  jacks: [midiIn, midiOut, tapIn],
  figures: midiFigures({ thruMs: 1, why: 'a small processor' }),
  parameters: [],
  alwaysOn: true,
  midi: { clock: 'leads', sends: ['clock', 'transport'], thrus: ['merged'] },
  power: { volts: 9, milliamps: 80, noisy: true },
  size: { width: 70, depth: 120, height: 45, grams: 300 },
  passes: () => [],
});
