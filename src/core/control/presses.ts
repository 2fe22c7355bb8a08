import { isEngaged, kindOf, settingOf, stateIn } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Device, Rig, Sound } from '../rig/schema';
import { settingWords } from '../rig/words';

/** One thing a foot or a hand does to come from one sound to another: on which device, and what changes by it. */
export interface Press { device: string; changes: string[] }

/** What it takes to come from one sound to another. */
export interface Presses {
  /** Foot switches: one a device, or one a programmable host or switcher, whose program changes everything inside at once. */
  presses: Press[];
  /** Knobs and pedals that have to be set by hand or foot, because their device has no programs. */
  turns: Press[];
}

/** The device whose program sets this one: the nearest programmable host around it, or itself. */
function programOf(rig: Rig, device: Device): Device | undefined {
  for (let at: Device | undefined = device; at; at = at.host === undefined ? undefined : deviceOf(rig, at.host)) {
    if (kindOf(at.kind).programs) return at;
  }
  return undefined;
}

/**
 * Presses and turns from one sound to another, as the rig stands: each device with a switch of its own is one press, and a
 * device with programs is one press for all that changes in it.
 */
export function pressesBetween(rig: Rig, from: Sound, to: Sound): Presses {
  const presses = new Map<string, Press>();
  const turns = new Map<string, Press>();
  const note = (where: Map<string, Press>, device: string, words: string) => {
    const known = where.get(device);
    if (known) known.changes.push(words);
    else where.set(device, { device, changes: [words] });
  };
  for (const device of rig.devices) {
    const kind = kindOf(device.kind);
    const [a, b] = [stateIn(from, device.id), stateIn(to, device.id)];
    const program = programOf(rig, device);
    const at = program?.id ?? device.id;
    const named = at === device.id ? '' : `${device.name} `;
    // Which instrument is played is no press of a switch.
    if (kind.job !== 'instrument' && isEngaged(kind, device, a) !== isEngaged(kind, device, b)) {
      const words = kind.stateWords ?? { on: 'on', off: 'off' };
      note(presses, at, `${named}${isEngaged(kind, device, b) ? words.on : words.off}`);
    }
    for (const p of kind.parameters) {
      const value = settingOf(kind, device, b, p.id);
      if (value === undefined || value === settingOf(kind, device, a, p.id)) continue;
      // A knob on a pedal that is off in the second sound can wait.
      if (p.type === 'knob' && !program && !isEngaged(kind, device, b)) continue;
      note(p.type === 'knob' && !program ? turns : presses, at, `${named}${settingWords(kind.id, p.id, value)}`);
    }
  }
  return { presses: [...presses.values()], turns: [...turns.values()] };
}
