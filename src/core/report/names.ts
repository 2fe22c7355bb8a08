import type { Device, Rig } from '../rig/schema';

/**
 * While a rig is worked out its devices are called by placeholders, which their names replace in all
 * that is told of it: so another name of a device changes no answer, and nothing is worked out again
 * for it. A placeholder is the device's id between two characters that nobody can type.
 */
const [OPEN, CLOSE] = ['\uE000', '\uE001'];
const PLACEHOLDER = /\uE000([^\uE001]*)\uE001/g;

const unnamedDevices = new WeakMap<Device, Device>();

function unnamedDevice(device: Device): Device {
  let unnamed = unnamedDevices.get(device);
  if (!unnamed) {
    unnamed = { ...device, name: `${OPEN}${device.id}${CLOSE}` };
    unnamedDevices.set(device, unnamed);
  }
  return unnamed;
}

/** A rig with placeholders for the names of its devices. */
export const withoutNames = (rig: Rig): Rig => ({
  ...rig,
  devices: rig.devices.map(unnamedDevice),
});

/** What was told once, and under which names. */
interface Told {
  as: unknown;
  names: ReadonlyMap<string, string | undefined>;
}

/** Puts names into what was worked out without them. */
export class Namer {
  /** What of earlier answers said: the same under the same names is the same object. */
  private readonly told = new WeakMap<object, Told>();
  private nameOf: (id: string) => string | undefined = () => undefined;

  /** From here on devices are called as they are in a rig. */
  call({ devices }: Pick<Rig, 'devices'>): void {
    const names = new Map(devices.map((d) => [d.id, d.name]));
    this.nameOf = (id) => names.get(id);
  }

  /** Whether it was told before, and all in it are called as they were then. */
  isTold(value: object): boolean {
    const before = this.told.get(value);
    return (
      before !== undefined && [...before.names].every(([id, name]) => this.nameOf(id) === name)
    );
  }

  /** The same with names; remembered for as long as those in it stay. What has none in it is not looked through. */
  named<T extends object>(value: T, nameless: readonly (keyof T)[] = []): T {
    if (this.isTold(value)) return this.told.get(value)?.as as T;
    const names = new Map<string, string | undefined>();
    const as = { ...value };
    let isNamed = false;
    for (const key in value) {
      if (nameless.includes(key)) continue;
      as[key] = this.in(value[key], names) as T[typeof key];
      isNamed ||= as[key] !== value[key];
    }
    const told = isNamed ? as : value;
    this.told.set(value, { as: told, names });
    return told;
  }

  /** All of a value with names in its words; what has none stays the same object. */
  private in(value: unknown, names: Map<string, string | undefined>): unknown {
    if (typeof value === 'string')
      return value.includes(OPEN)
        ? value.replace(PLACEHOLDER, (placeholder, id: string) => {
            const name = this.nameOf(id);
            names.set(id, name);
            return name ?? placeholder;
          })
        : value;
    if (typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) {
      let changed: unknown[] | undefined;
      value.forEach((item: unknown, i) => {
        const named = this.in(item, names);
        if (named !== item) (changed ??= [...(value as unknown[])])[i] = named;
      });
      return changed ?? value;
    }
    let changed: Record<string, unknown> | undefined;
    // Plain data, key by key without a list of keys: most of it is figures.
    for (const key in value) {
      const item = (value as Record<string, unknown>)[key];
      const named = this.in(item, names);
      if (named !== item) (changed ??= { ...value })[key] = named;
    }
    return changed ?? value;
  }
}
