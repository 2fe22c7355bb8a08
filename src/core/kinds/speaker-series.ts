import { defineKind } from './define';

export const speakerSeries = defineKind({
  id: 'speaker-series',
  name: 'Speaker box, in series',
  family: 'Amplifiers and speakers',
  job: 'cabinet',
  about:
    'Puts two cabinets one behind the other, so that their impedances add. Pull one out ' +
    'and both are silent, with no load on the amplifier.',
  jacks: [
    {
      id: 'in',
      label: 'from the amplifier',
      direction: 'in',
      signal: 'speaker',
      connector: 'speaker',
    },
    { id: 'a', label: 'to cabinet A', direction: 'out', signal: 'speaker', connector: 'speaker' },
    { id: 'b', label: 'to cabinet B', direction: 'out', signal: 'speaker', connector: 'speaker' },
  ],
  figures: [],
  parameters: [],
  through: { in: 'in', out: 'a' },
  alwaysOn: true,
  size: { width: 120, depth: 80, height: 50, grams: 500 },
  passes: () => [{ is: 'series', at: 'in', legs: ['a', 'b'] }],
});
