import { learnKind, kindOf, type DeviceState, type Kind, type Pass } from '../../kinds';
import { isEngaged, settingOf } from '../../rig/device-state';
import { blocksOf, deviceOf } from '../../rig/find';
import type { Device, Lead, SettingValue, Sound } from '../../rig/schema';
import { sameJson } from '../../rig/same-json';
import type { Whole } from './fault';

/** What becomes of a device's passes: its kind's own with a change. */
type Passing = (
  own: (state: DeviceState) => Pass[],
  state: DeviceState,
  kind: Kind,
  isPlugged: (jack: string) => boolean,
) => Pass[];

/**
 * A rig in which some devices pass signal otherwise. Each gets a kind that is its own with the change,
 * known under a name of its own, so that everything that reads kinds reads the fault.
 */
export function passing(
  whole: Whole,
  devices: readonly string[],
  key: string,
  change: Passing,
): Whole {
  const chosen = new Set(devices);
  return {
    ...whole,
    rig: {
      ...whole.rig,
      devices: whole.rig.devices.map((d) =>
        chosen.has(d.id) ? { ...d, kind: faulty(d, key, change) } : d,
      ),
    },
  };
}

function faulty(device: Device, key: string, change: Passing): string {
  return learnKind(`faulty.${key}.${device.kind}`, (id) => {
    const kind = kindOf(device.kind);
    return {
      ...kind,
      id,
      passes: (state, plugged) =>
        change(
          (s) => kind.passes(s, plugged),
          state,
          kind,
          (jack) => plugged(jack),
        ),
    };
  }).id;
}

/** Leads that nothing goes through any more, while their plugs stay where they are. */
export const cut = (whole: Whole, leads: readonly string[]): Whole => ({
  ...whole,
  rig: { ...whole.rig, leads: whole.rig.leads.filter((l) => !leads.includes(l.id)) },
});

/** Leads that are otherwise: another end, another capacitance. */
export const withLeads = (whole: Whole, change: (lead: Lead) => Lead): Whole => ({
  ...whole,
  rig: { ...whole.rig, leads: whole.rig.leads.map(change) },
});

/** A jack that holds a plug, or acts as if it did. */
export function withPlug(whole: Whole, device: string, jack: string): Whole {
  const plugged = new Map(whole.plugged);
  plugged.set(device, new Set([...(plugged.get(device) ?? []), jack]));
  return { ...whole, plugged };
}

/** A sound, changed further. */
const then = (whole: Whole, change: (sound: Sound) => Sound): Whole => ({
  ...whole,
  sound: (s) => change(whole.sound(s)),
});

/** A device that stands otherwise in every sound; a sound in which it does already stays as it is. */
export function standing(
  whole: Whole,
  device: string,
  wanted: { engaged?: boolean; settings?: Record<string, SettingValue> },
): Whole {
  const found = deviceOf(whole.rig, device);
  if (!found) return whole;
  const kind = kindOf(found.kind);
  return then(whole, (s) => {
    const state = s.states[device];
    const stands =
      (wanted.engaged === undefined || isEngaged(kind, found, state) === wanted.engaged) &&
      Object.entries(wanted.settings ?? {}).every(
        ([id, value]) => settingOf(kind, found, state, id) === value,
      );
    if (stands) return s;
    const settings = { ...state?.settings, ...wanted.settings };
    return { ...s, states: { ...s.states, [device]: { ...state, ...wanted, settings } } };
  });
}

/** Devices that stand in each sound as another sound has them, with all that lives inside them. */
export function standingAsIn(
  whole: Whole,
  devices: readonly string[],
  other: (sound: Sound) => Sound | undefined,
): Whole {
  const all = [...new Set(devices.flatMap((d) => [d, ...blocksOf(whole.rig, d).map((b) => b.id)]))];
  return then(whole, (sound) => {
    const as = other(sound);
    if (!as) return sound;
    if (all.every((d) => sameJson(as.states[d], sound.states[d]))) return sound;
    const states = { ...sound.states };
    for (const d of all) {
      const state = as.states[d];
      if (state) states[d] = state;
      else delete states[d];
    }
    return { ...sound, states };
  });
}

/** The name of a noise that is put in, and how it is told again where it is heard. */
export const NOISES = ['hum', 'crackle', 'hiss'] as const;
export type Noise = (typeof NOISES)[number];
/** The name under which a noise that a fault makes runs through the circuit. */
export const noiseName = (noise: Noise): string => `fault ${noise}`;

/**
 * How a noise gets in, as a source behind a resistance: hum and crackle of a lead couple in through
 * megohms, so that they are loud on a line of high impedance and soft on one of low impedance; hiss
 * is made by a stage itself. A simplification; levels in dBu, resistances in Ω.
 */
const GETS_IN: Record<Noise, { dbu: number; ohms: number }> = {
  hum: { dbu: 36, ohms: 2.2e6 },
  crackle: { dbu: 40, ohms: 2.2e6 },
  hiss: { dbu: -38, ohms: 1000 },
};

/** A device with a noise at one of its jacks. */
export const noisyAt = (whole: Whole, device: string, jack: string, noise: Noise): Whole =>
  passing(whole, [device], `${noise} ${jack}`, (own, state) => [
    ...own(state),
    {
      is: 'source',
      at: noiseName(noise),
      name: noiseName(noise),
      ohms: 0.1,
      henries: 0,
      nominalDbu: GETS_IN[noise].dbu,
      peakDbu: GETS_IN[noise].dbu,
      noiseDbu: -Infinity,
      touch: false,
      bare: false,
    },
    noise === 'hiss'
      ? addedAt(jack)
      : { is: 'resistor', a: noiseName(noise), b: jack, ohms: GETS_IN[noise].ohms },
  ]);

/** A stage that adds its noise to what leaves by a jack. */
const addedAt = (jack: string): Pass => ({
  is: 'stage',
  id: noiseName('hiss'),
  from: noiseName('hiss'),
  to: jack,
  inOhms: 1e6,
  outOhms: GETS_IN.hiss.ohms,
  gainDb: 0,
  ceiling: { dbu: 60, shape: 'hard', meant: false },
  outputDb: 0,
  noiseDbu: -Infinity,
  latencyMs: 0,
  inverts: false,
  tiltDb: 0,
  groundThrough: false,
});
