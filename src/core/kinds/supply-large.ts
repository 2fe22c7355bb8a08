import { defineKind } from './define';
import { worldMains } from './parts';

export const supplyLarge = defineKind({
  id: 'supply-large',
  name: 'Supply with large outlets',
  family: 'Power',
  job: 'supply',
  about:
    'Four isolated outlets for boxes that take a lot: two of 9, 12 or 18 V with 800 mA, two of 12 V with 3 A.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  outlets: [
    ...['1', '2'].map((id) => ({
      id,
      label: `outlet ${id}`,
      volts: 9,
      also: [12, 18],
      milliamps: 800,
      isolated: true,
    })),
    ...['3', '4'].map((id) => ({
      id,
      label: `outlet ${id}`,
      volts: 12,
      milliamps: 3000,
      isolated: true,
    })),
  ],
  totalMilliamps: 6400,
  mains: { ...worldMains, watts: 75 },
  size: { width: 170, depth: 95, height: 48, grams: 1100 },
  passes: () => [],
});
