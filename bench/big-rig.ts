import { device, lead, sound } from '../src/core/demo/compose';
import type { Device, Lead, Rig } from '../src/core/rig';

const KINDS = ['drive-low', 'chorus', 'delay', 'compressor', 'eq', 'buffer', 'boost', 'phaser', 'volume-active', 'drive-mid'];

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
  const engaged = (s: number) => devices.filter((d, i) => d.id.startsWith('d') && (i + s) % 3 === 0).map((d) => d.id);
  return { format: 'yantrel-rig', version: 1, id: `big-${count}`, name: `${count} devices`, devices, leads, sounds: Array.from({ length: sounds }, (_, s) => sound(`s${s}`, `Sound ${s}`, engaged(s))) };
}
