import type { Device, SettingValue, Sound, State } from './schema';
import type { DeviceState, Kind } from '../kinds/kind';

const own = <T>(record: Record<string, T> | undefined, key: string): T | undefined =>
  record && Object.hasOwn(record, key) ? record[key] : undefined;

/** What a sound says of a device, if anything. */
export const stateIn = (sound: Sound | undefined, device: string): State | undefined =>
  own(sound?.states, device);

/**
 * Whether a device is engaged in a sound: the sound's word, else the device's own, else what its
 * kind starts as.
 */
export const isEngaged = (kind: Kind, device: Device, state?: State): boolean =>
  kind.alwaysOn === true || (state?.engaged ?? device.engaged ?? kind.startsEngaged === true);

/** A setting in a sound: the sound's value, else the device's own, else the kind's initial one. */
export function settingOf(
  kind: Kind,
  device: Device,
  state: State | undefined,
  id: string,
): SettingValue | undefined {
  return (
    own(state?.settings, id) ??
    own(device.settings, id) ??
    kind.parameters.find((p) => p.id === id)?.initial
  );
}

/**
 * Resolves a device's figures and settings for one sound: the sound's value, else the device's own,
 * else the kind's.
 */
export function resolveState(kind: Kind, device: Device, state?: State): DeviceState {
  const set = (id: string) => {
    const value = settingOf(kind, device, state, id);
    if (value === undefined) throw new Error(`${kind.id} has no setting "${id}"`);
    return value;
  };
  return {
    engaged: isEngaged(kind, device, state),
    figure: (id) => {
      const value =
        own(device.figures, id)?.value ?? kind.figures.find((f) => f.id === id)?.typical;
      if (value === undefined) throw new Error(`${kind.id} has no figure "${id}"`);
      return value;
    },
    knob: (id) => Number(set(id)),
    choice: (id) => String(set(id)),
    on: (id) => set(id) === true,
    text: (id) => String(set(id)),
  };
}
