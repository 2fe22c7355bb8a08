import { defineKind } from './define';
import { usbDevice, usbHost } from './midi-parts';

export const usbIsolator = defineKind({
  id: 'usb-isolator',
  name: 'USB isolator',
  family: 'Control',
  job: 'interface',
  about: 'Passes USB messages and parts the grounds of the two sides.',
  jacks: [{ ...usbDevice, id: 'up', label: 'to the host' }, usbHost('down', 'to the device')],
  figures: [],
  parameters: [],
  alwaysOn: true,
  midi: { thrus: ['hardware'] },
  size: { width: 60, depth: 30, height: 20, grams: 40 },
  passes: () => [
    {
      is: 'stage',
      id: 'isolation',
      from: 'up',
      to: 'down',
      inOhms: Infinity,
      outOhms: 0,
      gainDb: 0,
      ceiling: { dbu: 200, shape: 'hard', meant: false },
      outputDb: 0,
      noiseDbu: -Infinity,
      latencyMs: 0,
      inverts: false,
      tiltDb: 0,
      groundThrough: false,
      muted: true,
    },
  ],
});
