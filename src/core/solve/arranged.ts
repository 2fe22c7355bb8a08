import { at as entryAt, sure } from '../outcome';
import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { longestRising } from '../optimum';
import { ORDER_RULES, orderRemarks } from '../order';
import type { FixTrial } from '../report';
import { applyEdit } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, leadFrom, nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Rig, Sound } from '../rig/schema';
import { soundContext } from '../signal/sound-context';
import { stationFigures } from '../signal/station-figures';
import type { Chain } from './chain';
import { harmOf, harmWords, withoutHarm } from './harm';

/** Buffers are proposed on their own: what leads take depends on more than a pair. */
const RULES = new Set<string>(ORDER_RULES.map((r) => r.id).filter((id) => id !== 'buffer-place'));

/** What the order rules say of a rig in one sound. */
export function orderRemarksOf(rig: Rig, sound: Sound): Remark[] {
  const ctx = soundContext(rig, sound);
  return orderRemarks({ ctx, stations: stationFigures(ctx) }).filter((x) => RULES.has(x.rule));
}
/** An arrangement, with the edits that lead to it and the rig that it then is. */
export interface Arranged {
  rig: Rig;
  edits: Edit[];
  segments: readonly (readonly string[])[];
}

/** Subsets of more moves than this are not tried: the whole arrangement is proposed then. */
const FEW = 2;

/**
 * The edits that bring about what an arrangement cures with the fewest devices moved: one alone, then
 * two, each tried on a copy; else all that it moves.
 */
export function fewestMoves(
  rig: Rig,
  chain: Chain,
  wanted: readonly (readonly string[])[],
): Arranged {
  const arranged = (segments: readonly (readonly string[])[]): Arranged => ({
    ...editsFor(rig, chain, segments),
    segments,
  });
  const whole = arranged(wanted);
  const moved = movedBy(whole);
  const before = toldOf(rig);
  const wholly = toldOf(whole.rig);
  const now = chain.segments.map((s) => s.devices);
  for (const some of subsetsUpTo(moved, Math.min(FEW, moved.length - 1))) {
    const tried = arranged(withOnly(now, wanted, some));
    const told = toldOf(tried.rig);
    const isNoWorse = goneFrom(told, before).length <= goneFrom(wholly, before).length;
    if (isNoWorse && goneFrom(before, told).length === goneFrom(before, wholly).length)
      return tried;
  }
  return whole;
}

/** An arrangement in which only some devices have gone to where another has them. */
function withOnly(
  now: readonly (readonly string[])[],
  wanted: readonly (readonly string[])[],
  some: readonly string[],
): string[][] {
  const made = now.map((s) => s.filter((d) => !some.includes(d)));
  for (const [k, segment] of wanted.entries())
    for (const [i, device] of segment.entries()) {
      if (!some.includes(device)) continue;
      const row = entryAt(made, k);
      // Behind the nearest of those that it is wanted behind.
      const before = segment.slice(0, i).findLast((d) => row.includes(d));
      row.splice(before === undefined ? 0 : row.indexOf(before) + 1, 0, device);
    }
  return made;
}

/** Each one of a list, then each two. */
function subsetsUpTo<T>(list: readonly T[], most: number): T[][] {
  const ones = list.map((one) => [one]);
  const twos = list.flatMap((one, i) => list.slice(i + 1).map((two) => [one, two]));
  return [...(most >= 1 ? ones : []), ...(most >= 2 ? twos : [])];
}

/** What the order rules say of a rig, in all its sounds. */
const toldOf = (rig: Rig): Remark[] => rig.sounds.flatMap((s) => orderRemarksOf(rig, s));

/** What is told before and no more after; in its words, since what is told of another neighbour now is not cured. */
function goneFrom(before: readonly Remark[], after: readonly Remark[]): Remark[] {
  const key = (r: Remark) => `${r.rule} ${r.what}`;
  const left = new Set(after.map(key));
  return before.filter((r) => !left.has(key(r)));
}

/** What the order rules said in any sound, and say no more. */
export const curedBetween = (rig: Rig, after: Rig): Remark[] =>
  goneFrom(toldOf(rig), toldOf(after));

