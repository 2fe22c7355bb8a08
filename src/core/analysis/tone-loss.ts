import { at as entryAt, sure } from '../outcome';
import { insertFix } from '../findings/insert-fix';
import { isMetal } from '../circuit';
import { kindOf } from '../kinds';
import { usualMetres } from '../rig';
import { isEngaged, stateIn } from '../rig/device-state';
import { byId, leadPf, leadsFrom, nameOf } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { Edit } from '../rig/edits';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Device, Lead, Reference, Rig } from '../rig/schema';
import { fixed, withPrefix } from '../units';
import type { Fix, Remark } from '../findings/finding';
import { copyWith } from '../rig/copies';
import { type Heard, pointFigures } from '../signal';
import type { Evidence, Remarker } from './evidence';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import { type Tone, toneOf } from './tone';

/** Treble lost against the reference lead, in dB at 5 kHz, from which it is worth a word. */
const WORTH_SAYING_DB = 3;

/** An active output whose lead rolls off under this frequency dulls the sound audibly. */
const DULL_HERTZ = 10_000;

/** The tone of a bare pickup through the reference lead alone. */
export function referenceTone(
  ctx: SoundContext,
  pickup: string,
  reference: Reference,
): Tone | undefined {
  return pickupInto(ctx, pickup, reference.metres * reference.pfPerMetre, reference.ohms);
}

/** The tone of a pickup with its own controls into a given capacitance (pF) and load (Ω). */
export function pickupInto(
  ctx: SoundContext,
  pickup: string,
  leadPf: number,
  ohms: number,
): Tone | undefined {
  const alone = aloneInto(ctx, pickup, leadPf, ohms);
  return alone && toneOf(alone.circuit, entryAt(alone.circuit.sections, 0), 0, alone.net);
}

/** A pickup taken out of the rig with its own controls as they stand, ended by a capacitance and a load. */
export function aloneInto(ctx: SoundContext, pickup: string, leadPf: number, ohms: number) {
  const { circuit } = ctx.flowing;
  const out = sure(kindOf(ctx.device(pickup).kind).jacks.find((j) => j.direction === 'out')).id;
  const coil = circuit.drivers.find((d) => d.device === pickup && d.source);
  const end = circuit.netAt(pickup, out);
  if (!coil || !end) return undefined;
  const own = entryAt(circuit.sections, end.section);
  const ownNets = [...new Set([coil.net, end.index])];
  const nets = ownNets.map((n, i) => ({
    ...entryAt(circuit.nets, n),
    index: i,
    leadFarads: 0,
    shunts: ownShunts(ctx, pickup, n),
  }));
  const at = (n: number) => ownNets.indexOf(n);
  const last = entryAt(nets, at(end.index));
  nets[at(end.index)] = {
    ...last,
    leadFarads: leadPf * 1e-12,
    shunts: [...last.shunts, { ohms, farads: 0 }],
  };
  const section = {
    index: 0,
    nets: nets.map((n) => n.index),
    drivers: [{ ...coil, index: 0, net: at(coil.net) }],
    resistors: own.resistors
      .filter((r) => at(r.a) >= 0 && at(r.b) >= 0)
      .map((r) => ({ a: at(r.a), b: at(r.b), ohms: r.ohms })),
  };
  return {
    circuit: {
      ...circuit,
      nets,
      sections: [section],
      drivers: section.drivers,
      stages: [],
      arrivals: [],
    },
    net: at(end.index),
  };
}

function ownShunts(ctx: SoundContext, pickup: string, net: number) {
  return ctx
    .ownShunts(pickup)
    .filter((s) => ctx.flowing.circuit.netAt(pickup, s.at)?.index === net)
    .map((s) => ({ ohms: s.ohms ?? 0, farads: s.farads ?? 0 }));
}

/**
 * Treble that long leads and loads take from bare pickups, and what a buffer would give back;
 * active outputs that a lead dulls.
 */
export const toneRemarks: Remarker = (evidence) => {
  const stance = evidence.ctx.rig.order?.stances?.['buffer-place']?.stance;
  const buffersWanted = stance === undefined || stance === 'follow';
  return [
    ...evidence.tones.flatMap((t) =>
      t.bare ? (buffersWanted ? bareRemark(evidence, t) : []) : dullRemark(evidence, t),
    ),
    ...restingLeads(evidence),
  ];
};

