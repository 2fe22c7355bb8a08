import { isEngaged, settingOf, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { blocksOf, deviceOf } from '../rig/find';
import type { Rig, SettingValue, Sound, State } from '../rig/schema';
import type { Scene } from '../control/scene';
import { addressIn, hears, type Orders } from './commands';
import type { Message } from './message';
import { sortOf } from './message-sorts';
import type { MidiDevice } from './setup';

/**
 * What a simulated device is doing: its settings by "device setting", the program it is on, and the
 * bank it was told.
 */
export interface Standing {
  values: ReadonlyMap<string, SettingValue>;
  bank: number;
  program?: { bank: number; number: number };
  /** The parameter that was chosen last (NRPN), 14 bits. */
  parameter?: number;
  /** The upper seven bits of controls and parameters of 14 bits, as they came last. */
  halves?: ReadonlyMap<string, number>;
  /** Whether its transport runs, and at which sixteenth note it stands. */
  isRunning?: boolean;
  sixteenths?: number;
}

/** The simulated rig: every device that knows MIDI, in some state. */
export type Machine = Map<string, Standing>;

/** A scene as each device keeps it: what its settings are, and who keeps it at which program. */
export interface Memory {
  intent: (scene: Scene, device: string) => ReadonlyMap<string, SettingValue>;
  at: (device: string, bank: number, number: number) => readonly Scene[];
}

/** Everything that a scene says of a device and of the blocks inside it. */
export function intentOf(rig: Rig, scene: Scene, device: string): Map<string, SettingValue> {
  const values = new Map<string, SettingValue>();
  const own = deviceOf(rig, device);
  for (const d of own ? [own, ...blocksOf(rig, device)] : []) {
    const kind = kindOf(d.kind);
    const state = stateIn(scene.sound, d.id);
    if (!kind.alwaysOn) values.set(`${d.id} engaged`, isEngaged(kind, d, state));
    for (const p of kind.parameters) {
      // What stands under a foot is not part of a program.
      const value =
        p.type === 'knob' && p.foot && d.host === undefined
          ? undefined
          : settingOf(kind, d, state, p.id);
      if (value !== undefined) values.set(`${d.id} ${p.id}`, value);
    }
  }
  return values;
}

/** What the devices of a rig remember of its scenes. */
export function memoryOf({ rig, scenes, graph }: Orders): Memory {
  const intents = new Map<string, ReadonlyMap<string, SettingValue>>();
  const programs = new Map<string, Scene[]>();
  for (const scene of scenes) {
    for (const id of graph.devices.keys()) {
      const a = addressIn(scene, id);
      if (!a) continue;
      const key = `${id} ${a.bank ?? 0} ${a.number}`;
      programs.set(key, [...(programs.get(key) ?? []), scene]);
    }
  }
  return {
    intent: (scene, device) => {
      const key = `${scene.id} ${device}`;
      let found = intents.get(key);
      if (!found) intents.set(key, (found = intentOf(rig, scene, device)));
      return found;
    },
    at: (device, bank, number) => programs.get(`${device} ${bank} ${number}`) ?? [],
  };
}

/** The simulated rig standing as a scene wants it. */
export function standingIn(orders: Orders, memory: Memory, scene: Scene): Machine {
  return new Map(
    [...orders.graph.devices.keys()].map((id) => {
      const a = addressIn(scene, id);
      return [
        id,
        {
          values: memory.intent(scene, id),
          bank: a?.bank ?? 0,
          ...(a && { program: { bank: a.bank ?? 0, number: a.number } }),
        },
      ] as const;
    }),
  );
}

/** A scene with settings as devices stand, by "device setting", so that it can be listened to. */
export function soundOf(
  scene: Scene,
  standing: readonly ReadonlyMap<string, SettingValue>[],
): Sound {
  const states: Record<string, State> = { ...scene.sound.states };
  for (const values of standing)
    for (const [key, value] of values) {
      const [id = '', setting = ''] = key.split(' ');
      states[id] = withValue(states[id], setting, value);
    }
  return { ...scene.sound, id: 'standing', name: 'As it stands', states };
}

/** A state with one setting put to a value. */
export const withValue = (state: State | undefined, setting: string, value: SettingValue): State =>
  setting === 'engaged'
    ? { ...state, engaged: value === true }
    : { ...state, settings: { ...state?.settings, [setting]: value } };

/** A copy that can be changed without the other: values are never changed in place. */
export const copyOf = (machine: Machine): Machine =>
  new Map([...machine].map(([id, s]) => [id, { ...s }] as const));

/**
 * What a message did to a device. `recalled` is the scene of a program that was called; `unknown` a
 * program that holds nothing.
 */
export type Effect =
  | { what: 'nothing' }
  | { what: 'bank'; bank: number }
  | { what: 'program'; bank: number; number: number; recalled: Scene }
  | { what: 'unknown'; bank: number; number: number }
  | { what: 'control'; setting: string; value: SettingValue; toggled: boolean };

/** Lets a simulated device take a message, as its reception table says. What is not for it does nothing. */
export function take(
  orders: Orders,
  memory: Memory,
  device: MidiDevice,
  standing: Standing,
  message: Message,
): Effect {
  const isHeard = !('channel' in message) || hears(device, message.channel);
  return isHeard
    ? sortOf(message).take(message, { orders, memory, device, standing })
    : { what: 'nothing' };
}
