import type { Remark } from '../findings/finding';
import { copyWith } from '../rig/copies';
import { endWords, jackOf, leadFrom, leadInto } from '../rig/find';
import type { End, Lead } from '../rig/schema';
import { arrivingFigures, type DestinationFigures } from '../signal';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { joinFix } from './missing-leads';
import { allOf } from '../units';

/** A destination that gets this much more with the missing lead is named, in dB. */
const MISSED_DB = 3;

/**
 * One side of a stereo pair at a box that holds others, where the inside is wired for both sides and
 * what is outside is stereo, and one of the two leads is missing. Whoever means mono there wires one
 * side inside, or plugs it into something that has but one.
 */
export const halfHostRemarks: Remarker = ({ ctx, destinations }) =>
  wiredSides(ctx).flatMap(([one, other]) => {
    const missing = missingSide(ctx, one, other) ?? missingSide(ctx, other, one);
    return missing ? halfHost(ctx, missing, destinations) : [];
  });

/** Jacks of hosts, two and two, that lead to both sides of one block inside, or are fed by both. */
function wiredSides({ rig, device }: SoundContext): [End, End][] {
  const inside = rig.leads.filter((l) => l.type === 'inside');
  /** The jack that an inner point faces, and the block at the other end. */
  const sidesOf = ({ from, to }: Lead) =>
    [
      { face: from, block: to },
      { face: to, block: from },
    ].flatMap(({ face, block }) => {
      const outer = jackOf(device(face.device), face.jack)?.faces?.jack;
      return outer === undefined ? [] : [{ outer: { device: face.device, jack: outer }, block }];
    });
  const sides = inside.flatMap(sidesOf);
  return sides.flatMap(({ outer, block }) => {
    const pair = jackOf(device(block.device), block.jack)?.pair;
    if (pair?.side !== 'left') return [];
    const other = sides.find(
      (x) =>
        x.block.device === block.device &&
        x.block.jack === pair.with &&
        x.outer.device === outer.device &&
        x.outer.jack !== outer.jack,
    );
    return other ? [[outer, other.outer] as [End, End]] : [];
  });
}

/** The lead that would join a free jack to the free side of what its other side is joined to. */
function missingSide(ctx: SoundContext, free: End, held: End): { from: End; to: End } | undefined {
  const { rig } = ctx;
  const isOut = jackOf(ctx.device(free.device), free.jack)?.direction === 'out';
  const [mine, theirs] = isOut ? [leadFrom, leadInto] : [leadInto, leadFrom];
  if (mine(rig, free.device, free.jack)) return undefined;
  const beside = mine(rig, held.device, held.jack);
  const far = beside && (isOut ? beside.to : beside.from);
  const pair = far && jackOf(ctx.device(far.device), far.jack)?.pair;
  if (!far || !pair || pair.loose || theirs(rig, far.device, pair.with)) return undefined;
  const other = { device: far.device, jack: pair.with };
  const [from, to] = isOut ? [free, other] : [other, free];
  return { from, to };
}

/** The remark, with the destinations that get more with the lead, as a copy with it says. */
function halfHost(
  ctx: SoundContext,
  { from, to }: { from: End; to: End },
  destinations: readonly DestinationFigures[],
): Remark[] {
  const fix = joinFix(ctx, from, to);
  const copy = copyWith(ctx.rig, fix.edits);
  const joined = copy && listenedTo(ctx, copy);
  // With its other side free many a box sends nothing to it: what the lead would carry shows a copy.
  if (!joined?.at(from.device, from.jack).flows.length) return [];
  const then = new Map(arrivingFigures(joined).map((d) => [d.device, d]));
  const less = destinations.filter((d) => {
    const more = then.get(d.device)?.levelDbu?.normal;
    return more !== undefined && more - (d.levelDbu?.normal ?? -Infinity) > MISSED_DB;
  });
  const names = [from.device, to.device].map((id) => ctx.device(id).name);
  return [
    {
      rule: 'half-pair',
      severity: 'caution',
      subjects: [...new Set([from.device, to.device, ...less.map((d) => d.device)])],
      about: `${from.device}+${to.device}`,
      what: `${allOf(names)} are both stereo, but one lead joins them.`,
      why:
        `Inside, both sides are wired; nothing is in ${endWords(ctx.rig, to)}.` +
        (less.length
          ? ` ${allOf(less.map((d) => d.name))} ${less.length > 1 ? 'get' : 'gets'} less for it.`
          : ''),
      fix,
    },
  ];
}
