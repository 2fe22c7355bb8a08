import { device, lead, sound } from '../demo/compose';
import type { Control, Device, Lead, Rig, Sound } from '../rig/schema';
import type { Curve } from '../units';

/** A rig for tests: devices, leads and sounds, with the rest filled in. */
export const rigOf = (
  devices: Device[],
  leads: Lead[],
  sounds: Sound[] = [sound('s1', 'One', [])],
  rest: Partial<Rig> = {},
): Rig => ({
  format: 'yantrel-rig',
  version: 1,
  id: 'test',
  name: 'Test rig',
  devices,
  leads,
  sounds,
  ...rest,
});

/** A rig of one sound in which everything is switched on. */
export const allOn = (devices: Device[], leads: Lead[]): Rig =>
  rigOf(devices, leads, [
    sound(
      's1',
      'One',
      devices.map((d) => d.id),
    ),
  ]);

/** Devices one behind the other, joined out to in by leads of `metres`; the first is the instrument. */
export function chainOf(
  kinds: (string | [string, Partial<Device>])[],
  metres = 0.3,
  sounds?: Sound[],
  pfPerMetre?: number,
): Rig {
  const devices = kinds.map((k, i) =>
    typeof k === 'string'
      ? device(`d${i}`, k, `Device ${i}`)
      : device(`d${i}`, k[0], `Device ${i}`, k[1]),
  );
  return rigOf(
    devices,
    devices
      .slice(1)
      .map((_, i) => lead(`l${i}`, `d${i}.out`, `d${i + 1}.in`, metres, 'instrument', pfPerMetre)),
    sounds,
  );
}

/**
 * One source through two levels side by side, or two sources through one each, into one input: what a
 * pedal fades between.
 */
export const fadedRig = (isOneSource: boolean, rest: Partial<Rig> = {}): Rig =>
  rigOf(
    [
      device('g', 'guitar-active', 'One'),
      device('h', 'guitar-active', 'Other'),
      device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      device('u', 'volume-active', 'Up'),
      device('w', 'volume-active', 'Down'),
      device('m', 'mixer-line', 'Sum'),
      device('c', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      ...(isOneSource
        ? [lead('1', 'g.out', 's.in', 1), lead('2', 's.a', 'u.in', 1), lead('3', 's.b', 'w.in', 1)]
        : [lead('2', 'g.out', 'u.in', 1), lead('3', 'h.out', 'w.in', 1)]),
      lead('4', 'u.out', 'm.a', 1),
      lead('5', 'w.out', 'm.b', 1),
      lead('6', 'm.out', 'c.in', 1),
    ],
    [sound('x', 'X', [])],
    rest,
  );

/** A pedal that fades from one way of that rig to the other. */
export const fadeControl = (curve: Curve, rest: Partial<Control> = {}): Control => ({
  id: 'f',
  name: 'Fade',
  type: 'pedal',
  assigns: [
    { id: '1', device: 'u', setting: 'pedal', min: 0, max: 10, curve },
    { id: '2', device: 'w', setting: 'pedal', min: 10, max: 0, curve },
  ],
  ...rest,
});

export { device, lead, sound };

/** A link inside a host. */
export const inside = (id: string, from: string, to: string): Lead => ({
  ...lead(id, from, to, 0),
  type: 'inside',
});

/** A rig with some of its leads pulled. */
export const withoutLeads = (rig: Rig, ...ids: string[]): Rig => ({
  ...rig,
  leads: rig.leads.filter((l) => !ids.includes(l.id)),
});

/** What is plugged into what, whatever the leads are called. */
export const wiringOf = (rig: Rig): string[] =>
  rig.leads.map((l) => `${l.from.device}.${l.from.jack} ${l.to.device}.${l.to.jack}`).sort();
