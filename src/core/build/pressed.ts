import { pressesBetween } from '../midi/presses';
import { sameToMessages } from '../midi/unread';
import { at } from '../outcome';
import { sameJson } from '../rig/same-json';
import type { Rig, Sound } from '../rig/schema';
import { sameDevicesBut } from '../rig/to-the-ear';

/** Pairs of sounds that are looked at, at most. */
const MOST_PAIRS = 120;

/** What of a device no press hangs on. */
const UNPRESSED = ['at', 'rack', 'gear', 'notes', 'mains', 'supply'] as const;

/** What presses hang on besides the sounds. */
type Pressed = Pick<Rig, 'devices' | 'leads' | 'controls'>;

/** Which devices a change presses, by the two sounds, while all else that counts stays as it is. */
interface Known {
  of: Pressed;
  pairs: WeakMap<Sound, WeakMap<Sound, string[]>>;
  /** The last state of each sound whose pairs are known. */
  sounds: Map<string, Sound>;
}
let last: Known | undefined;

/** What is known of a rig in which the same is pressed. Most of it is the very same objects as before. */
function knownOf(rig: Rig): Known {
  const { devices, leads, controls } = rig;
  const isSame = (was: Pressed) =>
    sameDevicesBut(was.devices, devices, UNPRESSED) &&
    (was.leads === leads ||
      (was.leads.length === leads.length &&
        was.leads.every((l, i) => {
          const now = at(leads, i);
          return l === now || (sameJson(l.from, now.from) && sameJson(l.to, now.to));
        }))) &&
    sameJson(was.controls, controls);
  const { pairs, sounds } =
    last && isSame(last.of) ? last : { pairs: new WeakMap<never, never>(), sounds: new Map() };
  last = { of: { devices, leads, controls }, pairs, sounds };
  return last;
}

/**
 * How often a foot goes to each device: its share of the changes between sounds, 0 to 1. All
 * ordered pairs, or 120 of them spread over all. What stands where does not count, so the answer is
 * kept while things are only moved about.
 */
export function pressedDevices(rig: Rig): ReadonlyMap<string, number> {
  const { pairs: known, sounds } = knownOf(rig);
  // A knob that a hand turns is no press: what is known of the sound before it holds.
  const heard = rig.sounds.map((sound) => {
    const was = sounds.get(sound.id);
    if (was && sameToMessages(rig, was, sound)) return was;
    sounds.set(sound.id, sound);
    return sound;
  });
  const found = new Map<string, number>();
  const all = heard.flatMap((from) =>
    heard.flatMap((to) => (from === to ? [] : [[from, to] as const])),
  );
  const as = { ...rig, sounds: heard };
  const stride = Math.max(1, Math.ceil(all.length / MOST_PAIRS));
  const looked = all.filter((_, i) => i % stride === 0);
  const pairs = looked.length;
  for (const [from, to] of looked) {
    let behind = known.get(from);
    if (!behind) known.set(from, (behind = new WeakMap<Sound, string[]>()));
    let pressed = behind.get(to);
    if (!pressed) {
      pressed = [...new Set(pressesBetween(as, from, to).presses.map((p) => p.device))];
      behind.set(to, pressed);
    }
    for (const id of pressed) found.set(id, (found.get(id) ?? 0) + 1);
  }
  for (const [id, n] of found) found.set(id, n / pairs);
  return found;
}
