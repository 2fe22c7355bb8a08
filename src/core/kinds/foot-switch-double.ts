import { defineKind, jack } from './define';
import { footSwitch } from './foot-switch';

export const footSwitchDouble = defineKind({
  id: 'foot-switch-double',
  name: 'Two foot switches on one jack',
  family: 'Control',
  job: 'controller',
  about:
    'One switch between tip and sleeve, the other between ring and sleeve: a jack that reads two ' +
    'contacts has both, any other only the first.',
  jacks: [
    jack({
      id: 'out',
      label: 'switches out',
      direction: 'out',
      signal: 'control',
      connector: 'TRS',
      gives: 'switch',
      contacts: 2,
      many: true,
    }),
  ],
  figures: [],
  parameters: footSwitch.parameters,
  alwaysOn: true,
  switches: 2,
  size: { width: 130, depth: 70, height: 55, grams: 480 },
  passes: () => [],
});
