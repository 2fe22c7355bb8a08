import { defineKind } from './define';
import { inJack, outJack, small, through, wire } from './parts';

export const insertPoint = defineKind({
  id: 'insert-point',
  name: 'Insert for a guest pedal',
  family: 'Routing',
  job: 'switcher',
  about:
    'A normalled pair of jacks: with nothing plugged in, signal goes on. A plug in the ' +
    'send opens the way, so a send without a return is silence.',
  jacks: [
    inJack,
    outJack,
    { ...outJack, id: 'send', label: 'insert send' },
    { ...inJack, id: 'return', label: 'insert return' },
  ],
  figures: [],
  parameters: [],
  through,
  alwaysOn: true,
  loops: [{ id: 'insert', label: 'insert', send: ['send'], return: ['return'], opensAt: 'send' }],
  size: small,
  passes: (_, plugged) =>
    plugged('send') || plugged('return')
      ? [wire('in', 'send'), wire('return', 'out')]
      : [wire('in', 'out')],
});