/**
 * Long leads of instruments that rest in every sound: one that is on stage to be taken is not dull unheard.
 * What the lead takes is figured into the reference load, since nothing may listen while it rests.
 */
function restingLeads({ ctx, reference }: Evidence): Remark[] {
  const { rig, sound } = ctx;
  if (sound !== rig.sounds[0]) return [];
  const rests = (d: Device) =>
    rig.sounds.every((s) => !isEngaged(kindOf(d.kind), d, stateIn(s, d.id)));
  return rig.devices
    .filter((d) => kindOf(d.kind).job === 'instrument' && rests(d))
    .flatMap((d): Remark[] => {
      const lead = leadsFrom(rig, d.id).find((l) => isMetal(l));
      const usual = lead && usualMetres(rig, lead.from, lead.to);
      if (!lead || usual === undefined || lead.metres <= usual) return [];
      const states = { ...sound.states, [d.id]: { ...sound.states[d.id], engaged: true } };
      const played = listenedTo(ctx, rig, { ...sound, states });
      const into = (l: Lead) => pickupInto(played, d.id, leadPf(l), reference.ohms)?.at5kHzDb ?? 0;
      const back = into({ ...lead, metres: usual }) - into(lead);
      if (back < WORTH_SAYING_DB) return [];
      return [
        longLeadRemark(
          rig,
          lead,
          usual,
          `It is ${lead.metres} m long; into ${withPrefix(reference.ohms, 'Ω')}, when it is played, one of ` +
            `${usual} m gives back ${fixed(back)} dB at 5 kHz.`,
        ),
      ];
    });
}

/** A lead from an instrument that is too long, with the one that is usual there. */
const longLeadRemark = (rig: Rig, lead: Lead, usual: number, why: string): Remark => ({
  rule: 'dull-lead',
  severity: 'caution',
  subjects: [lead.from.device, lead.id],
  what: `The lead behind ${nameOf(rig, lead.from.device)} dulls the sound.`,
  why,
  fix: usualLead(rig, lead, usual),
});

const usualLead = (rig: Rig, lead: Lead, usual: number): Fix => ({
  words: `Take a lead of ${usual} m from ${nameOf(rig, lead.from.device)}`,
  edits: [{ edit: 'setLead', lead: lead.id, metres: usual }],
});

/** How much duller a pickup is at 5 kHz than through the reference lead, in dB. */
function lostAt(ctx: SoundContext, t: Evidence['tones'][number], reference: Reference): number {
  const compared = referenceTone(ctx, t.driver, reference);
  return compared ? compared.at5kHzDb - t.at5kHzDb : 0;
}

function bareRemark(
  { ctx, reference, stations }: Evidence,
  t: Evidence['tones'][number],
): Remark[] {
  const listener = ctx.device(t.listener);
  const lost = lostAt(ctx, t, reference);
  if (lost < WORTH_SAYING_DB) return [];
  const long = longLead({ ctx, stations }, t, lost);
  if (long || kindOf(listener.kind).wantsBarePickup) return long ? [long] : [];
  const place = bestPlace({ ctx, stations }, t);
  // What no buffer gives back, the player's own lead takes: it is what it is.
  if (!place || place.back < WORTH_A_BUFFER_DB) return [];
  const { back, fix, where } = place;
  return [
    {
      rule: 'buffer-place',
      severity: 'advice',
      subjects: [t.driver, t.listener],
      what: `Leads and loads between ${ctx.device(t.driver).name} and ${listener.name} take treble.`,
      why:
        `At 5 kHz it is ${fixed(lost)} dB duller than through the reference lead ` +
        `(${reference.metres} m into ${withPrefix(reference.ohms, 'Ω')}): ` +
        `${Math.round(t.leadPf)} pF of lead before the first active input. ` +
        `A buffer ${where} gives back ${fixed(back)} dB at 5 kHz. ` +
        'Some players want the loss; then accept this.',
      stake: back,
      fix: { ...fix, words: `${fix.words} (${fixed(back)} dB back at 5 kHz)` },
    },
  ];
}

