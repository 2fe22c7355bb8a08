import { defineKind } from './define';
import { as, choice, figure, footPedal } from './parts';

export const expressionPedal = defineKind({
  id: 'expression-pedal',
  name: 'Expression pedal',
  family: 'Control',
  job: 'controller',
  about:
    'A pot under the foot whose wiper another device reads. Wiper and end must be on ' +
    'the conductors which that device expects.',
  jacks: [
    {
      id: 'out',
      label: 'control out',
      direction: 'out',
      signal: 'control',
      connector: 'TRS',
      gives: 'expression',
      many: true,
    },
  ],
  figures: [
    {
      ...figure('potOhms', 'Pot', 'Ω', 10_000, [100, 1e6], 'the usual value for expression'),
      role: 'resistance of a pedal',
    },
  ],
  parameters: [
    as('wiper', choice('wiper', 'Wiper on', ['tip', 'tip'], ['ring', 'ring'])),
    footPedal(0),
  ],
  alwaysOn: true,
  size: { width: 100, depth: 250, height: 70, grams: 1300 },
  passes: () => [],
});
