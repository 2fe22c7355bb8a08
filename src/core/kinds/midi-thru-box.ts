import { defineKind } from './define';
import { midiIn, midiThru } from './midi-parts';

const OUTS = [1, 2, 3, 4, 5];

export const midiThruBox = defineKind({
  id: 'midi-thru-box',
  name: 'MIDI thru box',
  family: 'Control',
  job: 'interface',
  about:
    'One input repeated by hardware to five outputs: devices stand side by side instead of one behind the other.',
  jacks: [midiIn, ...OUTS.map((n) => ({ ...midiThru, id: `thru${n}`, label: `thru ${n}` }))],
  figures: [],
  parameters: [],
  alwaysOn: true,
  midi: { thrus: ['hardware'] },
  power: { volts: 9, milliamps: 60, noisy: true },
  size: { width: 110, depth: 60, height: 35, grams: 250 },
  passes: () => [],
});
