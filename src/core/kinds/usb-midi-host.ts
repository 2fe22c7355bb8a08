import { defineKind } from './define';
import { midiFigures, midiIn, midiOut, usbHost } from './midi-parts';

export const usbMidiHost = defineKind({
  id: 'usb-midi-host',
  name: 'USB MIDI host',
  family: 'Control',
  job: 'interface',
  about:
    'Leads the USB bus for up to four devices that can only follow, and passes messages between all its ports.',
  jacks: [midiIn, midiOut, ...[1, 2, 3, 4].map((n) => usbHost(`usb${n}`, `USB ${n}`))],
  figures: midiFigures({ thruMs: 1, why: 'a small processor' }),
  parameters: [],
  alwaysOn: true,
  midi: { thrus: ['merged'] },
  power: { volts: 9, milliamps: 300, noisy: true },
  size: { width: 120, depth: 80, height: 35, grams: 300 },
  passes: () => [],
});