/** The first lead of a pickup, where one of the usual length for where it runs would give back much, on a copy. */
function longLead(
  now: Pick<Heard, 'ctx' | 'stations'>,
  t: Evidence['tones'][number],
  lost: number,
): Remark | undefined {
  const { rig } = now.ctx;
  const lead = leadsFrom(rig, t.driver).find((l) => t.leads.includes(l.id));
  const usual = lead && usualMetres(rig, lead.from, lead.to);
  if (!lead || usual === undefined || lead.metres <= usual) return undefined;
  const fix = usualLead(rig, lead, usual);
  const back = givenBack(now, t, fix, `${lead.id} of ${usual} m`);
  if (back < WORTH_SAYING_DB) return undefined;
  return longLeadRemark(
    rig,
    lead,
    usual,
    `It is ${lead.metres} m long; at 5 kHz the pickup is ${fixed(lost)} dB duller than through the ` +
      `reference lead, and one of ${usual} m gives back ${fixed(back)} dB.`,
  );
}

/** What a buffer must give back at 5 kHz to be worth a word, in dB. */
const WORTH_A_BUFFER_DB = 1;

/** A place for a buffer, and what it gives back there at 5 kHz, in dB. */
interface Place {
  where: string;
  fix: Fix;
  back: number;
}

/**
 * The lead between a pickup and its listener in which a buffer, tried on a copy, gives back most: the
 * first unless another gives clearly more, as one behind a pot does.
 */
function bestPlace(
  now: Pick<Heard, 'ctx' | 'stations'>,
  t: Evidence['tones'][number],
): Place | undefined {
  const { rig } = now.ctx;
  const places = rig.leads
    .filter((l) => t.leads.includes(l.id) && !CONTROL_LEADS.includes(l.type))
    .filter((l) => l.from.device !== t.driver || l.to.device !== t.listener)
    .sort(byId)
    .map((lead): Place & { isFirst: boolean } => {
      const isFirst = lead.from.device === t.driver;
      const where = isFirst
        ? 'after the first lead'
        : `between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`;
      const fix = insertFix(rig, 'buffer', 'Buffer', lead.id, `Put a buffer ${where}`);
      return { isFirst, where, fix, back: givenBack(now, t, fix, lead.id) };
    });
  const clearly = (p: (typeof places)[number]) => p.back + (p.isFirst ? WORTH_A_BUFFER_DB : 0);
  return places.reduce<(typeof places)[number] | undefined>(
    (best, p) => (best && clearly(best) >= clearly(p) ? best : p),
    undefined,
  );
}

/**
 * How much louder 5 kHz arrives at the listener of a pickup with a fix made on a copy, in dB; `where` it
 * acts tells fixes of one section apart. It is remembered while the section stays what it is.
 */
function givenBack(
  now: Pick<Heard, 'ctx' | 'stations'>,
  t: Evidence['tones'][number],
  fix: Fix,
  where: string,
): number {
  const parts = partsOfSection(now.ctx, t);
  const key = `${t.driver} ${t.listener} ${where}`;
  if (!parts) return triedBack(now, t, fix);
  const [first] = parts;
  let known = givenBacks.get(first);
  if (!known) givenBacks.set(first, (known = []));
  const hit = known.find(
    (k) =>
      k.key === key &&
      k.parts.length === parts.length &&
      k.parts.every((part, i) => part === parts[i]),
  );
  if (hit) return hit.back;
  const back = triedBack(now, t, fix);
  known.unshift({ key, parts, back });
  known.length = Math.min(known.length, MOST_REMEMBERED);
  return back;
}

/** What fixes gave back, by the pickup of the section. */
const givenBacks = new WeakMap<
  object,
  { key: string; parts: readonly unknown[]; back: number }[]
>();
const MOST_REMEMBERED = 64;

/**
 * All that the sound of a pickup's own section depends on, its pickup first: its devices as the sound has
 * them, and every lead at them. Nothing where anything but instruments drives it, since that depends on
 * what is ahead.
 */
function partsOfSection(
  ctx: SoundContext,
  t: Evidence['tones'][number],
): readonly [object, ...unknown[]] | undefined {
  const { circuit } = ctx.flowing;
  const out = leadsFrom(ctx.rig, t.driver).find((l) => t.leads.includes(l.id));
  const net = out && circuit.netAt(t.driver, out.from.jack);
  const section = net && circuit.sections[net.section];
  if (!section || section.drivers.some((d) => !d.source)) return undefined;
  const inside = new Set(
    section.nets.flatMap((n) => entryAt(circuit.nets, n).points.map((p) => sourceDevice(p.device))),
  );
  const devices = ctx.rig.devices.filter((d) => inside.has(d.id));
  return [
    ctx.device(t.driver),
    ...devices.flatMap((d) => [d, stateIn(ctx.sound, d.id)]),
    ...ctx.rig.leads.filter((l) => inside.has(l.from.device) || inside.has(l.to.device)),
  ];
}

