import { defineKind } from './define';
import { ceiling, inputOhms, latency, noise, outJack, outputOhms, stage, through } from './parts';

export const wireless = defineKind({
  id: 'wireless',
  name: 'Wireless system',
  family: 'Front of the chain',
  job: 'wireless',
  about:
    'Transmitter on the strap, receiver on the board. A lead in the emergency input takes priority over the radio.',
  jacks: [
    { id: 'in', label: 'transmitter', direction: 'in', signal: 'audio', connector: 'TS' },
    { id: 'emergency', label: 'emergency in', direction: 'in', signal: 'audio', connector: 'TS' },
    outJack,
  ],
  figures: [
    inputOhms(1e6, 'transmitters keep to what a pickup expects'),
    outputOhms(600, 'a line driver'),
    noise(-95, 'converters and companding'),
    ceiling(6, 'full scale of a digital system'),
    latency(4, 'digital systems take 2.5 to 5 ms'),
  ],
  parameters: [],
  through,
  alwaysOn: true,
  power: { volts: 9, milliamps: 250, noisy: true },
  size: { width: 100, depth: 120, height: 45, grams: 400 },
  passes: (s, plugged) =>
    plugged('emergency')
      ? [
          { is: 'shunt', at: 'in', ohms: s.figure('inputOhms') },
          stage(s, { from: 'emergency', noiseDbu: -105 }),
        ]
      : [stage(s, { latencyMs: s.figure('latencyMs'), groundThrough: false })],
});
