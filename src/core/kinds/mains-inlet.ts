import { defineKind } from './define';
import { worldMains } from './parts';

export const mainsInlet = defineKind({
  id: 'mains-inlet',
  name: 'Mains inlet with a link',
  family: 'Power',
  job: 'supply',
  about:
    'A mains connector in the side of a board or at the back of a rack: one lead in, one on to what ' +
    'stands inside, one through to the next. It passes protective earth on and never breaks it. To ' +
    'be built and tested by who is licensed for it; local electrical codes apply.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  mains: { ...worldMains, watts: 0 },
  mainsOutlets: { count: 2, amps: 10 },
  size: { width: 110, depth: 70, height: 50, grams: 250 },
  passes: () => [],
});
