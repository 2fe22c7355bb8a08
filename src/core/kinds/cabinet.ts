import { defineKind } from './define';
import { airFigure, airJack, inFrontOf } from './amp-parts';
import { figure, wire } from './parts';

export const cabinet = defineKind({
  id: 'cabinet',
  name: 'Speaker cabinet',
  family: 'Amplifiers and speakers',
  job: 'cabinet',
  about: 'Loudspeakers in a box. A microphone in front of it hears what the stage hears.',
  jacks: [
    { id: 'in', label: 'speaker in', direction: 'in', signal: 'speaker', connector: 'speaker' },
    {
      id: 'link',
      label: 'link (in parallel)',
      direction: 'out',
      signal: 'speaker',
      connector: 'speaker',
    },
    airJack,
  ],
  figures: [
    figure('ohms', 'Nominal impedance', 'Ω', 8, [1, 64], 'the usual cabinet'),
    figure('watts', 'Rated power', 'W', 120, [1, 4000], 'two speakers of 60 W'),
    airFigure,
  ],
  parameters: [],
  alwaysOn: true,
  destination: { jacks: ['in'], hears: 'stage' },
  size: { width: 700, depth: 300, height: 500, grams: 24_000 },
  passes: (s) => [
    wire('in', 'link'),
    inFrontOf(s, 'in'),
    {
      is: 'arrive',
      at: 'in',
      ohms: s.figure('ohms'),
      maxDbu: 60,
      noiseDbu: -Infinity,
      coil: { watts: s.figure('watts') },
    },
  ],
});
