import { isMetal } from '../circuit';
import { fixes, type Remark } from '../findings/finding';
import { type Job, type Kind, kindOf } from '../kinds';
import { freeJacks } from '../rig';
import { copyWith } from '../rig/copies';
import { byId, endWords, jackOf, leadFrom, leadInto, leadsFrom } from '../rig/find';
import type { Device, End } from '../rig/schema';
import type { DestinationFigures } from '../signal';
import { widthOf } from '../signal/point-figures';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import type { Evidence, Remarker } from './evidence';
import {
  againWords,
  aheadOf,
  broughtBack,
  isFork,
  joinFix,
  openEnds,
  type Unheard,
  unheardIn,
} from './missing-leads';
import { PLAYED_THROUGH } from './open-ends';
import { belongingLeads, exchangesAt } from './plug-fixes';
import { allOf } from '../units';

/**
 * Sides that are told by where their leads come from, whatever makes them differ: two panned amplifiers,
 * a mix from a desk. And boxes that feed something and are fed by nothing.
 */
export const tracedSideRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => [
  ...destinations.flatMap((d) => ofDestination({ ctx, stations, wantsFixes }, d)),
  ...unfedBoxes(ctx, unheardIn({ ctx, stations, destinations })),
];

type Seen = Pick<Evidence, 'ctx' | 'stations' | 'wantsFixes'>;

/** One output of a pair. */
interface Side {
  device: string;
  jack: string;
  side: 'left' | 'right';
  other: string;
  /** Boxes between it and where it was traced from, from there on, each with its output. */
  through: { kind: string; jack: string }[];
}

function ofDestination({ ctx, stations, wantsFixes }: Seen, d: DestinationFigures): Remark[] {
  const { destination } = kindOf(ctx.device(d.device).kind);
  const [leftJack, rightJack] = destination?.jacks ?? [];
  if (leftJack === undefined || rightJack === undefined) return [];
  const ends = [leftJack, rightJack].map((jack) => ({ device: d.device, jack }));
  const [left, right] = ends.map((end) => tracedSide(ctx, end));
  if (left && right) {
    if (left.device !== right.device) return [];
    return [
      ...exchanged(ctx, d, { left, right, wantsFixes }),
      ...silentSide({ ctx, stations }, d, { left, right }),
    ];
  }
  const [one, missing] = left ? [left, ends[1]] : [right, ends[0]];
  return one && missing && !leadInto(ctx.rig, missing.device, missing.jack)
    ? missingLine(ctx, d, one, missing)
    : [];
}

interface Sides {
  left: Side;
  right: Side;
}

/** Left and right that arrive at each other's jack; what a device makes wide is judged by what arrives of it. */
function exchanged(
  ctx: SoundContext,
  d: DestinationFigures,
  { left, right, wantsFixes }: Sides & { wantsFixes: boolean },
): Remark[] {
  if (left.side !== 'right' || right.side !== 'left' || d.wideners.length) return [];
  if (!differs(ctx, left)) return [];
  return [
    {
      rule: 'sides-exchanged',
      severity: 'caution',
      subjects: [d.device, left.device],
      about: d.device,
      what: `${d.name} hears left and right exchanged of what leaves ${ctx.device(left.device).name}.`,
      why: 'The left output leads to the right input, and the right one to the left.',
      ...fixes(wantsFixes ? exchangesAt(ctx, aheadOf(ctx, d.device)) : []),
    },
  ];
}

/**
 * A side on which nothing leaves, since a pair further ahead has a lead on one side only; where the box
 * there makes width, that is told of it.
 */
