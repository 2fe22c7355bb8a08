import { findKind } from '../kinds';
import { cutText } from '../rig';
import { endWords, nameOf } from '../rig/find';
import type { Clash } from '../rig/merge';
import { promiseWords } from '../rig/promise-words';
import type { Lead, Rig, RigPromise } from '../rig/schema';

/** A clash as a person reads it: what it is about, and both values. */
export interface ClashWords {
  what: string;
  mine: string;
  theirs: string;
  why?: string;
}

/** What entries of the lists of a document are called. */
const ENTRIES: Record<string, string> = {
  devices: 'device',
  leads: 'lead',
  sounds: 'sound',
  songs: 'song',
  sets: 'set',
  sections: 'section',
  promises: 'promise',
  controls: 'control',
  assigns: 'assignment',
  boards: 'board',
  racks: 'rack',
  cases: 'case',
  looms: 'loom',
  candidates: 'candidate',
};

const FIELDS: Record<string, string> = {
  name: 'name',
  title: 'title',
  engaged: 'on or off',
  metres: 'length',
  bpm: 'tempo',
  at: 'place on the board',
  rack: 'place in the rack',
  supply: 'outlet',
  tos: 'to',
};

type Thing = Record<string, unknown>;
const isThing = (v: unknown): v is Thing =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * Says what two sides changed differently: the thing by the name that both know from `base`, its
 * field, and both values.
 */
export function clashWords(mine: Rig, theirs: Rig, clash: Clash, base = theirs): ClashWords {
  return {
    what: placeOf([base, mine, theirs], clash.where),
    mine: valueOf(mine, clash.mine),
    theirs: valueOf(theirs, clash.theirs),
    ...(clash.why !== undefined && { why: clash.why }),
  };
}

/** A path such as `sounds[lead].states.kiln.engaged`, in words: "Lead, Kiln Drive, on or off". */
function placeOf(rigs: [Rig, ...Rig[]], where: string): string {
  const words: string[] = [];
  let at: unknown[] = rigs;
  let device: string | undefined;
  for (const [, field, id] of where
    .replace(/ \(order\)$/, '')
    .matchAll(/([^.[\]]+)(?:\[([^\]]*)\])?/g)) {
    const named = field && rigs.find((r) => r.devices.some((d) => d.id === field));
    at = at.map((x) => (isThing(x) ? x[field ?? ''] : undefined));
    if (id !== undefined) {
      at = at.map((x) =>
        Array.isArray(x) ? (x as Thing[]).find((y) => (y.id ?? y.finding) === id) : undefined,
      );
      const entry = at.find(isThing);
      if (field === 'devices') device = id;
      words.push(
        entry ? entryWords(rigs, field ?? '', entry) : `${ENTRIES[field ?? ''] ?? field} ${id}`,
      );
    } else if (named) {
      device = field;
      words.push(nameOf(named, field));
    } else if (field && field !== 'settings' && field !== 'states' && field !== 'figures') {
      words.push(fieldWords(rigs[0], device, field));
    }
  }
  if (where.endsWith('(order)')) words.push('order');
  return words.join(', ');
}

function fieldWords(rig: Rig, device: string | undefined, field: string): string {
  const kind = findKind(rig.devices.find((d) => d.id === device)?.kind ?? '');
  const own =
    kind?.parameters.find((p) => p.id === field)?.label ??
    kind?.figures.find((f) => f.id === field)?.label;
  return own ?? FIELDS[field] ?? field.replace(/([A-Z])/g, ' $1').toLowerCase();
}

function entryWords(rigs: [Rig, ...Rig[]], list: string, entry: Thing): string {
  if (list === 'leads')
    return valueOf(rigs.find((r) => r.leads.includes(entry as never)) ?? rigs[0], entry);
  if (list === 'promises') return promiseWords(rigs[0], entry as unknown as RigPromise);
  const name = entry.name ?? entry.title;
  return typeof name === 'string' ? name : `${ENTRIES[list] ?? list} ${String(entry.id)}`;
}

/** A value as it is read: what is not there was removed. */
function valueOf(rig: Rig, value: unknown): string {
  if (value === undefined) return 'not there';
  if (typeof value === 'string') return value === '' ? 'empty' : value;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'number') return String(value);
  if (isThing(value)) {
    if (isThing(value.from) && isThing(value.to)) {
      const lead = value as unknown as Lead;
      return `a lead from ${endWords(rig, lead.from)} to ${endWords(rig, lead.to)}`;
    }
    const name = value.name ?? value.title;
    if (typeof name === 'string') return `${name}, as it is there`;
  }
  if (Array.isArray(value) && value.every((x) => typeof x === 'string'))
    return value.map((id) => nameOf(rig, id)).join(', ');
  const text = JSON.stringify(value);
  return text.length > 90 ? `${cutText(text, 90)} …` : text;
}
