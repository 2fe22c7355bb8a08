import { type Arriving, arrivingFigures } from '../signal/destinations';
import type { Flowing } from '../signal/flow';
import { listenedTo, soundContext } from '../signal/sound-context';
import { stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Control, Rig, SettingValue, Sound } from '../rig/schema';
import { withControlAt } from './effective';
import { differences, hearingOf } from './hearing';

/** A destination that a control reaches in one sound, and what changes there between the control's ends. */
export interface Reached {
  destination: string;
  what: string[];
}

/** A sound with one setting of one device put to a value. */
export const withSetting = (
  sound: Sound,
  device: string,
  setting: string,
  value: SettingValue,
): Sound => {
  const state = stateIn(sound, device);
  return {
    ...sound,
    states: {
      ...sound.states,
      [device]: { ...state, settings: { ...state?.settings, [setting]: value } },
    },
  };
};

/** What arrives at every destination. */
export const heardIn = (rig: Rig, sound: Sound): Arriving[] =>
  arrivingFigures(soundContext(rig, sound));

/**
 * Levels at every destination in one sound after another that differ little from it: what does not differ is
 * taken over, and noise is left out.
 */
export function levelsNear(rig: Rig, sound: Sound): (near: Sound) => Arriving[] {
  const known = soundContext(rig, sound);
  return (near) => arrivingFigures(listenedTo(known, rig, near));
}

/** The ends of a setting: the two of a knob or a switch, all options of a choice. */
export function endsOf(rig: Rig, device: string, setting: string): SettingValue[] {
  const found = deviceOf(rig, device);
  const p = found && kindOf(found.kind).parameters.find((x) => x.id === setting);
  if (!p || p.type === 'text') return [];
  return p.type === 'knob'
    ? [p.min, p.max]
    : p.type === 'switch'
      ? [false, true]
      : p.options.map((o) => o.value);
}

/**
 * Destinations at which anything that is heard differs between the ends of a setting, by evaluating
 * the rig at each: of a choice, at every option. What does not differ from a run that is known to be
 * `like` is taken over.
 */
export const reachOf = (
  rig: Rig,
  sound: Sound,
  device: string,
  setting: string,
  like?: Flowing,
): Reached[] =>
  reachedBetween(
    rig,
    endsOf(rig, device, setting).map((value) => withSetting(sound, device, setting, value)),
    like,
  );

/** The positions between which a control is judged: heel and toe, or off and on. */
export const endsOfControl = (control: Control): [number, number] | [boolean, boolean] =>
  control.type === 'pedal' ? [0, 100] : [false, true];

/** Destinations that a control reaches in a sound, with all that it moves at once. */
export const reachOfControl = (
  rig: Rig,
  sound: Sound,
  control: Control,
  like?: Flowing,
): Reached[] =>
  reachedBetween(
    rig,
    endsOfControl(control).map((at) => withControlAt(rig, sound, control, at)),
    like,
  );

function reachedBetween(rig: Rig, [one, ...others]: Sound[], like?: Flowing): Reached[] {
  if (!one) return [];
  const first = hearingOf(rig, one, like);
  const rest = others.map((sound) => hearingOf(rig, sound, first.flowing));
  return first.arriving.flatMap((a, i) => {
    const what = [...new Set(rest.flatMap((other) => differences(first, other, i)))];
    return what.length ? [{ destination: a.device, what }] : [];
  });
}
