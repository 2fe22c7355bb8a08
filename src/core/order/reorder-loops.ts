import { sure } from '../outcome';
import { byKey, reachable } from '../graph';
import type { Fix } from '../findings/finding';
import { settingOf, stateIn } from '../rig/device-state';
import { kindOf, settingWith } from '../kinds';
import { readLoopOrder, writeLoopOrder } from '../kinds/loop-order';
import { deviceOf, nameOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Rig, Sound } from '../rig/schema';

/** The loop that each device stands in, for one wiring; remembered while devices and leads stay the same. */
const held = new WeakMap<
  Rig['leads'],
  { devices: Rig['devices']; loops: Map<string, { switcher: string; loop: number }> }
>();

/** The switcher with a free order in whose loop a device stands, and the number of that loop. */
export function loopHolding(
  rig: Rig,
  device: string,
): { switcher: string; loop: number } | undefined {
  let known = held.get(rig.leads);
  if (known?.devices !== rig.devices)
    held.set(rig.leads, (known = { devices: rig.devices, loops: loopsHeld(rig) }));
  return known.loops.get(device);
}

/** Follows every send of every such switcher until its way comes back or ends. */
function loopsHeld(rig: Rig): Map<string, { switcher: string; loop: number }> {
  const loops = new Map<string, { switcher: string; loop: number }>();
  const switchers = rig.devices.filter((d) => settingWith(kindOf(d.kind), 'loop order'));
  if (!switchers.length) return loops;
  const outOf = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.from.device,
  );
  const isSwitcher = new Set(switchers.map((d) => d.id));
  for (const switcher of switchers) {
    kindOf(switcher.kind).loops?.forEach((loop, n) => {
      const isNew = (id: string) => !isSwitcher.has(id) && !loops.has(id);
      const sent = (outOf.get(switcher.id) ?? [])
        .filter((l) => loop.send.includes(l.from.jack))
        .map((l) => l.to.device);
      const onward = (id: string) => (outOf.get(id) ?? []).map((l) => l.to.device).filter(isNew);
      for (const id of reachable(sent.filter(isNew), onward))
        loops.set(id, { switcher: switcher.id, loop: n + 1 });
    });
  }
  return loops;
}

/**
 * Where both devices stand in loops of one switcher, changing the order of its loops in this sound
 * moves one before or behind the other: no plug is touched.
 */
export function reorderFix(
  rig: Rig,
  sound: Sound,
  device: string,
  other: string,
  move: 'before' | 'behind',
): Fix | undefined {
  const [mine, theirs] = [loopHolding(rig, device), loopHolding(rig, other)];
  if (!mine || !theirs || mine.switcher !== theirs.switcher || mine.loop === theirs.loop)
    return undefined;
  const switcher = sure(deviceOf(rig, mine.switcher));
  const kind = kindOf(switcher.kind);
  const read = readLoopOrder(
    String(settingOf(kind, switcher, stateIn(sound, switcher.id), 'order') ?? ''),
    kind.loops!.length,
  );
  if (!read.ok) return undefined;
  const order = read.value;
  const way = order.flat().find((w) => w.loop === mine.loop);
  if (!way) return undefined;
  const rest = order.map((g) => g.filter((w) => w !== way)).filter((g) => g.length);
  const at = rest.findIndex((g) => g.some((w) => w.loop === theirs.loop));
  if (at < 0) return undefined;
  rest.splice(move === 'before' ? at : at + 1, 0, [way]);
  const value = writeLoopOrder(rest);
  return {
    words:
      `Run the loops of ${nameOf(rig, switcher.id)} ` +
      `as ${value}${rig.sounds.includes(sound) ? ` in ${sound.name}` : ''}`,
    edits: [
      {
        edit: 'setSetting',
        device: switcher.id,
        setting: 'order',
        value,
        ...(rig.sounds.includes(sound) && { sound: sound.id }),
      },
    ],
  };
}
