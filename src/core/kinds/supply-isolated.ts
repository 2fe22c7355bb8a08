import { defineKind } from './define';
import { worldMains } from './parts';

export const supplyIsolated = defineKind({
  id: 'supply-isolated',
  name: 'Supply with isolated outlets',
  family: 'Power',
  job: 'supply',
  about:
    'Eight outlets that share nothing but the mains plug, so that no hum loop closes through the supply.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  outlets: Array.from({ length: 8 }, (_, i) => ({
    id: String(i + 1),
    label: `outlet ${i + 1}`,
    volts: 9,
    milliamps: i < 6 ? 100 : 500,
    isolated: true,
    ...(i >= 6 && { also: [12, 18] }),
  })),
  totalMilliamps: 1400,
  mains: { ...worldMains, watts: 25 },
  size: { width: 165, depth: 90, height: 45, grams: 900 },
  passes: () => [],
});
