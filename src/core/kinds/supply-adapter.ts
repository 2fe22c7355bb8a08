import { defineKind } from './define';
import { worldMains } from './parts';

export const supplyAdapter = defineKind({
  id: 'supply-adapter',
  name: 'Adapter',
  family: 'Power',
  job: 'supply',
  about: 'One adapter for one pedal, floating, in a wall socket or a row of them.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  outlets: [{ id: 'lead', label: 'its lead', volts: 9, milliamps: 500, isolated: true }],
  mains: { ...worldMains, watts: 6 },
  size: { width: 45, depth: 75, height: 35, grams: 110 },
  passes: () => [],
});
