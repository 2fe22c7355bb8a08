import { defineKind } from './define';
import type { Stage } from './kind';
import { choice, inJack, outJack, pedalFigures, small, stage } from './parts';

export const splitterBuffered = defineKind({
  id: 'splitter-buffered',
  name: 'Splitter, buffered',
  family: 'Routing',
  job: 'splitter',
  about:
    'Each output has its own driver; B is transformer-isolated and its polarity can be turned.',
  jacks: [inJack, { ...outJack, id: 'a', label: 'out A' }, { ...outJack, id: 'b', label: 'out B' }],
  figures: pedalFigures(1e6, -105, 'one buffer an output'),
  parameters: [
    choice('select', 'Selects', ['both', 'A and B'], ['a', 'A'], ['b', 'B']),
    {
      type: 'switch',
      id: 'invertB',
      role: 'polarity',
      label: 'Turn polarity of B',
      initial: false,
    },
  ],
  through: { in: 'in', out: 'a' },
  alwaysOn: true,
  power: { volts: 9, milliamps: 15 },
  size: small,
  passes: (s) => {
    const way = (to: 'a' | 'b', part: Partial<Stage>) =>
      stage(s, {
        id: to,
        to,
        muted: s.choice('select') !== 'both' && s.choice('select') !== to,
        ...part,
      });
    return [way('a', {}), way('b', { inverts: s.on('invertB'), groundThrough: false })];
  },
});
