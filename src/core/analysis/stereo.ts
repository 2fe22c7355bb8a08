import { byKey } from '../graph';
import { at } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { moveFix } from '../findings/insert-fix';
import { type Jack, kindOf } from '../kinds';
import { resolveState, stateIn } from '../rig/device-state';
import { copyWith } from '../rig/copies';
import type { Edit } from '../rig/edits';
import { leadFrom, leadInto, leadsFrom, leadsInto } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, End, Lead } from '../rig/schema';
import { arrivingFigures, type DestinationFigures, type StationFigures } from '../signal';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import type { Evidence, Remarker } from './evidence';
import {
  againWords,
  aheadOf,
  broughtBack,
  joinFix,
  type Unheard,
  unheardIn,
} from './missing-leads';
import { waysOpened } from './select-fixes';
import { pairOf } from './jack-pairs';
import { exchangesAt, intoLeft, missingSides } from './plug-fixes';
import { allOf } from '../units';

/** Stereo pairs with only one side connected, sides exchanged, and width that is lost on the way. */
export const stereoRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => [
  ...halfPairs(ctx, stations, destinations, wantsFixes),
  ...exchangedSides(ctx, destinations, wantsFixes),
  ...destinations.flatMap((d) => [
    ...halfWide(ctx, d, wantsFixes),
    ...collapsed(ctx, d, wantsFixes),
  ]),
];

/** Jack pairs of which one side is connected. */
function halfPairs(
  ctx: SoundContext,
  stations: StationFigures[],
  destinations: DestinationFigures[],
  wantsFixes: boolean,
): Remark[] {
  const remarks: Remark[] = [];
  const open: Open[] = [];
  const unheard = unheardIn({ ctx, stations, destinations });
  for (const [id, mine] of byKey(stations, (s) => s.device)) {
    const device = ctx.device(id);
    const ins = new Set(mine.flatMap((s) => s.ins));
    const outs = new Set(mine.flatMap((s) => s.outs));
    const engaged = mine.some((s) => s.state === 'engaged');
    for (const jack of kindOf(device.kind).jacks) {
      if (jack.pair?.side !== 'left') continue;
      const used = jack.direction === 'out' ? outs : ins;
      const [left, right] = [used.has(jack.id), used.has(jack.pair.with)];
      if (left === right) continue;
      if (right && !jack.pair.loose) {
        const lead = leadFrom(ctx.rig, id, jack.pair.with) ?? leadInto(ctx.rig, id, jack.pair.with);
        // A lead between two right-hand jacks is told once, where it leaves.
        if (jack.direction === 'out' || !lead || !rightOut(ctx, lead.from))
          remarks.push(onlyRight(ctx, device, jack, { destinations, wantsFixes, unheard }));
      }
      if (left && jack.direction === 'out' && engaged && widens(ctx, device))
        open.push({ device, jack });
    }
  }
  return [...remarks, ...oneLeads(ctx, open)];
}

/** An output of a device that makes width, of whose pair only the left is plugged. */
interface Open {
  device: Device;
  jack: Jack;
}

const onlyRight = (
  ctx: SoundContext,
  device: Device,
  jack: Jack,
  {
    destinations,
    wantsFixes,
    unheard,
  }: Pick<Evidence, 'destinations' | 'wantsFixes'> & { unheard: Unheard },
): Remark => {
  const end = (id: string): End => ({ device: device.id, jack: id });
  const beside = jack.pair ? leftBeside(ctx, device, jack, jack.pair.with) : [];
  const into = jack.pair ? intoLeft(ctx, end(jack.id), end(jack.pair.with)) : [];
  const back = broughtBack(ctx, [...beside, ...into][0]?.edits ?? [], unheard);
  const subjects = [device.id, ...oneSided(ctx, device, destinations), ...back];
  return {
    rule: 'half-pair',
    severity: back.length ? 'fault' : 'caution',
    subjects: [...new Set(subjects)],
    about: device.id,
    what: `Only the right ${jack.direction === 'out' ? 'output' : 'input'} of ${device.name} is connected.`,
    why: `A mono lead belongs in the left jack: there it carries the whole signal.${againWords(ctx, back)}`,
    ...fixes([
      ...beside,
      ...(wantsFixes ? destinations : [])
        .flatMap((d) => missingSides(ctx, d.device))
        .slice(0, MOST_SIDES),
      ...into,
    ]),
  };
};

