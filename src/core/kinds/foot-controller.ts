import { defineKind } from './define';
import { expressionIn, midiIn, midiOut, midiFigures, switchIn, usbDevice } from './midi-parts';

export const footController = defineKind({
  id: 'foot-controller',
  name: 'Foot controller',
  family: 'Control',
  job: 'controller',
  about:
    'Foot switches that call sounds: it sends each device its program or control ' +
    'changes. Pedals and a switch can be plugged in.',
  jacks: [
    midiOut,
    midiIn,
    usbDevice,
    expressionIn('exp1', 'expression 1'),
    expressionIn('exp2', 'expression 2'),
    switchIn('ctl', 'extra switch', 'any', 'any', 2),
  ],
  figures: midiFigures({ thruMs: 1, why: 'a small controller' }),
  parameters: [],
  alwaysOn: true,
  midi: {
    sends: ['program', 'control', 'clock'],
    commands: true,
    lamps: true,
    thrus: ['merged', 'none'],
  },
  display: { lines: 1, width: 12 },
  switches: 8,
  power: { volts: 9, milliamps: 200, noisy: true },
  size: { width: 420, depth: 160, height: 60, grams: 2200 },
  passes: () => [],
});
