import { defineKind } from './define';
import type { Pass } from './kind';
import { choice, knob, small, stage, through, throughJacks, pedalFigures } from './parts';

const fader = (v: number) => (v <= 0 ? -Infinity : 20 * Math.log10(v / 10));

export const lineSelector = defineKind({
  id: 'line-selector',
  name: 'Line selector',
  family: 'Routing',
  job: 'switcher',
  about:
    'Two loops behind one switch: bypass, A, B, or both side by side and mixed, with a level each.',
  jacks: [
    ...throughJacks,
    ...['A', 'B'].flatMap((n) => [
      {
        id: `send${n}`,
        label: `send ${n}`,
        direction: 'out' as const,
        signal: 'audio' as const,
        connector: 'TS' as const,
      },
      {
        id: `return${n}`,
        label: `return ${n}`,
        direction: 'in' as const,
        signal: 'audio' as const,
        connector: 'TS' as const,
      },
    ]),
  ],
  figures: pedalFigures(1e6, -105, 'one buffer an input'),
  parameters: [
    choice('mode', 'Mode', ['bypass', 'bypass'], ['a', 'A'], ['b', 'B'], ['mix', 'A and B mixed']),
    knob('levelA', 'Level A', 10),
    knob('levelB', 'Level B', 10),
  ],
  through,
  alwaysOn: true,
  loops: ['A', 'B'].map((n) => ({
    id: `loop${n}`,
    label: `loop ${n}`,
    send: [`send${n}`],
    return: [`return${n}`],
    opensAt: 'never',
  })),
  power: { volts: 9, milliamps: 30 },
  size: small,
  passes: (s) => {
    const mode = s.choice('mode');
    const ways = (['A', 'B'] as const).flatMap((n): Pass[] =>
      mode === 'mix' || mode === n.toLowerCase()
        ? [
            stage(s, { id: `send${n}`, to: `send${n}` }),
            stage(s, {
              id: `return${n}`,
              from: `return${n}`,
              outputDb: fader(s.knob(`level${n}`)),
            }),
          ]
        : [
            { is: 'open' as const, a: 'in', b: `send${n}` },
            { is: 'open' as const, a: `return${n}`, b: 'out' },
          ],
    );
    return mode === 'bypass' ? [stage(s), ...ways] : ways;
  },
});
