import type { SettingValue } from '../rig/schema';
import { copyOf, type Effect, type Machine } from './stand-in';
import { type Message } from './message';
import type { MidiDevice } from './setup';
import { type Stage } from './stage';
import { type Because } from './mismatch';

/**
 * What a message did, and when it had done it: the time its last byte arrived and the device's own
 * response.
 */
export interface Landing {
  device: string;
  at: number;
  arrived: number;
  effect: Effect;
  message: Message;
  silentFrom?: number;
}

/** How long after it was read a message has done what it does, in ms. */
export const msUntilDone = (m: MidiDevice, { what }: Effect): number =>
  what === 'control' ? m.controlMs : what === 'bank' ? 0 : m.programMs;

/**
 * The rig once everything has landed, in the order in which it does, whatever order it was sent in: a
 * program that lands late goes over what a control set while it loaded. Notes which settings those are.
 */
export function landed(
  { memory }: Stage,
  start: Machine,
  landings: readonly Pick<Landing, 'device' | 'at' | 'effect'>[],
  because: Map<string, Because>,
): Machine {
  const machine = copyOf(start);
  const set = new Map<string, Map<string, SettingValue>>();
  for (const { device, effect } of landings) {
    const standing = machine.get(device);
    if (!standing) continue;
    // A bank that was told stays told: the next program is looked for there.
    if ('bank' in effect) standing.bank = effect.bank;
    if (effect.what === 'program' || effect.what === 'unknown') {
      standing.program = { bank: effect.bank, number: effect.number };
      if (effect.what === 'unknown') continue;
      standing.values = memory.intent(effect.recalled, device);
      for (const [key, value] of set.get(device) ?? [])
        if (standing.values.get(key) !== value) because.set(key, 'overwritten');
      set.delete(device);
    } else if (effect.what === 'control') {
      const { setting, toggled } = effect;
      const value = toggled ? standing.values.get(setting) !== true : effect.value;
      standing.values = new Map(standing.values).set(setting, value);
      set.set(device, (set.get(device) ?? new Map<string, SettingValue>()).set(setting, value));
    }
  }
  return machine;
}

/** Remembers what a message touched, and how it would have gone wrong. */
export function noteEffect(
  device: string,
  effect: Effect,
  touched: Map<string, Set<string>>,
  because: Map<string, Because>,
): void {
  if (effect.what === 'nothing') return;
  const mine = touched.get(device) ?? new Set();
  touched.set(device, mine);
  mine.add(effect.what === 'control' ? effect.setting : 'program');
  if (effect.what === 'control') because.set(effect.setting, effect.toggled ? 'toggled' : 'missed');
  if (effect.what === 'unknown') because.set(`${device} program`, 'unknown program');
}
