import { sure } from '../outcome';
import type { Jack } from '../kinds';
import { deviceOf, jackOf, leadPf } from '../rig/find';
import type { PlugShape } from '../rig/choices';
import type { End, Lead, LeadType, Making, Rig } from '../rig/schema';
import { DEFAULT_PF_PER_METRE } from '../rig/typical-leads';
import { socketOf } from '../midi/graph';
import { plugShape } from './footprint';
import { leadCodes, realLeads } from './lead-codes';
import { isHeld, type LeadNeed, leadNeeds } from './lead-needs';

/**
 * How leads are made where the rig says nothing: slack for each end, service loop and cutting step
 * in metres, minutes for a joint, a lead and a tie.
 */
export const USUAL_MAKING = {
  slack: 0.05,
  step: 0.05,
  loop: 0,
  perJoint: 4,
  perLead: 6,
  perTie: 0.5,
  codes: 'numbers',
  metrePrice: 0,
  plugPrice: 0,
  hourPrice: 0,
} as const satisfies Making;
export type FullMaking = Required<Pick<Making, keyof typeof USUAL_MAKING>>;
/** How this rig makes its leads, with the usual where it says nothing. */
export const makingOf = (rig: Rig): FullMaking => ({ ...USUAL_MAKING, ...rig.making });

/** A tie for each so many mm of lead on a board. */
const TIE_MM = 200;
/** Soldered joints of a plug. */
const JOINTS: Partial<Record<Plug, number>> = { TS: 2, TRS: 3, XLR: 3, DIN: 3, speaker: 2 };

/** What a lead ends in. USB and digital leads are bought ready-made. */
export type Plug = 'TS' | 'TRS' | 'XLR' | 'DIN' | 'USB' | 'digital' | 'speaker';

/**
 * One lead as it is cut: its code, what it ends in, and how long; lengths in metres, capacitance in
 * pF. `metres` is what it has now, `routed` the way it has to go (nothing where an end has no
 * place), `short` by how much it does not reach.
 */
export interface Cut {
  lead: Lead;
  code: string;
  colours: string;
  plugs: [Plug, Plug];
  shapes: [PlugShape, PlugShape];
  metres: number;
  routed: number | null;
  how: string;
  short: number;
  cut: number;
  joints: number;
  ties: number;
  pF: number | null;
  pFNow: number | null;
  minutes: number;
  made: boolean;
  labels: [string, string];
}

/** So many plugs of one sort: what goes into which socket, how it stands out, and which half of it. */
export interface PlugCount {
  plug: Plug;
  shape: PlugShape;
  sex: 'male' | 'female';
  count: number;
}

/** A sort of plug in words; straight ones, and males of what has no other half, go without saying. */
export const plugWords = ({ plug, shape, sex }: Omit<PlugCount, 'count'>): string =>
  [plug, plug === 'XLR' || sex === 'female' ? sex : '', shape === 'straight' ? '' : shape]
    .filter(Boolean)
    .join(' ');

/** Everything there is to cut and solder, with what it takes. */
export interface CutList {
  cuts: Cut[];
  stock: { type: LeadType; metres: number; leads: number }[];
  plugs: PlugCount[];
  joints: number;
  ties: number;
  hours: number;
}

const READY = new Set<LeadType>(['usb', 'digital']);

function plugAt(rig: Rig, lead: Lead, end: End): Plug {
  const device = sure(deviceOf(rig, end.device));
  const jack: Jack | undefined = jackOf(device, end.jack);
  const socket = jack && socketOf(device, jack);
  if (lead.type === 'usb') return 'USB';
  if (lead.type === 'digital') return 'digital';
  if (lead.type === 'speaker') return 'speaker';
  if (socket === 'DIN') return 'DIN';
  if (socket === 'TRS-A' || socket === 'TRS-B') return 'TRS';
  if (socket === 'XLR' || socket === 'combo') return 'XLR';
  // A balanced or stereo lead has a ring at both ends; branches of an insert lead where the jack has one.
  if (lead.type === 'stereo' || lead.type === 'balanced') return 'TRS';
  return lead.type === 'instrument'
    ? 'TS'
    : socket === 'TRS' || jack?.insert || jack?.stereo
      ? 'TRS'
      : 'TS';
}

/** Length to cut: as long as it is routed, slack for both ends and a service loop, rounded up to the step. */
export const cutLength = (
  metres: number,
  { slack, step, loop = 0 }: Pick<Making, 'slack' | 'step' | 'loop'>,
): number => Math.ceil((metres + 2 * slack + loop) / step - 1e-9) * step;

/** Plugs as they are counted lead by lead; branches of one insert lead share the one that they meet in. */
class PlugsOfRig {
  private readonly shared = new Set<string>();
  private readonly counts = new Map<string, PlugCount>();

  constructor(private readonly rig: Rig) {}

  get counted(): PlugCount[] {
    return [...this.counts.values()].sort((a, b) => b.count - a.count);
  }

