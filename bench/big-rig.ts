import { device, lead, sound } from '../src/core/demo/compose';
import type { Device, Lead, Rig, Sound } from '../src/core/rig';

const KINDS = [
  'drive-low',
  'chorus',
  'delay',
  'compressor',
  'eq',
  'buffer',
  'boost',
  'phaser',
  'volume-active',
  'drive-mid',
];

/** A chain of `count` devices in a given number of sounds, a third of them engaged in each. */
export function bigRig(count: number, sounds = 4): Rig {
  const devices: Device[] = [device('guitar', 'guitar-humbucker', 'Guitar')];
  const leads: Lead[] = [];
  let at = 'guitar.out';
  for (let i = 0; i < count - 2; i++) {
    devices.push(device(`d${i}`, KINDS[i % KINDS.length]!, `Device ${i}`));
    leads.push(lead(`l${i}`, at, `d${i}.in`, 0.3));
    at = `d${i}.out`;
  }
  devices.push(device('combo', 'combo-tube', 'Combo'));
  leads.push(lead('last', at, 'combo.in', 3));
  return rigOf(`chain-${count}`, devices, leads, thirds(devices, sounds));
}

const rigOf = (id: string, devices: Device[], leads: Lead[], sounds: Sound[]): Rig => ({
  format: 'yantrel-rig',
  version: 1,
  id,
  name: id,
  devices,
  leads,
  sounds,
});

/** Sounds in each of which another third of the pedals is engaged. */
const thirds = (devices: readonly Device[], sounds: number): Sound[] =>
  Array.from({ length: sounds }, (_, s) =>
    sound(
      `s${s}`,
      `Sound ${s}`,
      devices.filter((d, i) => d.id.startsWith('d') && (i + s) % 3 === 0).map((d) => d.id),
    ),
  );

/** A chain as {@link bigRig}, fed by supplies of eight outlets, all of them on one strip of mains. */
export function suppliedRig(count: number): Rig {
  const chain = bigRig(Math.round((count * 8) / 9));
  const supplies = Array.from({ length: Math.ceil(chain.devices.length / 8) }, (_, i) =>
    device(`supply${i}`, 'supply-isolated', `Supply ${i}`),
  );
  const fed = chain.devices.map((d, i) =>
    d.id.startsWith('d')
      ? { ...d, supply: { device: `supply${Math.floor(i / 8)}`, outlet: String(1 + (i % 8)) } }
      : d,
  );
  return { ...chain, id: `supplied-${count}`, devices: [...fed, ...supplies] };
}

/**
 * Splits one behind the other, in one way of each an echo that comes later than the other way: a
 * mixer joins them again, so that the same playing arrives at ever more times.
 */
export function splitRig(count: number, sounds = 4): Rig {
  const devices: Device[] = [device('guitar', 'guitar-active', 'Guitar')];
  const leads: Lead[] = [];
  const join = (from: string, to: string, metres = 0.3) =>
    void leads.push(lead(`l${leads.length}`, from, to, metres));
  let at = 'guitar.out';
  for (let i = 0; devices.length < count - 2; i++) {
    const latencyMs = { value: 0.3 + (i % 7) * 0.37, from: 'measured', on: '2026-03-04' } as const;
    devices.push(
      device(`s${i}`, 'splitter-buffered', `Split ${i}`),
      device(`d${i}`, 'delay', `Echo ${i}`, { figures: { latencyMs } }),
      device(`m${i}`, 'mixer-line', `Mixer ${i}`),
    );
    join(at, `s${i}.in`);
    join(`s${i}.a`, `m${i}.a`);
    join(`s${i}.b`, `d${i}.in`);
    join(`d${i}.out`, `m${i}.b`);
    at = `m${i}.out`;
  }
  devices.push(device('combo', 'combo-tube', 'Combo'));
  join(at, 'combo.in', 3);
  return rigOf(`splits-${count}`, devices, leads, thirds(devices, sounds));
}

/**
 * A rig of switchers with eight loops, splits with an amplifier and its loop, and blocks in a
 * modeler, of about `count` devices.
 */
export function mixedRig(count: number, sounds = 4): Rig {
  const devices: Device[] = [device('guitar', 'guitar-active', 'Guitar')];
  const leads: Lead[] = [];
  let n = 0;
  const join = (from: string, to: string, metres = 0.3, type: Lead['type'] = 'instrument') =>
    void leads.push(lead(`l${n++}`, from, to, metres, type));
  let at = 'guitar.out';
  for (let i = 0; devices.length < count - 2; i++) {
    devices.push(device(`w${i}`, 'loop-switcher', `Switcher ${i}`));
    join(at, `w${i}.in`);
    for (let k = 1; k <= 8; k++) {
      devices.push(
        device(`p${i}x${k}`, KINDS[k % KINDS.length]!, `Pedal ${i} ${k}`, { engaged: true }),
      );
      join(`w${i}.send${k}`, `p${i}x${k}.in`);
      join(`p${i}x${k}.out`, `w${i}.return${k}`);
    }
    devices.push(
      device(`s${i}`, 'splitter-buffered', `Split ${i}`),
      device(`h${i}`, 'head-tube-two', `Head ${i}`),
      device(`e${i}`, 'delay', `Echo ${i}`, { engaged: true }),
      device(`c${i}`, 'cabinet', `Cabinet ${i}`),
    );
    join(`w${i}.out`, `s${i}.in`);
    join(`s${i}.b`, `h${i}.in`, 3);
    join(`h${i}.send`, `e${i}.in`, 3);
    join(`e${i}.out`, `h${i}.return`, 3);
    join(`h${i}.speaker`, `c${i}.in`, 1, 'speaker');
    devices.push(device(`m${i}`, 'modeler-floor', `Modeler ${i}`));
    join(`s${i}.a`, `m${i}.in`);
    let inside = `m${i}.fromIn`;
    for (let k = 0; k < 6; k++) {
      devices.push(
        device(
          `b${i}x${k}`,
          ['compressor', 'amp-block', 'cab-block', 'eq', 'chorus', 'reverb'][k]!,
          `Block ${i} ${k}`,
          { host: `m${i}` },
        ),
      );
      join(inside, `b${i}x${k}.in`, 0, 'inside');
      inside = `b${i}x${k}.out`;
    }
    join(inside, `m${i}.toOut`, 0, 'inside');
    at = `m${i}.out`;
  }
  devices.push(device('desk', 'console-input', 'House', { settings: { input: 'line' } }));
  join(at, 'desk.in', 20, 'balanced');
  const orders = ['1 2 3', '3 (1+2) 5', '8 4 2 1', '6 7'];
  return rigOf(
    `mixed-${count}`,
    devices,
    leads,
    Array.from({ length: sounds }, (_, k) =>
      sound(
        `s${k}`,
        `Sound ${k}`,
        [],
        Object.fromEntries(
          devices
            .filter((d) => d.id.startsWith('w'))
            .map((d) => [d.id, { settings: { order: orders[k % orders.length]! } }]),
        ),
      ),
    ),
  );
}
