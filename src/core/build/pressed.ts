import { pressesBetween } from '../midi/presses';
import type { Rig, Sound } from '../rig/schema';

/** Pairs of sounds that are looked at, at most. */
const MOST_PAIRS = 120;

/** Which devices a change presses, by the two sounds, while all else that counts stays as it is. */
let last: { key: string; pairs: WeakMap<Sound, WeakMap<Sound, string[]>> } | undefined;

/**
 * How often a foot goes to each device: its share of the changes between sounds, 0 to 1. All
 * ordered pairs, or 120 of them spread over all. What stands where does not count, so the answer is
 * kept while things are only moved about.
 */
export function pressedDevices(rig: Rig): ReadonlyMap<string, number> {
  const key = JSON.stringify([
    rig.devices.map((d) => ({
      ...d,
      at: undefined,
      rack: undefined,
      gear: undefined,
      notes: undefined,
      mains: undefined,
      supply: undefined,
    })),
    rig.leads.map((l) => [l.from, l.to]),
    rig.controls,
  ]);
  if (last?.key !== key) last = { key, pairs: new WeakMap() };
  const { pairs: known } = last;
  const found = new Map<string, number>();
  const all = rig.sounds.flatMap((from) =>
    rig.sounds.flatMap((to) => (from === to ? [] : [[from, to] as const])),
  );
  const stride = Math.max(1, Math.ceil(all.length / MOST_PAIRS));
  const looked = all.filter((_, i) => i % stride === 0);
  const pairs = looked.length;
  for (const [from, to] of looked) {
    let behind = known.get(from);
    if (!behind) known.set(from, (behind = new WeakMap<Sound, string[]>()));
    let pressed = behind.get(to);
    if (!pressed) {
      pressed = [...new Set(pressesBetween(rig, from, to).presses.map((p) => p.device))];
      behind.set(to, pressed);
    }
    for (const id of pressed) found.set(id, (found.get(id) ?? 0) + 1);
  }
  for (const [id, n] of found) found.set(id, n / pairs);
  return found;
}