/** A device that stays where it is though the rules would move it, and what its move would break. */
export interface Stays {
  device: string;
  words: string;
}

/**
 * An arrangement without the moves that would do harm, each tried on a copy that is analysed as any rig
 * is, and without those that what is left cures just as well; each move with what would be told without
 * it.
 */
export function harmless(
  rig: Rig,
  chain: Chain,
  arranged: Arranged,
  trial: FixTrial,
): Arranged & { stays: Stays[]; reasons: ReadonlyMap<string, string[]> } {
  const now = chain.segments.map((s) => s.devices);
  const all = movedBy(arranged);
  const withMoves = (some: readonly string[]): Arranged => {
    if (some.length === all.length) return arranged;
    const segments = withOnly(now, arranged.segments, some);
    return { ...editsFor(rig, chain, segments), segments };
  };
  const harm = (some: readonly string[]) => harmOf(trial, withMoves(some).edits);
  const { kept, left } = withoutHarm(all, harm);
  const before = toldOf(rig);
  const stillTold = (some: readonly string[]) => toldOf(withMoves(some).rig);
  let needed = kept;
  for (const one of kept) {
    const some = needed.filter((d) => d !== one);
    const [told, without] = [stillTold(needed), stillTold(some)];
    const isAsGood =
      goneFrom(before, without).length >= goneFrom(before, told).length &&
      goneFrom(without, before).length <= goneFrom(told, before).length;
    if (isAsGood && !harm(some).length) needed = some;
  }
  const stays = left.map(({ one, breaks }) => ({
    device: one,
    words: `${nameOf(rig, one)} stays where it is: moved, it would bring ${harmWords(breaks)}`,
  }));
  const told = stillTold(needed);
  const reasons = needed.map((one): [string, string[]] => {
    const some = needed.filter((d) => d !== one);
    const own = goneFrom(stillTold(some), told);
    const words = [...new Set(own.map((r) => `${r.what} ${r.why}`))];
    return [one, words.length ? words : harm(some).map((h) => `Left where it is, it brings ${h}`)];
  });
  return { ...withMoves(needed), stays, reasons: new Map(reasons) };
}

/** The devices that an arrangement moves. */
export const movedBy = ({ edits }: Arranged): string[] => [
  ...new Set(edits.flatMap((e) => (e.edit === 'moveDevice' ? [e.device] : []))),
];

/** Ids of two new leads. */
export const fresh = (rig: Rig): [string, string] => {
  const first = freshId(
    'lead',
    rig.leads.map((l) => l.id),
  );
  return [first, freshId('lead', [...rig.leads.map((l) => l.id), first])];
};

/**
 * Moves that bring the chain into an order, one after the other. As many devices as can be stay where
 * they are: the longest run of those that stand in the wanted order already.
 */
export function editsFor(
  rig: Rig,
  chain: Chain,
  segments: readonly (readonly string[])[],
): { rig: Rig; edits: Edit[] } {
  const places = (rows: readonly (readonly string[])[]) =>
    rows.flatMap((row, s) => row.map((device) => `${s} ${device}`));
  const wanted = new Map(places(segments).map((place, i) => [place, i]));
  const kept = places(chain.segments.map((s) => s.devices)).filter((place) => wanted.has(place));
  const run = longestRising(kept.map((place) => wanted.get(place) ?? 0));
  const stay = new Set(run.map((i) => entryAt(kept, i)));
  const edits: Edit[] = [];
  let at = rig;
  segments.forEach((devices, s) => {
    let after = entryAt(chain.segments, s).after;
    for (const d of devices) {
      const lead = stay.has(`${s} ${d}`) ? undefined : leadFrom(at, after.device, after.jack);
      if (lead && lead.to.device !== d) {
        const edit: Edit = { edit: 'moveDevice', device: d, lead: lead.id, newLeads: fresh(at) };
        const moved = applyEdit(at, edit);
        if (moved.ok) {
          at = moved.value.rig;
          edits.push(edit);
        }
      }
      after = { device: d, jack: kindOf(sure(deviceOf(rig, d)).kind).through!.out };
    }
  });
  return { rig: at, edits };
}
