import type { Fix } from '../findings/finding';
import { moveFix } from '../findings/insert-fix';
import { kindOf } from '../kinds';
import { longestRising } from '../optimum';
import { at as entryAt } from '../outcome';
import { applyEdits, type Edit } from '../rig';
import { byId, deviceOf, leadFrom, leadInto, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import type { StationFigures } from '../signal/station-figures';
import { type Breach, type Look, mostGain } from './look';

/** All drives on one way through this one, sorted by gain: where several stand wrong, no single move does. */
export function sortedByGain(at: Look, school: 'main' | 'other'): Pick<Breach, 'also'> {
  const back = (s: StationFigures): StationFigures[] => {
    const earlier = at.near.rightBefore(s).drive;
    return earlier ? [...back(earlier), s] : [s];
  };
  const [way] = at.evidence.stations
    .filter((s) => s.state === 'engaged')
    .filter((s) => kindOf(at.evidence.ctx.device(s.device).kind).job === 'drive')
    .map(back)
    .filter((all) => all.some((s) => s.id === at.s.id))
    .sort(
      (a, b) => b.length - a.length || byId({ id: a.at(-1)?.id ?? '' }, { id: b.at(-1)?.id ?? '' }),
    );
  if (!way) return {};
  const turn = school === 'main' ? 1 : -1;
  const sorted = way.toSorted((a, b) => turn * (mostGain(at, a) - mostGain(at, b)));
  const ids = (all: readonly StationFigures[]) => [...new Set(all.map((s) => s.device))];
  const also = sortedFix(at.evidence.ctx.rig, ids(way), ids(sorted));
  return also ? { also } : {};
}

/**
 * Brings drives that stand one behind another into an order with the fewest moves: the longest run of
 * those that stand in it already stays, each other one goes behind the one that it comes after. The
 * edits are found one after the other on a copy; nothing where they stand so already, or a lead that is
 * needed is missing.
 */
function sortedFix(rig: Rig, now: readonly string[], wanted: readonly string[]): Fix | undefined {
  const stay = new Set(
    longestRising(now.map((id) => wanted.indexOf(id))).map((i) => entryAt(now, i)),
  );
  const moved = wanted.filter((id) => !stay.has(id));
  const edits: Edit[] = [];
  let copy = rig;
  for (const [i, id] of wanted.entries()) {
    if (stay.has(id)) continue;
    const before = wanted[i - 1];
    const lead = before === undefined ? intoFirst(copy, entryAt(now, 0)) : outOf(copy, before);
    if (!lead) return undefined;
    const { edits: own } = moveFix(copy, id, lead.id, '');
    const done = applyEdits(copy, own);
    if (!done.ok) return undefined;
    copy = done.value.rig;
    edits.push(...own);
  }
  if (!edits.length) return undefined;
  const [one, ...more] = moved;
  const place = one === undefined ? -1 : wanted.indexOf(one);
  const names = wanted.map((id) => nameOf(rig, id));
  const words =
    more.length || one === undefined
      ? `Put them in the order ${names.join(', ')}`
      : `Move ${nameOf(rig, one)} ` +
        (place > 0 ? `behind ${entryAt(names, place - 1)}` : `before ${entryAt(names, 1)}`);
  return { words, edits };
}

const throughOf = (rig: Rig, id: string) => {
  const device = deviceOf(rig, id);
  return device && kindOf(device.kind).through;
};
const outOf = (rig: Rig, id: string) => leadFrom(rig, id, throughOf(rig, id)?.out ?? '');
const intoFirst = (rig: Rig, id: string) => leadInto(rig, id, throughOf(rig, id)?.in ?? '');
