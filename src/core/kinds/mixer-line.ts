import { defineKind } from './define';
import { inJack, knob, outJack, pedalFigures, small, stage } from './parts';

export const mixerLine = defineKind({
  id: 'mixer-line',
  name: 'Mixer, two into one',
  family: 'Routing',
  job: 'splitter',
  about: 'Sums two inputs behind a buffer each; a level for both.',
  jacks: [{ ...inJack, id: 'a', label: 'in A' }, { ...inJack, id: 'b', label: 'in B' }, outJack],
  figures: pedalFigures(1e6, -103, 'one buffer an input and a summing amplifier'),
  parameters: [knob('levelA', 'Level A', 10), knob('levelB', 'Level B', 10)],
  through: { in: 'a', out: 'out' },
  alwaysOn: true,
  power: { volts: 9, milliamps: 15 },
  size: small,
  block: { slots: 1, percent: 1 },
  passes: (s) => [
    ...(['A', 'B'] as const).map((side) =>
      stage(s, {
        id: side,
        from: side.toLowerCase(),
        to: 'sum',
        outOhms: 0,
        outputDb: fader(s.knob(`level${side}`)),
      }),
    ),
    stage(s, { id: 'sum', from: 'sum', inOhms: Infinity, noiseDbu: -Infinity }),
  ],
});

const fader = (level: number) => (level <= 0 ? -Infinity : 20 * Math.log10(level / 10));