  /** Counts the plugs of one lead; how many joints it takes where it is made. */
  of(lead: Lead): Pick<Cut, 'plugs' | 'shapes'> & { joints: number } {
    const { rig } = this;
    const plugs: Cut['plugs'] = [plugAt(rig, lead, lead.from), plugAt(rig, lead, lead.to)];
    const shapes: Cut['shapes'] = [plugShape(rig, lead, 'from'), plugShape(rig, lead, 'to')];
    // Signal leaves at pins: the lead takes it with a socket.
    const sex = plugs[0] === 'XLR' ? 'female' : 'male';
    const joints =
      this.end(lead, lead.from, { plug: plugs[0], shape: shapes[0], sex }) +
      this.end(lead, lead.to, { plug: plugs[1], shape: shapes[1], sex: 'male' });
    return { plugs, shapes, joints: READY.has(lead.type) ? 0 : joints };
  }

  private end({ type }: Lead, { device, jack }: End, sort: Omit<PlugCount, 'count'>): number {
    const at = `${device}/${jack}`;
    // A further branch brings one joint more to a plug that is there.
    if (type === 'insert' && this.shared.has(at)) return 1;
    if (type === 'insert') this.shared.add(at);
    const key = plugWords(sort);
    this.counts.set(key, { count: (this.counts.get(key)?.count ?? 0) + 1, ...sort });
    return (JOINTS[sort.plug] ?? 0) - (type === 'insert' && sort.plug === 'TRS' ? 1 : 0);
  }
}

const isAudio = ({ type }: Lead): boolean =>
  type === 'instrument' || type === 'insert' || type === 'stereo' || type === 'balanced';

/** How long a lead is cut: as the player holds it, as its way needs, or as it is bought. */
function lengthOf(rig: Rig, lead: Lead, making: Making, need: LeadNeed | undefined): number {
  if (isHeld(rig, lead)) return lead.metres;
  const way = need && need.mm / 1000;
  return READY.has(lead.type)
    ? Math.max(lead.metres, way ?? 0)
    : cutLength(way ?? lead.metres, making);
}

/** Both labels of a lead: its code, this end, and the far one. */
function labelsOf(rig: Rig, { from, to }: Lead, code: string): [string, string] {
  const name = ({ device, jack }: End) => {
    const d = sure(deviceOf(rig, device));
    return `${d.name}, ${jackOf(d, jack)?.label ?? jack}`;
  };
  return [`${code} ${name(from)} (to ${name(to)})`, `${code} ${name(to)} (from ${name(from)})`];
}

/**
 * The cut list. A lead is as long as the way between its ends (as it was entered, where one of them
 * has no place), plus slack at both ends and a service loop, rounded up to the cutting step.
 */
export function cutList(rig: Rig, needs?: ReturnType<typeof leadNeeds>): CutList {
  if (needs) return cutFrom(rig, needs);
  const known = lists.get(rig) ?? cutFrom(rig, leadNeeds(rig));
  lists.set(rig, known);
  return known;
}

/** Lists of rigs as they stand: bill, boards, leads and labels all ask for one. */
const lists = new WeakMap<Rig, CutList>();

function cutFrom(rig: Rig, needs: ReturnType<typeof leadNeeds>): CutList {
  const making = makingOf(rig);
  const codes = leadCodes(rig);
  const plugs = new PlugsOfRig(rig);
  const cuts = realLeads(rig).map((lead): Cut => {
    const ends = plugs.of(lead);
    const made = !READY.has(lead.type);
    const need = needs.get(lead.id);
    const cut = lengthOf(rig, lead, making, need);
    const { code, colours } = sure(codes.get(lead.id));
    const ties = need?.how === 'on the board' ? Math.ceil(need.mm / TIE_MM) : 0;
    return {
      lead,
      code,
      colours,
      plugs: ends.plugs,
      shapes: ends.shapes,
      joints: ends.joints,
      ties,
      made,
      cut,
      metres: lead.metres,
      routed: need ? need.mm / 1000 : null,
      how: need?.how ?? (isHeld(rig, lead) ? 'as the player moves' : 'as it was entered'),
      short: need ? Math.max(0, need.mm / 1000 - lead.metres) : 0,
      minutes: (made ? ends.joints * making.perJoint + making.perLead : 0) + ties * making.perTie,
      pF: isAudio(lead) ? cut * (lead.pfPerMetre ?? DEFAULT_PF_PER_METRE) : null,
      pFNow: isAudio(lead) ? leadPf(lead) : null,
      labels: labelsOf(rig, lead, code),
    };
  });
  const sum = (list: readonly Cut[], of: 'cut' | 'joints' | 'ties' | 'minutes') =>
    list.reduce((s, c) => s + c[of], 0);
  const types = [...new Set(cuts.map((c) => c.lead.type))];
  return {
    cuts,
    plugs: plugs.counted,
    stock: types
      .map((type) => {
        const mine = cuts.filter((c) => c.lead.type === type);
        return { type, leads: mine.length, metres: sum(mine, 'cut') };
      })
      .sort((a, b) => b.metres - a.metres),
    joints: sum(cuts, 'joints'),
    ties: sum(cuts, 'ties'),
    hours: sum(cuts, 'minutes') / 60,
  };
}
