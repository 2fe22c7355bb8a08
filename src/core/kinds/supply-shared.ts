import { defineKind } from './define';
import { worldMains } from './parts';

export const supplyShared = defineKind({
  id: 'supply-shared',
  name: 'Supply with a daisy chain',
  family: 'Power',
  job: 'supply',
  about:
    'One adapter and a chain of plugs. All that hang on it share one return, which ' +
    'closes hum loops with the leads between them.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  outlets: [{ id: 'chain', label: 'daisy chain', volts: 9, milliamps: 1700, isolated: false }],
  mains: { ...worldMains, watts: 20 },
  size: { width: 60, depth: 90, height: 50, grams: 250 },
  passes: () => [],
});
