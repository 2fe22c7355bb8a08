import { kindOf } from '../kinds';
import { blocksOf, insideOf } from './find';
import { freshId } from './fresh-id';
import type { Clip } from './read-clip';
import type { Device, Lead, Rig, State } from './schema';
import { kindIdOf, kindOfSheet } from './sheets/own-kinds';
import type { Sheet } from './sheets/sheet-schema';

/**
 * Copies devices, and what lives inside them. Where they stand, what feeds them and which very unit they
 * are stays behind: a unit is in one place.
 */
export function clipOf(rig: Rig, ids: readonly string[]): Clip {
  const all = new Set(ids.flatMap((id) => [id, ...blocksOf(rig, id).map((d) => d.id)]));
  // What exists only inside a host cannot stand outside one.
  const isHomeless = (d: Device) =>
    d.host !== undefined &&
    !all.has(d.host) &&
    kindOf(d.kind).jacks.every((j) => j.connector === 'inside');
  const taken = new Set(
    rig.devices.flatMap((d) => (all.has(d.id) && !isHomeless(d) ? [d.id] : [])),
  );
  const bare = ({
    at: _at,
    rack: _rack,
    supply: _supply,
    gear: _gear,
    mains,
    ...device
  }: Device) => {
    const { from: _from, ...own } = mains ?? {};
    const isInside = device.host !== undefined && taken.has(device.host);
    const { host, ...outside } = device;
    return {
      ...outside,
      ...(isInside && { host }),
      ...(Object.keys(own).length > 0 && { mains: own }),
    };
  };
  const has = ({ from, to, type }: Lead) =>
    taken.has(from.device) &&
    taken.has(to.device) &&
    (type !== 'inside' || taken.has(insideOf(rig, from) ?? ''));
  const states: Clip['states'] = {};
  for (const sound of rig.sounds) {
    const own = Object.entries(sound.states).filter(([id]) => taken.has(id));
    if (own.length)
      states[sound.name] = Object.fromEntries(own.map(([id, s]) => [id, bareState(s)]));
  }
  const devices = rig.devices.filter((d) => taken.has(d.id)).map(bare);
  return {
    format: 'yantrel-clip',
    version: 1,
    from: rig.name,
    devices,
    leads: rig.leads.filter(has),
    states,
    ...withSheets(rig.sheets?.filter((s) => devices.some((d) => d.kind === kindIdOf(s)))),
  };
}

const withSheets = (sheets: Clip['sheets']) => (sheets?.length ? { sheets } : {});

/** A state without the program that it is kept under: that is the place of one unit's memory. */
function bareState({ program: _program, ...state }: State): State {
  return state;
}

/** A clip as it goes into a rig: with ids that are free there, and names that tell the copies apart. */
export function fittedTo(rig: Rig, clip: Clip): Clip {
  const ids = new Map<string, string>();
  const taken = rig.devices.map((d) => d.id);
  const { sheets: brought, ...rest } = clip;
  const { sheets, kindHere } = sheetsHere(rig, brought);
  const names = new Set(rig.devices.map((d) => d.name));
  const devices = clip.devices.map((d) => {
    const id = freshId(d.id, taken);
    taken.push(id);
    ids.set(d.id, id);
    let { name } = d;
    for (let n = 2; names.has(name); n++) name = `${d.name.replace(/ \d+$/, '')} ${n}`;
    names.add(name);
    return { ...d, id, name, kind: kindHere(d.kind) };
  });
  const leads = rig.leads.map((l) => l.id);
  const to = (id: string) => ids.get(id) ?? id;
  return {
    ...rest,
    ...withSheets(sheets),
    devices: devices.map((d) => (d.host === undefined ? d : { ...d, host: to(d.host) })),
    leads: clip.leads.map((l) => {
      const id = freshId(l.id, leads);
      leads.push(id);
      return {
        ...l,
        id,
        from: { ...l.from, device: to(l.from.device) },
        to: { ...l.to, device: to(l.to.device) },
      };
    }),
    states: Object.fromEntries(
      Object.entries(clip.states).map(([sound, own]) => [
        sound,
        Object.fromEntries(Object.entries(own).map(([id, s]) => [to(id), s])),
      ]),
    ),
  };
}

/**
 * The sheets that a clip brings and the rig does not hold yet. Where the rig has another sheet of the
 * same id, both stay: the one that comes gets a free id, and the devices that come follow it.
 */
export function sheetsHere(rig: Rig, brought: readonly Sheet[] = []) {
  const held = rig.sheets ?? [];
  const ids = held.map((s) => s.id);
  const now = new Map<string, string>();
  const sheets = brought.flatMap((sheet) => {
    if (held.some((s) => kindIdOf(s) === kindIdOf(sheet))) return [];
    const id = freshId(sheet.id, ids);
    ids.push(id);
    const own = { ...sheet, id };
    now.set(kindIdOf(sheet), kindOfSheet(own).id);
    return [own];
  });
  return { sheets, kindHere: (kind: string) => now.get(kind) ?? kind };
}

/** Leads of a rig that end at one of some devices and at none of the others: they do not come with a clip. */
export const cutLeads = (rig: Rig, ids: readonly string[]): Lead[] =>
  rig.leads.filter((l) => ids.includes(l.from.device) !== ids.includes(l.to.device));
