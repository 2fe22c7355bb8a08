import { type Fix, fixes, type Remark } from '../findings/finding';
import { insertFix, insertWideFix } from '../findings/insert-fix';
import type { Arrive, Kind } from '../kinds';
import { byId, leadInto, leadsInto } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Lead, Rig } from '../rig/schema';
import { FAR_UNDER_DB } from '../signal/combing';
import { type Flow, totalVolts } from '../signal/meeting';
import { loudest, presentDistortion } from '../signal/point-figures';
import type { SoundContext } from '../signal/sound-context';
import { allOf, dbuOfVolts, fixed } from '../units';
import type { Evidence, Remarker } from './evidence';
import { aheadOf } from './missing-leads';
import { kindIn } from './open-ends';
import { exchangesAt } from './plug-fixes';

/**
 * From here on, in percent, distortion without a cabinet sounds like a fault; under it down to the
 * second figure, thin.
 */
const HARSH_PERCENT = 10;
const AUDIBLE_PERCENT = 3;

/**
 * Distorted signal that reaches full-range ears without a cabinet, and cabinets modelled ahead of a
 * real one.
 */
export const directFeedRemarks: Remarker = ({ ctx, destinations, wantsFixes }) => {
  const told = new Set<string>();
  // By what models a cabinet: the loudspeakers behind it are one matter, with one cure.
  const speakers = new Map<string, string[]>();
  const models = cabinetModels(ctx);
  const direct = ctx.flowing.circuit.arrivals.flatMap(({ device, net, arrive }): Remark[] => {
    const { flows } = ctx.flowing.present(net);
    if (!flows.length) return [];
    if (!arrive.fullRange) {
      const block = modelledAhead(ctx, destinations, models, { device, arrive, flows });
      if (block) speakers.set(block, [...(speakers.get(block) ?? []), device]);
      return [];
    }
    // Two jacks of one destination are one matter, with one cure.
    const thd = worstUncabbed(flows);
    if (thd < AUDIBLE_PERCENT || told.has(device)) return [];
    told.add(device);
    return [unfiltered(ctx, device, thd, wantsFixes)];
  });
  return [...direct, ...[...speakers].map(([block, behind]) => twoCabinets(ctx, block, behind))];
};

/**
 * The most distortion, in percent, of what arrives without a cabinet and is heard beside the rest:
 * not far under the whole.
 */
function worstUncabbed(flows: readonly Flow[]): number {
  const whole = dbuOfVolts(totalVolts(flows, 1));
  const heard = flows.filter((f) => !f.cabinet && whole - dbuOfVolts(f.volts[1]) <= FAR_UNDER_DB);
  return 100 * Math.max(0, ...heard.map((f) => presentDistortion([f], 1)));
}

function unfiltered(ctx: SoundContext, device: string, thd: number, wantsFixes: boolean): Remark {
  const name = ctx.device(device).name;
  return {
    rule: 'unfiltered',
    severity: thd >= HARSH_PERCENT ? 'fault' : 'caution',
    subjects: [device],
    what: `${name} gets distorted signal that no cabinet has shaped.`,
    why:
      `${fixed(thd)} % of distortion straight into a full-range input is harsh: a guitar ` +
      'speaker takes the top octaves away.',
    ...fixes([
      ...[simulatorFix(ctx.rig, device, name)].filter((f) => f !== undefined),
      ...(wantsFixes ? exchangesAt(ctx, aheadOf(ctx, device)) : []),
    ]),
  };
}

/**
 * A simulator in the lead to a destination, ahead of direct boxes and isolators on the way: they want
 * what it gives. Where two sides arrive it takes both.
 */
function simulatorFix(rig: Rig, device: string, name: string): Fix | undefined {
  const [left, right] = leadsInto(rig, device)
    .filter((l) => !CONTROL_LEADS.includes(l.type))
    .sort((a, b) => (a.to.jack < b.to.jack ? -1 : a.to.jack > b.to.jack ? 1 : byId(a, b)))
    .map((l) => aheadOfBoxes(rig, l));
  if (!left || left.type === 'inside' || left.type === 'digital') return undefined;
  const [kind, called] = ['amp-cab-simulator', 'Cab simulator'];
  const words = `Put a simulator in front of ${name}`;
  const isOneWay = left.from.device === right?.from.device && left.to.device === right.to.device;
  return right && right.type === left.type && !isOneWay
    ? insertWideFix(rig, kind, called, [left, right], words)
    : insertFix(rig, kind, called, left.id, words);
}

/** The lead into the first of the direct boxes that feed a lead, one behind the other; itself where there are none. */
function aheadOfBoxes(rig: Rig, lead: Lead): Lead {
  const seen = new Set<string>();
  for (let now = lead; ;) {
    const kind = kindIn(rig, now.from.device);
    const into = kind?.job === 'direct' ? inputOf(kind, now.from.jack) : undefined;
    const before = into === undefined ? undefined : leadInto(rig, now.from.device, into);
    if (!before || seen.has(before.id)) return now;
    seen.add(before.id);
    now = before;
  }
}

/** The input of a box that an output of it hangs on: that of its own side. */
function inputOf({ through, jacks }: Kind, out: string): string | undefined {
  const jack = jacks.find((j) => j.id === out);
  const isRight = jack?.pair?.side === 'right';
  return isRight ? jacks.find((j) => j.id === through?.in)?.pair?.with : through?.in;
}

/** Devices that model a cabinet. */
const cabinetModels = ({ flowing }: SoundContext): Set<string> =>
  new Set(
    flowing.circuit.stages
      .filter(({ stage }) => stage.cabinet && stage.to !== 'air')
      .map((s) => s.device),
  );

/** What models a cabinet ahead of a loudspeaker, if anything does. */
function modelledAhead(
  ctx: SoundContext,
  destinations: Evidence['destinations'],
  models: ReadonlySet<string>,
  { device, arrive, flows }: { device: string; arrive: Arrive; flows: readonly Flow[] },
): string | undefined {
  const isSpeaker = (arrive.coil ?? !arrive.wantsDbu) && arrive.maxDbu >= 60;
  if (!isSpeaker || !loudest(flows)?.cabinet) return undefined;
  const route = new Set(destinations.find((d) => d.device === device)?.route);
  return ctx.stations.find((s) => models.has(s.device) && route.has(s.id))?.device;
}

/** A cabinet that is modelled ahead of loudspeakers. */
function twoCabinets(ctx: SoundContext, block: string, behind: readonly string[]): Remark {
  const speakers = [...new Set(behind)].sort();
  const names = allOf(speakers.map((id) => ctx.device(id).name));
  const { name } = ctx.device(block);
  return {
    rule: 'two-cabinets',
    severity: 'caution',
    subjects: [...speakers.slice(0, 1), block, ...speakers.slice(1)],
    about: [...speakers.slice(0, 1), block].join('+'),
    what: `${name} models a cabinet ahead of ${names}, which ${speakers.length > 1 ? 'are cabinets' : 'is one'}.`,
    why: 'Two cabinets one behind the other sound dull and boxed in.',
    fix: {
      words: `Bypass ${name} here`,
      edits: [
        {
          edit: 'setEngaged',
          device: block,
          ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }),
          engaged: false,
        },
      ],
    },
  };
}
