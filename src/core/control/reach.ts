import { destinationFigures, type DestinationFigures } from '../analysis/destinations';
import { soundContext } from '../analysis/sound-context';
import { kindOf, stateIn } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Rig, SettingValue, Sound } from '../rig/schema';
import { fixed, showChange } from '../units';

/** A destination that a setting reaches in one sound, and what changes there between the setting's ends. */
export interface Reached { destination: string; what: string[] }

/** Changes smaller than these are not heard: level in dB, distortion in percent, latency in ms. */
const HEARD = { levelDb: 0.1, thdPercent: 0.5, latencyMs: 0.05 };

const withSetting = (sound: Sound, device: string, setting: string, value: SettingValue): Sound => {
  const state = stateIn(sound, device);
  return { ...sound, states: { ...sound.states, [device]: { ...state, settings: { ...state?.settings, [setting]: value } } } };
};

/** The ends of a setting: the two of a knob or a switch, all options of a choice. */
export function endsOf(rig: Rig, device: string, setting: string): SettingValue[] {
  const found = deviceOf(rig, device);
  const p = found && kindOf(found.kind).parameters.find((x) => x.id === setting);
  if (!p || p.type === 'text') return [];
  return p.type === 'knob' ? [p.min, p.max] : p.type === 'switch' ? [false, true] : p.options.map((o) => o.value);
}

/** Destinations whose level, saturation, width, latency or sources differ between the ends of a setting, by evaluating the rig at each. */
export function reachOf(rig: Rig, sound: Sound, device: string, setting: string): Reached[] {
  const heard = endsOf(rig, device, setting).map((value) => destinationFigures(soundContext(rig, withSetting(sound, device, setting, value)), []));
  const [first, ...rest] = heard;
  if (!first) return [];
  return first.flatMap((a, i) => {
    const what = [...new Set(rest.flatMap((other) => differences(a, other[i]!)))];
    return what.length ? [{ destination: a.device, what }] : [];
  });
}

function differences(a: DestinationFigures, b: DestinationFigures): string[] {
  const what: string[] = [];
  const [la, lb] = [a.levelDbu?.normal ?? null, b.levelDbu?.normal ?? null];
  if ((la === null) !== (lb === null)) what.push(la === null ? 'heard only at the far end' : 'silent at the far end');
  else if (la !== null && lb !== null && Math.abs(la - lb) > HEARD.levelDb) what.push(`level ${showChange(lb - la)}`);
  // Two sides of which only one moves: the louder one may hide it.
  else if (a.sides.some((s, k) => Math.abs((s.levelDbu?.normal ?? -200) - (b.sides[k]?.levelDbu?.normal ?? -200)) > HEARD.levelDb)) what.push('level of one side');
  if (a.thdPercent && b.thdPercent && Math.abs(a.thdPercent.normal - b.thdPercent.normal) > HEARD.thdPercent) what.push(`saturation ${fixed(a.thdPercent.normal)} to ${fixed(b.thdPercent.normal)} %`);
  if (a.channels !== b.channels && la !== null && lb !== null) what.push(`${a.channels} to ${b.channels}`);
  if (a.latencyMs !== null && b.latencyMs !== null && Math.abs(a.latencyMs - b.latencyMs) > HEARD.latencyMs) what.push(`latency ${fixed(a.latencyMs)} to ${fixed(b.latencyMs)} ms`);
  if ([...a.sources].sort().join() !== [...b.sources].sort().join() && la !== null && lb !== null) what.push('what is heard');
  return what;
}