/** The lead beside the one that joins two right-hand jacks, where both left-hand ones are free. */
function leftBeside(ctx: SoundContext, { id }: Device, left: Jack, right: string): Fix[] {
  const lead = leadFrom(ctx.rig, id, right) ?? leadInto(ctx.rig, id, right);
  if (!lead) return [];
  const there = lead.from.device === id ? lead.to : lead.from;
  const pair = pairOf(kindOf(ctx.device(there.device).kind), there.jack);
  const isFree = ({ device, jack }: End) =>
    !leadFrom(ctx.rig, device, jack) && !leadInto(ctx.rig, device, jack);
  if (pair?.side !== 'right') return [];
  const [here, other] = [
    { device: id, jack: left.id },
    { device: there.device, jack: pair.with },
  ];
  if (!isFree(here) || !isFree(other)) return [];
  return [lead.from.device === id ? joinFix(ctx, here, other) : joinFix(ctx, other, here)];
}

/** Destinations behind a device that hear one side of something wide. */
const oneSided = (
  ctx: SoundContext,
  device: Device,
  destinations: readonly DestinationFigures[],
): string[] =>
  destinations
    .filter((d) => d.side && d.device !== device.id && aheadOf(ctx, d.device).has(device.id))
    .map((d) => d.device);

/** Whether an output is the right-hand one of a pair of which the left is free. */
function rightOut(ctx: SoundContext, { device, jack }: Lead['from']): boolean {
  const pair = pairOf(kindOf(ctx.device(device).kind), jack);
  const left = kindOf(ctx.device(device).kind).jacks.find((j) => j.id === pair?.with);
  return pair?.side === 'right' && !left?.pair?.loose && !leadFrom(ctx.rig, device, pair.with);
}

/** So many leads that could be missing are offered for one jack. */
const MOST_SIDES = 4;

/** A lead that carries one side of a stereo pair to a device that would take both, and what adds the other. */
interface Half {
  device: Device;
  next: Device;
  /** The other side would come on the same jack. */
  onOneJack: boolean;
  edits: Edit[];
}

/**
 * Outputs that one lead leaves where two would carry width on. First every second lead that could be
 * added is, all on one copy: a device whose sides arrive apart nowhere even then is not asked
 * alone.
 */
function oneLeads(ctx: SoundContext, open: readonly Open[]): Remark[] {
  const all = new Map<string, Edit[]>();
  for (const { device, jack } of open)
    for (let half = halfOf(ctx, device, jack); half && !all.has(half.device.id);) {
      all.set(half.device.id, half.edits);
      half = halfBehind(ctx, half);
    }
  const wide = wideOnes(ctx, [...all.values()].flat());
  return open.filter((o) => !wide || wide.has(o.device.id)).flatMap((o) => oneLead(ctx, o));
}

/**
 * One lead where two would carry width on. Told only where the second, tried on a copy together with
 * those that are missing behind it, brings the sides of the device apart to somebody who listens:
 * mono on purpose is nobody's mistake.
 */
function oneLead(ctx: SoundContext, { device, jack }: Open): Remark[] {
  const halves: Half[] = [];
  let half = halfOf(ctx, device, jack);
  for (; half; half = halfBehind(ctx, half)) {
    const { device: here } = half;
    if (halves.some((h) => h.device === here)) break;
    halves.push(half);
    const edits = halves.flatMap((h) => h.edits);
    if (wideOnes(ctx, edits)?.has(device.id)) return [halfRemark(halves, edits)];
  }
  return [];
}

