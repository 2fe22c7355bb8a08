import { defineKind } from './define';
import { figure, inputOhms, outputOhms, small, stage, transformer, wire } from './parts';

const xlr = (id: string, label: string, direction: 'in' | 'out') => ({
  id,
  label,
  direction,
  signal: 'audio' as const,
  connector: 'XLR' as const,
});

export const splitterMicrophone = defineKind({
  id: 'splitter-microphone',
  name: 'Microphone splitter',
  family: 'Routing',
  job: 'splitter',
  about:
    'One microphone or balanced line to two desks: straight through to the first, which may send ' +
    'phantom power, and by a transformer to the second, so that their grounds do not meet.',
  jacks: [xlr('in', 'in', 'in'), xlr('a', 'direct out', 'out'), xlr('b', 'isolated out', 'out')],
  figures: [
    inputOhms(10_000, 'the transformer as the microphone sees it'),
    outputOhms(200, 'a transformer of one to one behind a microphone'),
    figure('ceilingDbu', 'Core saturates at', 'dBu', 20, [-10, 30], 'made for line level, too'),
    figure(
      'lossDb',
      'Loss of the isolated way',
      'dB',
      1,
      [0, 12],
      'the resistance of its windings',
    ),
  ],
  parameters: [],
  through: { in: 'in', out: 'a' },
  alwaysOn: true,
  size: small,
  passes: (s) => [
    wire('in', 'a'),
    stage(s, {
      id: 'isolated',
      to: 'b',
      noiseDbu: -140,
      groundThrough: false,
      outputDb: -s.figure('lossDb'),
      filters: transformer,
    }),
  ],
});
