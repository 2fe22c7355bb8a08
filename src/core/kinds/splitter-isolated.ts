import { defineKind } from './define';
import type { Stage } from './kind';
import { choice, inJack, outJack, pedalFigures, small, stage } from './parts';

export const splitterIsolated = defineKind({
  id: 'splitter-isolated',
  name: 'Splitter, transformer on both',
  family: 'Routing',
  job: 'splitter',
  about:
    'Each output has its own driver, transformer and polarity switch. The ground switch ' +
    'ties an output to the input’s ground; left open it is isolated.',
  jacks: [inJack, { ...outJack, id: 'a', label: 'out A' }, { ...outJack, id: 'b', label: 'out B' }],
  figures: pedalFigures(1e6, -105, 'one buffer an output'),
  parameters: [
    choice(
      'select',
      'Selects',
      ['both', 'A and B'],
      ['a', 'A'],
      ['b', 'B'],
      ['none', 'none (mute)'],
    ),
    ...['A', 'B'].flatMap((n) => [
      {
        type: 'switch' as const,
        id: `invert${n}`,
        role: 'polarity' as const,
        label: `Turn polarity of ${n}`,
        initial: false,
      },
      { type: 'switch' as const, id: `isolate${n}`, label: `Isolate ${n}`, initial: true },
    ]),
  ],
  through: { in: 'in', out: 'a' },
  alwaysOn: true,
  power: { volts: 9, milliamps: 25 },
  size: small,
  passes: (s) => {
    const way = (n: 'A' | 'B', part: Partial<Stage> = {}) => {
      const to = n.toLowerCase();
      return stage(s, {
        id: to,
        to,
        muted: s.choice('select') !== 'both' && s.choice('select') !== to,
        inverts: s.on(`invert${n}`),
        groundThrough: !s.on(`isolate${n}`),
        ...part,
      });
    };
    return [way('A'), way('B')];
  },
});
