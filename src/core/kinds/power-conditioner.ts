import { defineKind } from './define';
import { worldMains } from './parts';

export const powerConditioner = defineKind({
  id: 'power-conditioner',
  name: 'Power conditioner',
  family: 'Power',
  job: 'supply',
  about:
    'One mains lead in, eight sockets out, with a breaker. It passes protective earth ' +
    'on and never breaks it. Local electrical codes apply.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  stands: 'rack',
  rackUnits: 1,
  mains: { ...worldMains, watts: 3 },
  mainsOutlets: { count: 8, amps: 10 },
  size: { width: 483, depth: 220, height: 44, grams: 4200 },
  passes: () => [],
});
