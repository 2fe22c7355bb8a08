import { defineKind } from './define';
import { choice, as } from './parts';

export const footSwitch = defineKind({
  id: 'foot-switch',
  name: 'Foot switch',
  family: 'Control',
  job: 'controller',
  about:
    'One switch for a control jack. Its lead may branch to several devices: their ' +
    'grounds and sense pins are then joined.',
  jacks: [
    {
      id: 'out',
      label: 'switch out',
      direction: 'out',
      signal: 'control',
      connector: 'TS',
      gives: 'switch',
      many: true,
    },
  ],
  figures: [],
  parameters: [
    as('action', choice('action', 'Action', ['momentary', 'momentary'], ['latching', 'latching'])),
    as('contact', choice('contact', 'At rest', ['open', 'open'], ['closed', 'closed'])),
  ],
  alwaysOn: true,
  switches: 1,
  size: { width: 70, depth: 70, height: 55, grams: 300 },
  passes: () => [],
});
