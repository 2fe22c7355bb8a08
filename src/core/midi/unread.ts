import { kindOf } from '../kinds';
import { sameJson } from '../rig/same-json';
import { deviceOf, jackOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { End, Lead, Rig, Sound } from '../rig/schema';
import { programOf } from './presses';
import { midiDevices } from './setup';

/** What says which knobs only a hand turns. */
type Wired = Pick<Rig, 'devices' | 'leads' | 'controls'>;
let last: { of: Wired; knobs: Map<string, ReadonlySet<string>> } | undefined;

/** The knobs of each device that no program, message, control or lead of a control reaches. */
function knobsByHand(rig: Rig): Map<string, ReadonlySet<string>> {
  const { devices, leads, controls } = rig;
  if (
    last?.of.devices === devices &&
    last.of.leads === leads &&
    sameJson(last.of.controls, controls)
  )
    return last.knobs;
  const midi = midiDevices(rig);
  const led = new Set([
    ...leads.flatMap((l) => (CONTROL_LEADS.includes(l.type) ? [l.from.device, l.to.device] : [])),
    ...(controls ?? []).flatMap((c) => [
      ...(c.device === undefined ? [] : [c.device]),
      ...c.assigns.map((a) => a.device),
    ]),
  ]);
  const knobs = new Map(
    devices.flatMap((d) => {
      if (midi.has(d.id) || led.has(d.id) || programOf(rig, d)) return [];
      const { parameters } = kindOf(d.kind);
      return [[d.id, new Set(parameters.flatMap((p) => (p.type === 'knob' ? [p.id] : [])))]];
    }),
  );
  last = { of: { devices, leads, controls }, knobs };
  return knobs;
}

/**
 * Whether two states of one sound are the same to messages and to feet: they differ in nothing, or
 * only in knobs that a hand alone turns.
 */
export function sameToMessages(rig: Rig, was: Sound, now: Sound): boolean {
  if (was === now) return true;
  const { states: a, ...restA } = was;
  const { states: b, ...restB } = now;
  if (!sameJson(restA, restB)) return false;
  const knobs = knobsByHand(rig);
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((id) => {
    if (a[id] === b[id] || sameJson(a[id], b[id])) return true;
    const byHand = knobs.get(id);
    if (!byHand) return false;
    const { settings: s = {}, ...ofA } = a[id] ?? {};
    const { settings: t = {}, ...ofB } = b[id] ?? {};
    return (
      sameJson(ofA, ofB) &&
      [...Object.keys(s), ...Object.keys(t)].every((key) => s[key] === t[key] || byHand.has(key))
    );
  });
}

/** Jacks through which sound goes and nothing else. */
const isOfSound = (rig: Rig, { device, jack }: End): boolean => {
  const d = deviceOf(rig, device);
  const signal = d && jackOf(d, jack)?.signal;
  return signal === 'audio' || signal === 'speaker' || signal === 'air';
};

/** Whether two states of one lead are the same to messages: what lies between jacks of sound may be any lead. */
export const sameLeadToMessages = (rig: Rig, was: Lead, now: Lead): boolean =>
  was === now ||
  (was.id === now.id &&
    was.type === now.type &&
    !CONTROL_LEADS.includes(now.type) &&
    sameJson([was.from, was.to], [now.from, now.to]) &&
    isOfSound(rig, now.from) &&
    isOfSound(rig, now.to));
