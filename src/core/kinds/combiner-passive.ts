import { defineKind } from './define';
import { choice, inJack, outJack, small, wire } from './parts';

export const combinerPassive = defineKind({
  id: 'combiner-passive',
  name: 'Two into one, passive',
  family: 'Routing',
  job: 'splitter',
  about:
    'A passive splitter used backwards. Selecting is clean; with both on, each source loads the other.',
  jacks: [{ ...inJack, id: 'a', label: 'in A' }, { ...inJack, id: 'b', label: 'in B' }, outJack],
  figures: [],
  parameters: [choice('select', 'Selects', ['a', 'A'], ['b', 'B'], ['both', 'A and B'])],
  through: { in: 'a', out: 'out' },
  alwaysOn: true,
  size: small,
  passes: (s) =>
    ['a', 'b'].map((from) =>
      s.choice('select') === 'both' || s.choice('select') === from
        ? wire(from, 'out')
        : { is: 'open', a: from, b: 'out' },
    ),
});
