import { findKind } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Assignment, Control, Rig, SettingValue, Sound, State } from '../rig/schema';
import { alongCurve } from '../units';

/** The share of its useful travel at which a pedal stands; `at` is in percent from the heel. */
export function travelled(control: Control, at: number): number {
  const { from = 0, to = 100 } = control.travel ?? {};
  return to === from ? (at >= to ? 1 : 0) : Math.min(1, Math.max(0, (at - from) / (to - from)));
}

/** The ends between which an assignment moves its setting, from the kind's own where it says nothing. */
export function endsOfAssignment(rig: Rig, a: Assignment): [number, number] {
  const device = deviceOf(rig, a.device);
  const p = device && findKind(device.kind)?.parameters.find((x) => x.id === a.setting);
  const [low, high] = p?.type === 'knob' ? [p.min, p.max] : [0, 10];
  return [a.min ?? low, a.max ?? high];
}

/** What an assignment sets when its control stands at a position: percent from the heel, or on and off. */
export function valueAt(
  rig: Rig,
  control: Control,
  a: Assignment,
  at: number | boolean,
): SettingValue {
  if (typeof at === 'boolean') return at ? (a.on ?? true) : (a.off ?? false);
  const share = travelled(control, at);
  if (a.setting === 'engaged' || a.on !== undefined || a.off !== undefined)
    return share >= 0.5 ? (a.on ?? true) : (a.off ?? false);
  const [min, max] = endsOfAssignment(rig, a);
  return alongCurve(a.curve ?? 'linear', share, min, max);
}

/** Whether an assignment holds in a sound. */
export const holdsIn = (a: Assignment, sound: string): boolean =>
  !a.sounds?.length || a.sounds.includes(sound);

/** A sound with a control put somewhere: what it moves takes the value that it has there. */
export function withControlAt(
  rig: Rig,
  sound: Sound,
  control: Control,
  at: number | boolean,
): Sound {
  const states: Record<string, State> = { ...sound.states };
  for (const a of control.assigns) {
    if (!holdsIn(a, sound.id) || !deviceOf(rig, a.device)) continue;
    const value = valueAt(rig, control, a, at);
    const state = Object.hasOwn(states, a.device) ? states[a.device] : undefined;
    states[a.device] =
      a.setting === 'engaged'
        ? { ...state, engaged: value === true }
        : { ...state, settings: { ...state?.settings, [a.setting]: value } };
  }
  return { ...sound, states };
}

const known = new WeakMap<
  Sound,
  { controls: Rig['controls']; devices: Rig['devices']; sound: Sound }
>();

/**
 * A sound as its controls leave it; the same object as long as nothing changes, and the sound
 * itself where no control is placed.
 */
export function effectiveSound(rig: Rig, sound: Sound): Sound {
  if (!sound.controls || !rig.controls?.length) return sound;
  const hit = known.get(sound);
  if (hit?.controls === rig.controls && hit.devices === rig.devices) return hit.sound;
  const made = rig.controls.reduce((s, c) => {
    const at = Object.hasOwn(sound.controls!, c.id) ? sound.controls![c.id] : undefined;
    return at === undefined ? s : withControlAt(rig, s, c, at);
  }, sound);
  known.set(sound, { controls: rig.controls, devices: rig.devices, sound: made });
  return made;
}

/** A rig whose sounds are as their controls leave them; the rig itself where no control is placed. */
export function effectiveRig(rig: Rig): Rig {
  const sounds = rig.sounds.map((s) => effectiveSound(rig, s));
  return sounds.every((s, i) => s === rig.sounds[i]) ? rig : { ...rig, sounds };
}
