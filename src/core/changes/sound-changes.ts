import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { nameOf } from '../rig/find';
import { sameJson } from '../rig/same-json';
import { positionWords } from '../rig/words';
import type { Device, Rig, Sound, State } from '../rig/schema';
import { same, byId } from './parts';
import { stateChanges } from './device-changes';

export function soundChanges(before: Rig, after: Rig): string[] {
  const lines: string[] = [];
  const old = byId<Sound>(before.sounds);
  const now = byId<Sound>(after.sounds);
  for (const s of before.sounds) if (!now.has(s.id)) lines.push(`removed the sound ${s.name}`);
  for (const s of after.sounds) {
    const was = old.get(s.id);
    if (!was) {
      lines.push(`added the sound ${s.name}`);
      continue;
    }
    if (was.name !== s.name) lines.push(`renamed the sound ${was.name} to ${s.name}`);
    if (was.notes !== s.notes) lines.push(`changed the notes of ${s.name}`);
    for (const d of after.devices)
      lines.push(...stateChanges(d, was.states[d.id], s.states[d.id], `in ${s.name}`));
    for (const id of new Set([
      ...Object.keys(was.controls ?? {}),
      ...Object.keys(s.controls ?? {}),
    ])) {
      const at = s.controls?.[id];
      if (was.controls?.[id] !== at && after.controls?.some((c) => c.id === id))
        lines.push(
          `${sure(after.controls.find((c) => c.id === id)).name} ${positionWords(at)} in ${s.name}`,
        );
    }
    for (const id of new Set([...(was.sends ?? []), ...(s.sends ?? [])].map((x) => x.from))) {
      const of = (list: Sound['sends']) => (list ?? []).filter((x) => x.from === id);
      if (!sameJson(of(was.sends), of(s.sends)))
        lines.push(`changed what ${nameOf(after, id)} sends in ${s.name}`);
    }
  }
  const order = (r: Rig, other: Map<string, Sound>) =>
    r.sounds.filter((s) => other.has(s.id)).map((s) => s.id);
  if (!same(order(before, now), order(after, old))) lines.push('changed the order of the sounds');
  return lines;
}

/** The changes from one sound to another within a rig, device by device. */
export function compareSounds(rig: Rig, a: string, b: string): string[] {
  const [one, two] = [a, b].map((id) => rig.sounds.find((s) => s.id === id));
  if (!one || !two) return [];
  return rig.devices.flatMap((d) =>
    stateChanges(d, effective(d, one), effective(d, two), `in ${two.name}`),
  );
}

const effective = (d: Device, s: Sound): State => ({
  engaged: s.states[d.id]?.engaged ?? d.engaged ?? kindOf(d.kind).startsEngaged ?? false,
  settings: Object.fromEntries(
    kindOf(d.kind).parameters.map((p) => [
      p.id,
      s.states[d.id]?.settings?.[p.id] ?? d.settings?.[p.id] ?? p.initial,
    ]),
  ),
});
