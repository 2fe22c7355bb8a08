import { defineKind } from './define';
import { insertPoint } from './insert-point';

export const insertPowered = defineKind({
  ...insertPoint,
  id: 'insert-powered',
  name: 'Insert for a guest pedal, with power',
  about:
    'A normalled pair of jacks and a power jack beside it, handed on from a supply inside: what the ' +
    'guest takes counts there. With nothing plugged in, signal goes on.',
  power: { volts: 9, milliamps: 0 },
  outlets: [{ id: 'guest', label: 'for the guest', volts: 9, milliamps: 250, isolated: false }],
});
