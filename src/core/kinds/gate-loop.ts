import { defineKind } from './define';
import { as, figure, pedalFigures, scaled, small, stage, through, throughJacks } from './parts';

export const gateLoop = defineKind({
  id: 'gate-loop',
  name: 'Noise gate with a loop',
  family: 'Filter and dynamics',
  job: 'gate',
  about:
    'Listens to what comes in, and acts on what comes back from its loop: it hears the ' +
    'clean string and shuts the noise of the drives. With nothing in the loop it is an ' +
    'ordinary gate.',
  jacks: [
    ...throughJacks,
    { id: 'send', label: 'send', direction: 'out', signal: 'audio', connector: 'TS' },
    { id: 'return', label: 'return', direction: 'in', signal: 'audio', connector: 'TS' },
    { id: 'key', label: 'key in', direction: 'in', signal: 'audio', connector: 'TS' },
  ],
  figures: [
    ...pedalFigures(1e6, -100, 'a variable-gain amplifier with nothing to do most of the time'),
    figure('rangeDb', 'Shuts by', 'dB', 60, [0, 120], 'what a good gate takes away'),
  ],
  parameters: [as('gate threshold', scaled('threshold', 'Threshold', -60, [-80, -20], 'dBu'))],
  through,
  loops: [{ id: 'loop', label: 'loop', send: ['send'], return: ['return'], opensAt: 'return' }],
  power: { volts: 9, milliamps: 30 },
  size: small,
  passes: (s, plugged) => {
    const key = plugged('key') ? 'key' : 'in';
    const gate = s.engaged
      ? { gate: { key, thresholdDbu: s.knob('threshold'), rangeDb: s.figure('rangeDb') } }
      : {};
    const listens = plugged('key')
      ? [{ is: 'shunt' as const, at: 'key', ohms: s.figure('inputOhms') }]
      : [];
    const looped = plugged('return');
    return [
      ...listens,
      stage(s, { id: 'send', to: 'send', ...(looped ? {} : { noiseDbu: -105 }) }),
      looped
        ? stage(s, { id: 'return', from: 'return', ...gate })
        : stage(s, { id: 'main', ...gate }),
    ];
  },
});
