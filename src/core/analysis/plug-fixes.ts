import type { Fix } from '../findings/finding';
import { isMetal } from '../circuit';
import { byKey, reachable } from '../graph';
import { kindOf } from '../kinds';
import { freeJacks } from '../rig';
import { byId, endWords, jackOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { End, Lead } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import { pairOf } from './jack-pairs';
import { joinFix, openEnds, openingsBefore } from './missing-leads';
import { allOf } from '../units';

/** So many exchanges, and so many leads, are offered to be tried. */
const OFFERED = 4;
const LEADS_OFFERED = 8;

/** Leads that carry signal from jack to jack outside hosts. */
const outer = (ctx: SoundContext): Lead[] =>
  ctx.rig.leads.filter((l) => isMetal(l) && !CONTROL_LEADS.includes(l.type)).sort(byId);

const pairAt = (ctx: SoundContext, { device, jack }: End) =>
  pairOf(kindOf(ctx.device(device).kind), jack);

/**
 * Exchanges of two plugs at one of some devices, each as a fix that is still to be tried; those of
 * the two sides of one pair come first.
 */
export function exchangesAt(ctx: SoundContext, devices: ReadonlySet<string>): Fix[] {
  const leads = outer(ctx);
  const found = leads.flatMap((a, i) =>
    leads.slice(i + 1).flatMap((b) =>
      (['from', 'to'] as const).flatMap((side) => {
        const [one, other] = [a[side], b[side]];
        if (one.device !== other.device || one.jack === other.jack || !devices.has(one.device))
          return [];
        const isPair = pairAt(ctx, one)?.with === other.jack;
        const name = ctx.device(one.device).name;
        const jacks = [one, other].map(
          (e) => jackOf(ctx.device(e.device), e.jack)?.label ?? e.jack,
        );
        // Both ends at the same two devices: one exchange, whichever end it is made at.
        if (side === 'to' && a.from.device === b.from.device) return [];
        return [
          {
            isPair,
            fix: {
              words: `Exchange the plugs in ${allOf(jacks)} of ${name}`,
              edits: [{ edit: 'swapEnds' as const, leads: [a.id, b.id] as [string, string] }],
            },
          },
        ];
      }),
    ),
  );
  return found
    .sort((x, y) => Number(y.isPair) - Number(x.isPair))
    .slice(0, OFFERED)
    .map(({ fix }) => fix);
}

/**
 * Leads that a pair misses of which the other side is plugged, on the way to a destination: from the
 * free output beside one that is plugged, to free inputs before the destination, those beside one that
 * is plugged first.
 */
export function missingSides(ctx: SoundContext, destination: string): Fix[] {
  const joints = jointsBefore(ctx, destination);
  const leads = joints.slice(0, LEADS_OFFERED).map(({ out, into }) => joinFix(ctx, out, into));
  const together = joints
    .filter((j) => j.belongs)
    .flatMap(({ out, into }) => joinFix(ctx, out, into).edits);
  return together.length > 1
    ? [...leads, { words: 'Add the leads of the side that is missing', edits: together }]
    : leads;
}

/** Leads that are missing beside one between the same two pairs, on the way to a destination. */
export const belongingLeads = (ctx: SoundContext, destination: string): Joint[] =>
  jointsBefore(ctx, destination).filter((j) => j.belongs);

/** An output and an input that a lead could join. */
interface Joint {
  out: End;
  into: End;
  /** The other sides of both are joined by a lead. */
  belongs: boolean;
}

function jointsBefore(ctx: SoundContext, destination: string): Joint[] {
  const isHeld = (end: End) =>
    ctx.rig.leads.some((l) =>
      [l.from, l.to].some((e) => e.device === end.device && e.jack === end.jack),
    );
  const besideHeld = (end: End): boolean => {
    const pair = pairAt(ctx, end);
    return pair !== undefined && isHeld({ device: end.device, jack: pair.with });
  };
  const outs = freeJacks(ctx.rig, 'out', '', (j) => j.signal === 'audio').flatMap(
    ({ device, jacks }) =>
      jacks.map((j) => ({ device: device.id, jack: j.id })).filter((end) => besideHeld(end)),
  );
  for (const { end } of openEnds(ctx))
    if (!outs.some((o) => o.device === end.device && o.jack === end.jack)) outs.push(end);
  const ins = openingsBefore(ctx, destination).filter(
    ({ end }) => jackOf(ctx.device(end.device), end.jack)?.signal === 'audio',
  );
  // Where the other side of both is the same lead, the two belong together.
  const belong = (out: End, into: End) =>
    ctx.rig.leads.some(
      (l) =>
        l.from.device === out.device &&
        l.from.jack === pairAt(ctx, out)?.with &&
        l.to.device === into.device &&
        (l.to.jack === pairAt(ctx, into)?.with || areNextReturns(ctx, l.to, into)),
    );
  // What stands ahead of an output would be fed from it in a circle; through a box with loops that is no
  // matter of leads alone.
  const ahead = new Map(outs.map(({ device }) => [device, plainlyAhead(ctx, device)]));
  // An input whose device nothing feeds waits for a lead.
  const joints = outs.flatMap((out) =>
    ins
      .filter(({ end }) => end.device !== out.device && !ahead.get(out.device)?.has(end.device))
      .map(({ end: into, isFed }) => ({
        out,
        into,
        belongs: belong(out, into),
        likely:
          (belong(out, into) ? 4 : 0) +
          (isFed ? 0 : 2) +
          (besideHeld(into) ? 1 : 0) +
          (besideHeld(out) ? 1 : 0),
      })),
  );
  return joints.sort((a, b) => b.likely - a.likely || byEnds(a, b));
}

const endKey = ({ device, jack }: End): string => `${device} ${jack}`;

/** By their ends: which comes first hangs on no order of the file. */
const byEnds = (a: Joint, b: Joint): number =>
  byId({ id: endKey(a.out) }, { id: endKey(b.out) }) ||
  byId({ id: endKey(a.into) }, { id: endKey(b.into) });

/** Whether two jacks are returns of loops that stand side by side: both sides of something come home by them. */
function areNextReturns({ device }: SoundContext, a: End, b: End): boolean {
  const loops = kindOf(device(a.device).kind).loops ?? [];
  const [one, other] = [a, b].map(({ jack }) => loops.findIndex((l) => l.return.includes(jack)));
  return one !== undefined && other !== undefined && one >= 0 && Math.abs(one - other) === 1;
}

/** What leads on to a device through boxes without loops. */
function plainlyAhead({ rig, device }: SoundContext, behind: string): Set<string> {
  const into = byKey(rig.leads.filter(isMetal), (l) => l.to.device);
  const isPlain = (id: string) => {
    const { loops, hosts } = kindOf(device(id).kind);
    return !loops && !hosts;
  };
  return reachable([behind], (id) =>
    (into.get(id) ?? []).map((l) => l.from.device).filter(isPlain),
  );
}

/** A mono lead in the right-hand jack of a pair, moved into the left. */
export function intoLeft(ctx: SoundContext, left: End, right: End): Fix[] {
  const side = jackOf(ctx.device(left.device), left.jack)?.direction === 'out' ? 'from' : 'to';
  const lead = ctx.rig.leads.find(
    (l) => l[side].device === right.device && l[side].jack === right.jack,
  );
  if (!lead) return [];
  return [
    {
      words: `Move the plug into ${endWords(ctx.rig, left)}`,
      edits: [
        { edit: 'disconnect', lead: lead.id },
        { edit: 'connect', lead: { ...lead, [side]: left } },
      ],
    },
  ];
}