function silentSide(
  { ctx, stations }: Pick<Seen, 'ctx' | 'stations'>,
  d: DestinationFigures,
  { left, right }: Sides,
): Remark[] {
  const sounds = ({ device, jack }: Side) => ctx.at(device, jack).flows.length > 0;
  if (sounds(left) === sounds(right)) return [];
  const silent = sounds(left) ? right : left;
  // The one with which, on a copy, that side sounds.
  const lead = belongingLeads(ctx, d.device).find(({ out, into }) => {
    const copy = copyWith(ctx.rig, joinFix(ctx, out, into).edits);
    return copy && listenedTo(ctx, copy).at(silent.device, silent.jack).flows.length > 0;
  });
  const isOn = stations.some((s) => s.device === lead?.out.device && s.state === 'engaged');
  if (!lead || isOn) return [];
  const boxes = [lead.out.device, lead.into.device];
  return [
    {
      rule: 'half-pair',
      severity: 'caution',
      subjects: [...boxes, d.device],
      about: boxes.join('+'),
      what: `Nothing reaches the ${silent.side} side of ${d.name}.`,
      why:
        `Of the two leads from ${ctx.device(lead.out.device).name} to ` +
        `${ctx.device(lead.into.device).name} one is missing.`,
      fix: joinFix(ctx, lead.out, lead.into),
    },
  ];
}

/**
 * A line that one side has and the other lacks: where both outputs of a pair go through boxes alike, and
 * the box of one side is plugged on to a destination, so should be that of the other.
 */
function missingLine(ctx: SoundContext, d: DestinationFigures, one: Side, into: End): Remark[] {
  let from: End = { device: one.device, jack: one.other };
  for (const hop of one.through) {
    const lead = leadFrom(ctx.rig, from.device, from.jack);
    if (!lead || ctx.device(lead.to.device).kind !== hop.kind) return [];
    from = { device: lead.to.device, jack: hop.jack };
  }
  if (!one.through.length || leadFrom(ctx.rig, from.device, from.jack)) return [];
  return [
    {
      rule: 'open-end',
      severity: 'caution',
      subjects: [from.device, d.device],
      about: `${from.device}+${from.jack}`,
      what: `${d.name} gets the ${one.side} side alone: nothing is plugged into ${endWords(ctx.rig, from)}.`,
      why: `The other side of ${ctx.device(one.device).name} leads on from there, as this one does.`,
      fix: joinFix(ctx, from, into),
    },
  ];
}

/** Whether the two outputs of a pair carry other signals in this sound; what comes in from outside does. */
const differs = (ctx: SoundContext, { device, jack, other }: Side): boolean =>
  kindOf(ctx.device(device).kind).job === 'instrument' ||
  ['stereo', 'dual mono'].includes(
    widthOf([jack, other].map((point) => ctx.at(device, point).flows)),
  );

/** The output of a pair from which an input is fed, through boxes of one way. */
function tracedSide(ctx: SoundContext, end: End): Side | undefined {
  const seen = new Set<string>();
  const through: Side['through'] = [];
  for (let now = end; ;) {
    const lead = leadInto(ctx.rig, now.device, now.jack);
    if (!lead || !isMetal(lead) || seen.has(lead.id)) return undefined;
    seen.add(lead.id);
    const box = ctx.device(lead.from.device);
    const pair = jackOf(box, lead.from.jack)?.pair;
    const into = onlyInput(kindOf(box.kind));
    // The outputs of a box that gives two of one are no sides of it.
    if (pair && (into === undefined || !pair.loose))
      return { device: box.id, jack: lead.from.jack, side: pair.side, other: pair.with, through };
    if (into === undefined) return undefined;
    through.unshift({ kind: box.kind, jack: lead.from.jack });
    now = { device: box.id, jack: into };
  }
}

/** The input of a box that has no other. */
function onlyInput({ jacks, hosts, loops }: Kind): string | undefined {
  const ins = jacks.filter((j) => j.direction === 'in' && j.signal === 'audio');
  return ins.length === 1 && !hosts && !loops ? ins[0]?.id : undefined;
}

/** Boxes that pass on what they are given, beside effects. */
const PASSES_ON: ReadonlySet<Job> = new Set<Job>(['splitter', 'direct', 'buffer', 'tuner']);

