import { defineKind } from './define';
import { pedalFigures, small, stage, through, throughJacks } from './parts';

export const insertJack = defineKind({
  id: 'insert-jack',
  name: 'Channel strip with insert',
  family: 'Routing',
  job: 'switcher',
  about:
    'A buffered line with one TRS insert: tip sends, ring returns. An insert lead ' +
    'branches to two TS plugs. Nothing plugged, signal goes on.',
  jacks: [
    ...throughJacks,
    {
      id: 'insert',
      label: 'insert (TRS: tip send, ring return)',
      direction: 'either',
      signal: 'audio',
      connector: 'TRS',
      insert: 'insertReturn',
    },
  ],
  figures: pedalFigures(1e6, -105, 'a buffer on both sides of the insert'),
  parameters: [],
  through,
  alwaysOn: true,
  loops: [
    { id: 'insert', label: 'insert', send: ['insert'], return: ['insertReturn'], opensAt: 'send' },
  ],
  power: { volts: 9, milliamps: 20 },
  size: small,
  passes: (s, plugged) =>
    plugged('insert') || plugged('insertReturn')
      ? [stage(s, { id: 'send', to: 'insert' }), stage(s, { id: 'return', from: 'insertReturn' })]
      : [stage(s)],
});
