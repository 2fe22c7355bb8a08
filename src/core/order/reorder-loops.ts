import type { Fix } from '../findings/finding';
import { kindOf, settingOf, stateIn } from '../kinds';
import { readLoopOrder, writeLoopOrder } from '../kinds/loop-order';
import { deviceOf, nameOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';

/** Longer rows of devices in one loop are not followed. */
const FAR = 40;

/** The switcher with a free order in whose loop a device stands, and the number of that loop. */
export function loopHolding(rig: Rig, device: string): { switcher: string; loop: number } | undefined {
  const seen = new Set<string>();
  let at = [device];
  for (let step = 0; at.length && step < FAR; step++) {
    const next: string[] = [];
    for (const lead of rig.leads) {
      if (!at.includes(lead.to.device) || seen.has(lead.id)) continue;
      seen.add(lead.id);
      const from = deviceOf(rig, lead.from.device)!;
      const kind = kindOf(from.kind);
      if (!kind.parameters.some((p) => p.type === 'text' && p.id === 'order')) next.push(from.id);
      else {
        const loop = kind.loops?.findIndex((l) => l.send.includes(lead.from.jack)) ?? -1;
        return loop >= 0 ? { switcher: from.id, loop: loop + 1 } : undefined;
      }
    }
    at = next;
  }
  return undefined;
}

/** Where both devices stand in loops of one switcher, changing the order of its loops in this sound moves one before or behind the other: no plug is touched. */
export function reorderFix(rig: Rig, sound: Sound, device: string, other: string, move: 'before' | 'behind'): Fix | undefined {
  const [mine, theirs] = [loopHolding(rig, device), loopHolding(rig, other)];
  if (!mine || !theirs || mine.switcher !== theirs.switcher || mine.loop === theirs.loop) return undefined;
  const switcher = deviceOf(rig, mine.switcher)!;
  const kind = kindOf(switcher.kind);
  const order = readLoopOrder(String(settingOf(kind, switcher, stateIn(sound, switcher.id), 'order') ?? ''), kind.loops!.length);
  if (typeof order === 'string') return undefined;
  const way = order.flat().find((w) => w.loop === mine.loop);
  if (!way) return undefined;
  const rest = order.map((g) => g.filter((w) => w !== way)).filter((g) => g.length);
  const at = rest.findIndex((g) => g.some((w) => w.loop === theirs.loop));
  if (at < 0) return undefined;
  rest.splice(move === 'before' ? at : at + 1, 0, [way]);
  const value = writeLoopOrder(rest);
  return {
    words: `Run the loops of ${nameOf(rig, switcher.id)} as ${value}${rig.sounds.includes(sound) ? ` in ${sound.name}` : ''}`,
    edits: [{ edit: 'setSetting', device: switcher.id, setting: 'order', value, ...(rig.sounds.includes(sound) && { sound: sound.id }) }],
  };
}
