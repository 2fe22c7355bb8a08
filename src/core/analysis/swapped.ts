import { sure } from '../outcome';
import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import { byId, endWords } from '../rig/find';
import type { Edit } from '../rig/edits';
import { CONTROL_LEADS, type Lead, type Rig } from '../rig/schema';
import { routeTo, stationsOf, placeStations } from '../walk';
import type { Remarker } from './evidence';

/**
 * How well a hook-up works: circles first, then destinations that are reached, then passes that
 * signal meets on its way, then devices that it meets first by a return instead of their input.
 */
interface Worth {
  circles: number;
  reached: number;
  passes: number;
  astray: number;
}

function worthOf(rig: Rig, sound: Rig['sounds'][number]): Worth {
  const { stations, steps } = stationsOf(rig, sound);
  placeStations(stations, steps);
  const destinations = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.id);
  const routes = destinations.map((id) => routeTo(stations, steps, (s) => s.device === id));
  const used = routes.filter((r) => r.some((s) => s.source));
  const first = new Map<string, string[]>();
  for (const s of [...new Set(used.flat())].sort((a, b) => a.column - b.column))
    if (!first.has(s.device)) first.set(s.device, s.ins);
  const astray = [...first].filter(([id, ins]) => {
    const kind = kindOf(sure(rig.devices.find((d) => d.id === id)).kind);
    return kind.loops?.some((l) => l.return.some((j) => ins.includes(j))) === true;
  }).length;
  return {
    astray,
    circles: steps.filter((s) => s.back && !s.open).length,
    reached: used.length,
    passes: new Set(used.flat().map((s) => s.id)).size,
  };
}

const isBetter = (a: Worth, b: Worth): boolean =>
  a.circles < b.circles &&
  a.reached >= b.reached &&
  (a.reached > b.reached || a.passes >= b.passes);

/** More pairs of leads than this are not tried. */
const MOST_TRIES = 120;

/**
 * The classic error around a loop: two plugs in each other's jack. Where signal runs in a circle,
 * every exchange of two leads at a device with a loop is tried, and the one that cures it is named.
 */
export const swappedRemarks: Remarker = ({ ctx, cycles }) => {
  if (!cycles.length) return [];
  const now = worthOf(ctx.rig, ctx.sound);
  const circling = new Set(cycles.flatMap((c) => c.devices));
  const isLoopJack = (end: Lead['from']) =>
    kindOf(ctx.device(end.device).kind).loops?.some(
      (l) => l.send.includes(end.jack) || l.return.includes(end.jack),
    ) === true;
  const found: { worth: Worth; remark: Remark }[] = [];
  let tries = 0;
  const leads = ctx.rig.leads
    .filter(
      (l) =>
        l.type !== 'inside' &&
        l.type !== 'air' &&
        !CONTROL_LEADS.includes(l.type) &&
        (circling.has(l.from.device) || circling.has(l.to.device)),
    )
    .sort(byId);
  for (const [i, a] of leads.entries()) {
    for (const b of leads.slice(i + 1)) {
      const device =
        a.from.device === b.from.device
          ? a.from.device
          : a.to.device === b.to.device
            ? a.to.device
            : undefined;
      if (!device || !circling.has(device) || a.type === 'speaker' || b.type === 'speaker')
        continue;
      const [x, y] = a.from.device === b.from.device ? [a.from, b.from] : [a.to, b.to];
      if ((!isLoopJack(x) && !isLoopJack(y)) || tries++ > MOST_TRIES) continue;
      const edits: Edit[] = [{ edit: 'swapEnds', leads: [a.id, b.id] }];
      const applied = applyEdits(ctx.rig, edits);
      if (!applied.ok) continue;
      const worth = worthOf(applied.value.rig, ctx.sound);
      if (!isBetter(worth, now)) continue;
      found.push({
        worth,
        remark: {
          rule: 'swapped',
          severity: 'fault',
          subjects: [device, a.id, b.id],
          about: [a.id, b.id].sort().join('+'),
          what:
            `Two plugs look swapped at ${ctx.device(device).name}: ${endWords(ctx.rig, x)}, ` +
            `and ${endWords(ctx.rig, y)}.`,
          why: 'As they are, signal runs in a circle; exchanged, every destination is reached without one.',
          fix: { words: `Exchange the two plugs at ${ctx.device(device).name}`, edits },
        },
      });
    }
  }
  // Of several exchanges that would cure it, the likeliest: no circle left, and each box met first
  // by its input.
  found.sort(
    (a, b) =>
      a.worth.circles - b.worth.circles ||
      a.worth.astray - b.worth.astray ||
      b.worth.reached - a.worth.reached ||
      b.worth.passes - a.worth.passes,
  );
  return found.slice(0, 1).map((f) => f.remark);
};
