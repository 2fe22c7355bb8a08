import { at as entryAt } from '../outcome';
import { type Arriving, arrivingFigures } from '../signal/destinations';
import { soundContext } from '../signal/sound-context';
import { stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Control, Rig, SettingValue, Sound } from '../rig/schema';
import { fixed, showChange } from '../units';
import { withControlAt } from './effective';

/** A destination that a control reaches in one sound, and what changes there between the control's ends. */
export interface Reached {
  destination: string;
  what: string[];
}

/**
 * Changes smaller than these are not heard: level in dB, distortion in percent, latency in ms,
 * share of wet signal in percent.
 */
const HEARD = { levelDb: 0.1, thdPercent: 0.5, latencyMs: 0.05, wetPercent: 1 };

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
 * Destinations whose level, saturation, width, latency or sources differ between the ends of a
 * setting, by evaluating the rig at each.
 */
export const reachOf = (rig: Rig, sound: Sound, device: string, setting: string): Reached[] =>
  reachedBetween(
    endsOf(rig, device, setting).map((value) =>
      heardIn(rig, withSetting(sound, device, setting, value)),
    ),
  );

/** The positions between which a control is judged: heel and toe, or off and on. */
export const endsOfControl = (control: Control): [number, number] | [boolean, boolean] =>
  control.type === 'pedal' ? [0, 100] : [false, true];

/** Destinations that a control reaches in a sound, with all that it moves at once. */
export const reachOfControl = (rig: Rig, sound: Sound, control: Control): Reached[] =>
  reachedBetween(
    endsOfControl(control).map((at) => heardIn(rig, withControlAt(rig, sound, control, at))),
  );

function reachedBetween([first, ...rest]: Arriving[][]): Reached[] {
  return (first ?? []).flatMap((a, i) => {
    const what = [...new Set(rest.flatMap((other) => differences(a, entryAt(other, i))))];
    return what.length ? [{ destination: a.device, what }] : [];
  });
}

function differences(a: Arriving, b: Arriving): string[] {
  const what: string[] = [];
  const [la, lb] = [a.levelDbu?.normal ?? null, b.levelDbu?.normal ?? null];
  if ((la === null) !== (lb === null))
    what.push(la === null ? 'heard only at the far end' : 'silent at the far end');
  else if (la !== null && lb !== null && Math.abs(la - lb) > HEARD.levelDb)
    what.push(`level ${showChange(lb - la)}`);
  // Two sides of which only one moves: the louder one may hide it.
  else if (
    a.sides.some(
      (s, k) =>
        Math.abs((s.levelDbu?.normal ?? -200) - (b.sides[k]?.levelDbu?.normal ?? -200)) >
        HEARD.levelDb,
    )
  )
    what.push('level of one side');
  if (
    a.thdPercent &&
    b.thdPercent &&
    Math.abs(a.thdPercent.normal - b.thdPercent.normal) > HEARD.thdPercent
  )
    what.push(`saturation ${fixed(a.thdPercent.normal)} to ${fixed(b.thdPercent.normal)} %`);
  if (
    a.wetPercent !== null &&
    b.wetPercent !== null &&
    Math.abs(a.wetPercent - b.wetPercent) > HEARD.wetPercent
  )
    what.push(`wet ${fixed(a.wetPercent, 0)} to ${fixed(b.wetPercent, 0)} %`);
  if (a.channels !== b.channels && la !== null && lb !== null)
    what.push(`${a.channels} to ${b.channels}`);
  if (
    a.latencyMs !== null &&
    b.latencyMs !== null &&
    Math.abs(a.latencyMs - b.latencyMs) > HEARD.latencyMs
  )
    what.push(`latency ${fixed(a.latencyMs)} to ${fixed(b.latencyMs)} ms`);
  if ([...a.sources].sort().join() !== [...b.sources].sort().join() && la !== null && lb !== null)
    what.push('what is heard');
  return what;
}