function triedBack(
  now: Pick<Heard, 'ctx' | 'stations'>,
  t: Evidence['tones'][number],
  fix: Fix,
): number {
  const copy = copyWith(now.ctx.rig, fix.edits);
  if (!copy) return 0;
  const { circuit } = now.ctx.flowing;
  const out = leadsFrom(now.ctx.rig, t.driver).find((l) => t.leads.includes(l.id));
  const section = out && circuit.netAt(t.driver, out.from.jack)?.section;
  // Of several inputs the one that this pickup comes in by.
  const jack = now.stations
    .filter((s) => s.device === t.listener)
    .flatMap((s) => s.ins)
    .find((j) => circuit.netAt(t.listener, j)?.section === section);
  if (jack === undefined) return 0;
  const at5kHz = (ctx: SoundContext) => {
    const input = pointFigures(ctx, t.listener, jack);
    return (input.levelDbu?.soft ?? NaN) + (input.tiltDb ?? NaN);
  };
  return at5kHz(listenedTo(now.ctx, copy)) - at5kHz(now.ctx) || 0;
}

/** The lead of a section that dulls most: what drives it, and its capacitance, fall off first. */
function dullest({ ctx }: Evidence, t: Evidence['tones'][number]): Lead | undefined {
  const { flowing, rig } = ctx;
  const falls = (lead: Lead): number => {
    const net = flowing.circuit.netAt(lead.from.device, lead.from.jack);
    const section = net && flowing.circuit.sections[net.section];
    if (!section) return Infinity;
    const { re } = flowing.solution(section, 1000).impedance(section.nets.indexOf(net.index));
    return 1 / (re * net.leadFarads);
  };
  const first = (lead: Lead) => (lead.from.device === t.driver ? 0 : 1);
  return rig.leads
    .filter((l) => t.leads.includes(l.id))
    .sort((a, b) => falls(a) - falls(b) || first(a) - first(b) || byId(a, b))[0];
}

function dullRemark(evidence: Evidence, t: Evidence['tones'][number]): Remark[] {
  if (t.minus3dBHz === null || t.minus3dBHz >= DULL_HERTZ) return [];
  const { ctx } = evidence;
  // What wants a pickup loads the coil of a pickup simulator on purpose: no lead does that.
  const isCoil = ctx.flowing.circuit.drivers.some((d) => d.device === t.driver && d.henries > 0);
  if (isCoil && kindOf(ctx.device(t.listener).kind).wantsBarePickup) return [];
  const lead = dullest(evidence, t);
  const behind = lead?.from.device ?? t.driver;
  const name = ctx.device(behind).name;
  const where = behind === t.driver ? 'on that output' : `around ${name}, which is passive,`;
  return [
    {
      rule: 'dull-lead',
      severity: 'caution',
      subjects: [behind, ...(lead ? [lead.id] : [])],
      what: `The lead behind ${name} dulls the sound.`,
      why:
        `${Math.round(t.leadPf)} pF of lead ${where} is 3 dB down ` +
        `at ${withPrefix(t.minus3dBHz, 'Hz')}.`,
      ...(lead && { fix: bufferAtStart(ctx.rig, lead) }),
    },
  ];
}

/** The patch lead from an output to a buffer beside it, in m. */
const BESIDE_METRES = 0.3;

/** A buffer beside the output that a lead leaves: the long piece of the lead is behind it. */
function bufferAtStart(rig: Rig, lead: Lead): Fix {
  const fix = insertFix(rig, 'buffer', 'Buffer', lead.id, 'Put a buffer at the start of the lead');
  const [insert] = fix.edits;
  const behind = insert?.edit === 'insertInLead' ? insert.newLeads[0] : undefined;
  if (behind === undefined) return fix;
  const pieces: Edit[] = [
    { edit: 'setLead', lead: lead.id, metres: Math.min(BESIDE_METRES, lead.metres) },
    { edit: 'setLead', lead: behind, metres: lead.metres },
  ];
  return { ...fix, edits: [...fix.edits, ...pieces] };
}
