import { defineKind } from './define';
import { choice, inJack, outJack, pedalFigures, small, stage } from './parts';

const INPUTS = ['a', 'b', 'c', 'd'];

export const inputSelector = defineKind({
  id: 'input-selector',
  name: 'Input selector',
  family: 'Routing',
  job: 'splitter',
  about:
    'Lets one of four inputs through. As a block it chooses what a path listens to: ' +
    'guitar, auxiliary, a return, a digital channel.',
  jacks: [...INPUTS.map((id) => ({ ...inJack, id, label: `in ${id.toUpperCase()}` })), outJack],
  figures: pedalFigures(1e6, -105, 'a buffer behind an electronic switch'),
  parameters: [
    choice(
      'select',
      'Selects',
      ['a', 'A'],
      ['b', 'B'],
      ['c', 'C'],
      ['d', 'D'],
      ['none', 'none (mute)'],
    ),
  ],
  through: { in: 'a', out: 'out' },
  alwaysOn: true,
  block: { slots: 0, percent: 0 },
  power: { volts: 9, milliamps: 15 },
  size: small,
  passes: (s, plugged) =>
    INPUTS.filter(plugged).map((id) =>
      s.choice('select') === id ? stage(s, { id, from: id }) : { is: 'open', a: id, b: 'out' },
    ),
});
