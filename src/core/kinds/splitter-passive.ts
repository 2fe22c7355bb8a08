import { defineKind } from './define';
import { choice, inJack, outJack, small, wire } from './parts';

export const splitterPassive = defineKind({
  id: 'splitter-passive',
  name: 'Splitter, passive',
  family: 'Routing',
  job: 'splitter',
  about: 'A switch and three jacks. With both outputs on, one source carries both loads.',
  jacks: [inJack, { ...outJack, id: 'a', label: 'out A' }, { ...outJack, id: 'b', label: 'out B' }],
  figures: [],
  parameters: [choice('select', 'Selects', ['both', 'A and B'], ['a', 'A'], ['b', 'B'])],
  through: { in: 'in', out: 'a' },
  alwaysOn: true,
  size: small,
  passes: (s) =>
    ['a', 'b'].map((out) =>
      s.choice('select') === 'both' || s.choice('select') === out
        ? wire('in', out)
        : { is: 'open', a: 'in', b: out },
    ),
});