function halfRemark(halves: readonly Half[], edits: Edit[]): Remark {
  const { device, next, onOneJack } = at(halves, 0);
  const told = {
    rule: 'half-pair' as const,
    severity: 'advice' as const,
    subjects: [device.id, next.id],
  };
  if (onOneJack)
    return {
      ...told,
      what: `${device.name} reaches ${next.name} with one side only.`,
      why:
        `${next.name} takes both sides on one TRS jack. An insert lead joins two TS outputs ` +
        'to it: tip left, ring right.',
      fix: { words: 'Use an insert lead for both sides', edits },
    };
  const behind = halves.slice(1).map((h) => h.device.name);
  return {
    ...told,
    what: `${device.name} and ${next.name} are both stereo, but one lead joins them.`,
    why: 'What leaves is the mono sum; the right-hand jacks of both are free.',
    fix: {
      words: behind.length
        ? `Add the right-hand lead, and those behind ${allOf(behind)}`
        : 'Add the right-hand lead',
      edits,
    },
  };
}

/** The half pair at a left output, where the other side can be plugged. */
function halfOf(ctx: SoundContext, device: Device, jack: Jack): Half | undefined {
  const lead = leadFrom(ctx.rig, device.id, jack.id);
  if (!lead || jack.pair?.side !== 'left' || leadFrom(ctx.rig, device.id, jack.pair.with))
    return undefined;
  const next = ctx.device(lead.to.device);
  const into = kindOf(next.kind).jacks.find((j) => j.id === lead.to.jack);
  const from = { device: device.id, jack: jack.pair.with };
  const isAlone = !leadsInto(ctx.rig, next.id).some((l) => l !== lead && l.to.jack === into?.id);
  if (into?.stereo && isAlone)
    return { device, next, onOneJack: true, edits: insertLead(ctx, lead, from) };
  const pair = into && pairOf(kindOf(next.kind), into.id);
  if (pair?.side !== 'left' || leadInto(ctx.rig, next.id, pair.with)) return undefined;
  const right = { ...lead, id: rightOf(ctx, lead), from, to: { device: next.id, jack: pair.with } };
  return { device, next, onOneJack: false, edits: [{ edit: 'connect', lead: right }] };
}

/** The half pair at the outputs of the device that one leads to. */
function halfBehind(ctx: SoundContext, { next }: Half): Half | undefined {
  for (const jack of kindOf(next.kind).jacks) {
    const half = jack.direction === 'out' ? halfOf(ctx, next, jack) : undefined;
    if (half) return half;
  }
  return undefined;
}

const rightOf = (ctx: SoundContext, lead: Lead): string =>
  freshId(
    `${lead.id}-right`,
    ctx.rig.leads.map((l) => l.id),
  );

/** A lead into a stereo TRS jack made an insert lead that a second output joins. */
function insertLead(ctx: SoundContext, lead: Lead, from: Lead['from']): Edit[] {
  const branch = { ...lead, type: 'insert' as const };
  return [
    { edit: 'disconnect', lead: lead.id },
    { edit: 'connect', lead: { ...branch, conductor: 'tip' } },
    {
      edit: 'connect',
      lead: { ...branch, id: rightOf(ctx, lead), from, conductor: 'ring' },
    },
  ];
}

/** Whether a device, with all its jacks plugged, makes its two sides differ in this sound. */
const widens = (ctx: SoundContext, device: Device): boolean =>
  kindOf(device.kind)
    .passes(resolveState(kindOf(device.kind), device, stateIn(ctx.sound, device.id)), () => true)
    .some((p) => p.is === 'stage' && p.side);

/**
 * Devices whose two sides arrive apart anywhere with an edit made on a copy; nothing can be told where
 * it cannot be made.
 */
function wideOnes(ctx: SoundContext, edits: Edit[]): Set<string> | undefined {
  if (!edits.length) return new Set();
  const copy = copyWith(ctx.rig, edits);
  if (!copy) return undefined;
  return new Set(
    arrivingFigures(listenedTo(ctx, copy)).flatMap((d) => [
      ...d.wideners.map((w) => w.device),
      ...(d.pairedWith && d.widenedBy ? [d.widenedBy] : []),
    ]),
  );
}

