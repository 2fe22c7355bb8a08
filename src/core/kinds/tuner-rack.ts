import { defineKind } from './define';
import { figure, inJack, inputOhms, noise, worldMains } from './parts';

export const tunerRack = defineKind({
  id: 'tuner-rack',
  name: 'Tuner on its own line',
  family: 'Outputs',
  job: 'destination',
  about: 'A tuner fed from a tuner output: it always hears the instrument and is not in the way.',
  jacks: [inJack],
  figures: [
    inputOhms(1e6, 'a metering input'),
    noise(-100, 'a metering input'),
    figure('maxInDbu', 'Input clips at', 'dBu', 20, [-20, 40], 'it only counts cycles'),
  ],
  parameters: [],
  alwaysOn: true,
  earth: 'in',
  rackUnits: 1,
  mains: { ...worldMains, watts: 10 },
  size: { width: 483, depth: 150, height: 44, grams: 2000 },
  destination: { jacks: ['in'], hears: 'tuner' },
  passes: (s) => [
    {
      is: 'arrive',
      at: 'in',
      ohms: s.figure('inputOhms'),
      maxDbu: s.figure('maxInDbu'),
      noiseDbu: s.figure('noiseDbu'),
    },
  ],
});
