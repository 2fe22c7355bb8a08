import { defineKind } from './define';

export const supplyBattery = defineKind({
  id: 'supply-battery',
  name: 'Battery',
  family: 'Power',
  job: 'supply',
  about:
    'A 9 V block for one pedal: no hum and no mains, for as many hours as its capacity (about ' +
    '500 mAh) divided by what the pedal draws. It sinks to 7 V as it empties; unplug the input ' +
    'and it rests. Take it out for storage, and do not charge what is not meant to be charged.',
  jacks: [],
  figures: [],
  parameters: [],
  alwaysOn: true,
  outlets: [{ id: 'clip', label: 'clip', volts: 9, milliamps: 50, isolated: true }],
  size: { width: 27, depth: 49, height: 18, grams: 46 },
  passes: () => [],
});
