import { at as entryAt, sure } from '../outcome';
import { soundContext } from '../signal/sound-context';
import { pointFigures } from '../signal/station-figures';
import { kindOf } from '../kinds';
import { FixTrial } from '../report';
import { applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, endWords, nameOf } from '../rig/find';
import { insertFix } from '../findings/insert-fix';
import type { Rig, Sound } from '../rig/schema';
import { harmOf, harmWords } from './harm';
import { type Progress, silently } from './step';

/**
 * A buffer put into a lead: how much louder 5 kHz arrives at the end of that passive section, in
 * dB, after the ones before it are in.
 */
export interface BufferGain {
  lead: string;
  words: string;
  listener: string;
  gainDb: number;
  edits: Edit[];
}

export interface BufferProposal {
  gains: BufferGain[];
  spared: string[];
}

/** Less than this, in dB at 5 kHz, is no reason for a box. */
const EARNS_DB = 1;
/** More buffers than this are not proposed. */
const MOST = 6;

/** Levels at 5 kHz where each passive section that leads carry ends, by who listens there. */
function brightAtEnds(rig: Rig, sound: Sound): Map<string, number> {
  const ctx = soundContext(rig, sound);
  const found = new Map<string, number>();
  for (const s of ctx.flowing.circuit.stages) {
    const { circuit } = ctx.flowing;
    const section = entryAt(circuit.sections, entryAt(circuit.nets, s.from).section);
    if (
      s.lead ||
      s.stage.inOhms === Infinity ||
      !section.nets.some((n) => entryAt(circuit.nets, n).leads.length)
    )
      continue;
    const point = entryAt(ctx.flowing.circuit.nets, s.from).points.find(
      (p) => p.device === s.device,
    )?.point;
    const at = point === undefined ? undefined : pointFigures(ctx, s.device, point);
    if (at?.levelDbu && at.tiltDb !== null)
      found.set(`${s.device}/${point!}`, at.levelDbu.normal + at.tiltDb);
  }
  return found;
}

/**
 * Where buffers earn their keep in a sound: each lead is tried with a buffer in it, the one that
 * gives most at 5 kHz and breaks nothing on a copy is kept, and the search goes on from there. Leads
 * between a pickup and a device that wants to load it are spared, and links inside hosts.
 */
export async function proposeBuffers(
  rig: Rig,
  sound: Sound,
  progress: Progress = silently,
): Promise<BufferProposal> {
  const gains: BufferGain[] = [];
  const spared = new Set<string>();
  const trial = new FixTrial(rig);
  const harm = new Map<string, string[]>();
  let at = rig;
  for (let round = 0; round < MOST; round++) {
    const now = brightAtEnds(at, sound);
    const wanting = sparedLeads(at, sound);
    wanting.forEach((w) => spared.add(w.words));
    const leads = at.leads.filter(
      (l) =>
        ['instrument', 'balanced', 'stereo'].includes(l.type) &&
        !wanting.some((w) => w.leads.includes(l.id)) &&
        kindOf(sure(deviceOf(at, l.to.device)).kind).job !== 'buffer',
    );
    const found: BufferGain[] = [];
    for (const [i, lead] of leads.entries()) {
      await progress(
        (round + i / leads.length) / MOST,
        `Trying a buffer behind ${nameOf(at, lead.from.device)}`,
      );
      const fix = insertFix(at, 'buffer', 'Buffer', lead.id, '');
      const insert = entryAt(fix.edits, 0);
      const id = insert.edit === 'insertInLead' ? insert.device.id : '';
      const edits: Edit[] = [...fix.edits, { edit: 'setEngaged', device: id, engaged: true }];
      const put = applyEdits(at, edits);
      if (!put.ok) continue;
      const then = brightAtEnds(put.value.rig, sound);
      for (const [end, db] of now) {
        const gain = (then.get(end) ?? -Infinity) - db;
        if (gain >= EARNS_DB)
          found.push({
            lead: lead.id,
            gainDb: gain,
            listener: entryAt(end.split('/'), 0),
            edits,
            words: `Between ${endWords(at, lead.from)} and ${endWords(at, lead.to)}`,
          });
      }
    }
    const edits = gains.flatMap((g) => g.edits);
    const best = mostFirst(found).find((one) => {
      if (harm.has(one.words)) return false;
      const breaks = harmOf(trial, [...edits, ...one.edits]);
      if (breaks.length) harm.set(one.words, breaks);
      return !breaks.length;
    });
    if (!best) break;
    gains.push(best);
    const put = applyEdits(at, best.edits);
    if (!put.ok) break;
    at = put.value.rig;
  }
  for (const [where, breaks] of harm)
    spared.add(`${where} a buffer would bring ${harmWords(breaks)}`);
  return { gains, spared: [...spared] };
}

/** Gains within this of one another are one: the first lead is taken. */
const SAME_DB = 0.05;

/** The largest gain first; of those that are the same, in the order in which they were found. */
function mostFirst(found: readonly BufferGain[]): BufferGain[] {
  const left = [...found];
  const sorted: BufferGain[] = [];
  while (left.length) {
    const best = left.reduce((a, b) => (b.gainDb > a.gainDb + SAME_DB ? b : a));
    sorted.push(...left.splice(left.indexOf(best), 1));
  }
  return sorted;
}

/** Leads of passive sections in which an engaged device wants to load the pickup itself. */
function sparedLeads(rig: Rig, sound: Sound): { leads: string[]; words: string }[] {
  const { flowing, device } = soundContext(rig, sound);
  return flowing.circuit.sections.flatMap((section) => {
    if (!section.drivers.some((d) => d.source?.bare)) return [];
    const nets = new Set(section.nets);
    const wants = flowing.circuit.stages.find(
      (s) => nets.has(s.from) && kindOf(device(s.device).kind).wantsBarePickup,
    );
    return wants
      ? [
          {
            leads: section.nets.flatMap((n) => entryAt(flowing.circuit.nets, n).leads),
            words: `${device(wants.device).name} wants the bare pickup, so nothing is put before it`,
          },
        ]
      : [];
  });
}
