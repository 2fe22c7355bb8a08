import fc from 'fast-check';
import type { Device, Lead, Rig } from '../rig/schema';
import { device, lead, rigOf, sound } from './rigs';

const PEDALS = [
  'tuner-true-bypass',
  'tuner-buffered',
  'buffer',
  'compressor',
  'boost',
  'drive-low',
  'drive-mid',
  'volume-passive',
  'phaser',
  'tremolo',
  'delay-analog',
  'eq',
] as const;

/**
 * A rig as it stands on a stage: an instrument, some pedals on a supply, an amplifier with a
 * microphone to the house, and perhaps a second way through a simulator.
 */
export const showRig: fc.Arbitrary<Rig> = fc
  .record({
    pedals: fc.array(fc.constantFrom(...PEDALS), { minLength: 2, maxLength: 8 }),
    splits: fc.boolean(),
    loop: fc.boolean(),
    on: fc.array(fc.boolean(), { minLength: 16, maxLength: 16 }),
  })
  .map(({ pedals, splits, loop, on }) => {
    const fed = (i: number): Partial<Device> => ({
      supply: { device: 's', outlet: String((i % 8) + 1) },
    });
    const devices = [
      device('g', 'guitar-humbucker', 'Guitar'),
      ...pedals.map((k, i) =>
        device(`p${i}`, k, `Pedal ${i}`, k === 'volume-passive' ? {} : fed(i)),
      ),
      ...(splits
        ? [
            device('y', 'splitter-buffered', 'Fork', fed(6)),
            device('i', 'amp-cab-simulator', 'Simulator', fed(7)),
            device('w', 'console-input', 'House, wet'),
          ]
        : []),
      device('a', 'combo-tube-loop', 'Combo'),
      ...(loop ? [device('e', 'delay-analog', 'Echo', fed(5))] : []),
      device('m', 'microphone', 'Mic'),
      device('h', 'console-input', 'House'),
      device('s', 'supply-large', 'Supply'),
    ];
    const leads: Lead[] = [];
    const plug = (from: string, to: string, metres = 1, type: Lead['type'] = 'instrument') =>
      leads.push(lead(`l${leads.length}`, from, to, metres, type));
    let at = 'g.out';
    pedals.forEach((_, i) => {
      plug(at, `p${i}.in`);
      at = `p${i}.out`;
    });
    if (splits) {
      plug(at, 'y.in');
      plug('y.b', 'i.in');
      plug('i.out', 'w.in', 10, 'balanced');
      at = 'y.a';
    }
    plug(at, 'a.in', 3);
    if (loop) {
      plug('a.send', 'e.in', 3);
      plug('e.out', 'a.return', 3);
    }
    plug('a.air', 'm.air', 0.05, 'air');
    plug('m.out', 'h.in', 10, 'balanced');
    const ids = pedals.map((_, i) => `p${i}`).filter((_, i) => !pedals[i]?.startsWith('tuner'));
    return rigOf(devices, leads, [
      sound(
        'one',
        'One',
        ids.filter((_, i) => on[i]),
      ),
      sound('two', 'Two', [...ids.filter((_, i) => on[i + 8]), ...(loop ? ['e'] : [])]),
    ]);
  });
