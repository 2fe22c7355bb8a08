import { defineKind } from './define';
import { usbHost } from './midi-parts';

export const setListApp = defineKind({
  id: 'set-list-app',
  name: 'Set list on a tablet',
  family: 'Control',
  job: 'controller',
  about: 'Shows the song and calls its sounds over USB, of which it is the host.',
  jacks: [usbHost('usb', 'USB, host')],
  figures: [],
  parameters: [],
  alwaysOn: true,
  midi: {
    sends: ['program', 'control', 'clock', 'transport'],
    commands: true,
    lamps: true,
    thrus: ['none'],
  },
  display: { lines: 4, width: 40 },
  stands: 'floor',
  size: { width: 250, depth: 175, height: 8, grams: 500 },
  passes: () => [],
});