/** Boxes with a lead out and none in: a line that was forgotten, where what they feed hears others still. */
function unfedBoxes(ctx: SoundContext, unheard: Unheard): Remark[] {
  const ahead = unheard.destinations.map((d) => aheadOf(ctx, d));
  return (
    ctx.rig.devices
      .filter((d) => isUnfed(ctx, d))
      .map((d) => unfed(ctx, d, unheard))
      // Where nothing brings those back who hear nothing, that they do says where their way begins.
      .filter(
        ({ subjects: [box = '', ...back] }) => back.length || !ahead.some((way) => way.has(box)),
      )
  );
}

function isUnfed({ rig }: SoundContext, { id, kind, host }: Device): boolean {
  const { job, jacks } = kindOf(kind);
  const carries = jacks.filter((j) => j.signal === 'audio');
  const ins = carries.filter((j) => j.direction === 'in');
  if (!PASSES_ON.has(job) && !PLAYED_THROUGH.has(job)) return false;
  if (host !== undefined || !ins.length) return false;
  return (
    !ins.some((j) => leadInto(rig, id, j.id)) &&
    carries.some((j) => j.direction === 'out' && leadFrom(rig, id, j.id))
  );
}

function unfed(ctx: SoundContext, device: Device, unheard: Unheard): Remark {
  const { through, jacks } = kindOf(device.kind);
  const ins = jacks.filter((j) => j.direction === 'in' && j.signal === 'audio');
  const into = { device: device.id, jack: through?.in ?? ins[0]?.id ?? '' };
  const fed = leadsFrom(ctx.rig, device.id);
  const names = allOf(
    [...new Set(fed.map((l) => l.to.device))].sort().map((id) => ctx.device(id).name),
  );
  const ways = [...besideHeld(ctx), ...openEnds(ctx).map((o) => o.end)]
    .filter((o) => o.device !== device.id)
    .slice(0, OFFERED)
    .map((from) => ({ fix: joinFix(ctx, from, into) }))
    .map(({ fix }) => ({ fix, back: broughtBack(ctx, fix.edits, unheard) }))
    .sort((a, b) => b.back.length - a.back.length);
  const back = ways[0]?.back ?? [];
  return {
    rule: 'open-end',
    severity: back.length ? 'fault' : 'caution',
    subjects: [device.id, ...back],
    about: `${device.id} unfed`,
    what: `Nothing is plugged into ${device.name}, which feeds ${names}.`,
    why: `What it should pass on is missing there.${againWords(ctx, back)}`,
    ...fixes(ways.map(({ fix }) => fix)),
  };
}

/** So many leads are offered to be tried. */
const OFFERED = 6;

const byEnd = (a: End, b: End): number =>
  byId({ id: a.device }, { id: b.device }) || byId({ id: a.jack }, { id: b.jack });

/**
 * Free outputs from which a lead is missing before all others: of instruments that nothing is plugged
 * into, and sends whose return is plugged; then those whose other side is plugged, and those of forks
 * that feed fewer than two.
 */
const besideHeld = ({ rig }: SoundContext): End[] =>
  freeJacks(rig, 'out', '', (j) => j.signal === 'audio')
    .flatMap(({ device: { id, kind: name }, jacks }) => {
      const kind = kindOf(name);
      const leads = leadsFrom(rig, id).filter((l) => isMetal(l)).length;
      return jacks.map(({ id: jack, pair }) => {
        const isHalfLoop = kind.loops?.some(
          (l) => l.send.includes(jack) && l.return.some((r) => leadInto(rig, id, r)),
        );
        const isBeside =
          kind.job === 'instrument' ||
          (isFork(name) && leads < 2) ||
          (pair !== undefined && leadFrom(rig, id, pair.with) !== undefined);
        const isFirst = (kind.job === 'instrument' && !leads) || isHalfLoop;
        return { end: { device: id, jack }, rank: isFirst ? 0 : isBeside ? 1 : 2 };
      });
    })
    .filter(({ rank }) => rank < 2)
    .sort((a, b) => a.rank - b.rank || byEnd(a.end, b.end))
    .map(({ end }) => end);
