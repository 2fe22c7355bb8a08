import { defineKind } from './define';
import { mixed, pedalFigures, small, stage, through, throughJacks, mixKnob } from './parts';

export const blendLoop = defineKind({
  id: 'blend-loop',
  name: 'Blend loop (dry beside a loop)',
  family: 'Routing',
  job: 'switcher',
  about:
    'Sends to a loop and mixes what returns with the untouched signal. Mix 0 is dry, 10 ' +
    'the return only. Bypassed it is metal.',
  jacks: [
    ...throughJacks,
    { id: 'send', label: 'send', direction: 'out', signal: 'audio', connector: 'TS' },
    { id: 'return', label: 'return', direction: 'in', signal: 'audio', connector: 'TS' },
  ],
  figures: pedalFigures(1e6, -105, 'buffers and a mixing amplifier'),
  parameters: [
    mixKnob(5),
    {
      type: 'switch',
      id: 'invert',
      role: 'polarity',
      label: 'Turn polarity of the return',
      initial: false,
    },
  ],
  through,
  loops: [{ id: 'loop', label: 'loop', send: ['send'], return: ['return'], opensAt: 'never' }],
  power: { volts: 9, milliamps: 20 },
  size: small,
  passes: (s) => {
    if (!s.engaged)
      return [
        { is: 'wire', a: 'in', b: 'out' },
        { is: 'open', a: 'in', b: 'send' },
        { is: 'open', a: 'return', b: 'out' },
      ];
    const { dryDb, wetDb } = mixed(s.knob('mix'));
    return [
      stage(s, { id: 'send', to: 'send' }),
      ...(dryDb > -Infinity ? [stage(s, { id: 'dry', outputDb: dryDb })] : []),
      ...(wetDb > -Infinity
        ? [stage(s, { id: 'return', from: 'return', outputDb: wetDb, inverts: s.on('invert') })]
        : []),
    ];
  },
});
