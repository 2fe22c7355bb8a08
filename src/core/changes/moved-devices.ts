import { sure, at as entryAt } from '../outcome';
import { longestRising } from '../optimum';
import type { Rig } from '../rig/schema';
import { walkOrder } from '../walk';

/**
 * Devices that both rigs have and that stand elsewhere: those outside the longest run that kept its
 * order.
 */
export function movedDevices(
  before: Rig,
  after: Rig,
): { id: string; device: string; next?: string; previous?: string }[] {
  const was = walkOrder(before);
  const rank = new Map(was.map((id, i) => [id, i]));
  const full = walkOrder(after);
  const now = full.filter((id) => rank.has(id));
  const kept = new Set(
    longestRising(now.map((id) => sure(rank.get(id)))).map((i) => entryAt(now, i)),
  );
  const name = (id: string | undefined) => after.devices.find((d) => d.id === id)?.name;
  return now
    .filter((id) => !kept.has(id))
    .map((id) => {
      const at = full.indexOf(id);
      return {
        id,
        device: name(id) ?? id,
        next: name(full[at + 1]),
        previous: name(full[at - 1]),
      };
    });
}