/** Left and right that arrive at each other's jack, with the leads to exchange: one remark for all that hear it. */
function exchangedSides(
  ctx: SoundContext,
  destinations: readonly DestinationFigures[],
  wantsFixes: boolean,
): Remark[] {
  const heard = destinations.filter((d) => d.wideners.some((w) => w.exchanged));
  if (!heard.length) return [];
  const wideners = [
    ...new Set(heard.flatMap((d) => d.wideners.filter((w) => w.exchanged).map((w) => w.device))),
  ];
  const crossed = crossings(ctx).map(([a, b]): Fix => {
    const [from, to] = [ctx.device(a.from.device).name, ctx.device(a.to.device).name];
    return {
      words: `Exchange the two leads from ${from} at ${to}`,
      edits: [
        { edit: 'disconnect', lead: a.id },
        { edit: 'disconnect', lead: b.id },
        { edit: 'connect', lead: { ...a, to: b.to } },
        { edit: 'connect', lead: { ...b, to: a.to } },
      ],
    };
  });
  const ahead = heard.map((d) => aheadOf(ctx, d.device));
  const shared = new Set([...at(ahead, 0)].filter((id) => ahead.every((set) => set.has(id))));
  const names = (ids: readonly string[]) => allOf(ids.map((id) => ctx.device(id).name));
  return [
    {
      rule: 'sides-exchanged',
      severity: 'caution',
      subjects: [...heard.map((d) => d.device), ...wideners],
      about: heard.map((d) => d.device).join('+'),
      what:
        `${names(heard.map((d) => d.device))} ${heard.length === 1 ? 'hears' : 'hear'} left and right ` +
        `exchanged of what ${names(wideners)} ${wideners.length === 1 ? 'makes' : 'make'} wide.`,
      why: 'The left side arrives on the right jack and the right side on the left.',
      ...fixes([...crossed, ...(wantsFixes ? exchangesAt(ctx, shared) : [])]),
    },
  ];
}

/** Pairs of leads between two stereo pairs of jacks that go from left to right and from right to left. */
function crossings({ rig, device }: SoundContext): [Lead, Lead][] {
  const at = (end: Lead['from']) => pairOf(kindOf(device(end.device).kind), end.jack);
  return rig.leads.flatMap((a): [Lead, Lead][] => {
    const [from, to] = [at(a.from), at(a.to)];
    if (from?.side !== 'left' || to?.side !== 'right') return [];
    const b = rig.leads.find(
      (l) =>
        l.from.device === a.from.device &&
        l.from.jack === from.with &&
        l.to.device === a.to.device &&
        l.to.jack === to.with,
    );
    return b ? [[a, b]] : [];
  });
}

function halfWide(ctx: SoundContext, d: DestinationFigures, wantsFixes: boolean): Remark[] {
  if (!d.side || !d.widenedBy || d.pairedWith) return [];
  const widener = ctx.device(d.widenedBy).name;
  return [
    {
      rule: 'half-wide',
      severity: 'advice',
      subjects: [d.device, d.widenedBy],
      what: `${d.name} hears only the ${d.side} side of what ${widener} makes wide.`,
      why: 'The other side goes elsewhere or nowhere, so half of its echoes or movement is missing here.',
      ...fixes(
        wantsFixes
          ? [...missingSides(ctx, d.device), ...waysOpened(ctx, aheadOf(ctx, d.device))]
          : [],
      ),
    },
  ];
}

function collapsed(ctx: SoundContext, d: DestinationFigures, wantsFixes: boolean): Remark[] {
  if (!d.collapsedAt || !d.widenedBy) return [];
  const [widener, mono] = [ctx.device(d.widenedBy).name, ctx.device(d.collapsedAt).name];
  const { through } = kindOf(ctx.device(d.collapsedAt).kind);
  // What feeds with both sides what is mono is not moved behind it.
  const isWide = leadsFrom(ctx.rig, d.widenedBy).length > 1;
  const lead = through && !isWide ? leadFrom(ctx.rig, d.collapsedAt, through.out) : undefined;
  return [
    {
      rule: 'collapse',
      severity: 'advice',
      subjects: [d.collapsedAt, d.widenedBy],
      what: `The width that ${widener} makes is lost at ${mono}.`,
      why: `${d.name} hears mono.`,
      ...fixes([
        ...(wantsFixes ? missingSides(ctx, d.device) : []),
        ...(lead ? [moveFix(ctx.rig, d.widenedBy, lead.id, `Move ${widener} behind ${mono}`)] : []),
      ]),
    },
  ];
}
