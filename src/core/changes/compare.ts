import { kindOf } from '../kinds';
import { nameOf } from '../rig/find';
import { sameJson } from '../rig/same-json';
import { promiseWords } from '../rig/promise-words';
import type { Rig, RigPromise } from '../rig/schema';
import { same, byId } from './parts';
import { deviceChanges } from './device-changes';
import { leadChanges } from './lead-changes';
import { movedDevices } from './moved-devices';
import { sheetDifferences } from './sheet-changes';
import { soundChanges } from './sound-changes';

/**
 * What changed from one rig to another, in sentences a tech would use. Devices that stand elsewhere
 * in the walk are told as moves ("moved Wah before Amber Drive"), not as the leads that changed
 * with them.
 */
export function compareRigs(before: Rig, after: Rig): string[] {
  const lines: string[] = [];
  if (before.name !== after.name)
    lines.push(`renamed the rig from ${before.name} to ${after.name}`);
  if (before.notes !== after.notes) lines.push('changed the notes of the rig');
  const old = byId(before.devices);
  const now = byId(after.devices);
  for (const d of before.devices) if (!now.has(d.id)) lines.push(`removed ${d.name}`);
  for (const d of after.devices) {
    const was = old.get(d.id);
    if (!was) lines.push(`added ${d.name} (${kindOf(d.kind).name})`);
    else lines.push(...deviceChanges(before, after, was, d));
  }
  const moved = movedDevices(before, after);
  for (const { device, next, previous } of moved)
    lines.push(
      `moved ${device}${next ? ` before ${next}` : previous ? ` behind ${previous}` : ''}`,
    );
  lines.push(
    ...leadChanges(
      before,
      after,
      moved.map((m) => m.id),
    ),
  );
  lines.push(...soundChanges(before, after));
  if (!same(before.order, after.order)) lines.push('changed the stance on order rules');
  if (!same(before.accepted ?? [], after.accepted ?? []))
    lines.push('changed which findings are accepted');
  lines.push(...tickChanges(before, after));
  if (!same(before.making, after.making)) lines.push('changed how leads are made');
  lines.push(
    ...listChanges('board', (x) => x.name, before.boards, after.boards),
    ...listChanges('rack', (x) => x.name, before.racks, after.racks),
    ...listChanges('loom', (x) => x.name, before.looms, after.looms),
    ...listChanges('sheet', (x) => x.name, before.sheets, after.sheets, sheetDifferences),
  );
  for (const [key, words] of [
    ['cases', 'changed the cases'],
    ['stage', 'changed the stage plot'],
    ['tour', 'changed where the rig plays'],
    ['limits', 'changed the limits'],
    ['controllerWants', 'changed what a controller must have'],
  ] as const)
    if (!sameJson(before[key], after[key])) lines.push(words);
  if (!same(before.brief, after.brief)) lines.push('changed the brief');
  lines.push(...promiseChanges(before, after));
  lines.push(
    ...listChanges('control', (c) => c.name, before.controls, after.controls),
    ...songChanges(before, after),
    ...listChanges('set', (x) => x.name, before.sets, after.sets),
  );
  if (!same(before.candidates ?? [], after.candidates ?? []))
    lines.push('changed which controllers are compared');
  if (!same(before.reference, after.reference)) lines.push('changed the reference lead');
  return lines;
}

/** What is different in a list of things with ids; `details` tells what changed in one of them. */
function listChanges<T extends { id: string }>(
  what: string,
  name: (x: T) => string,
  before: readonly T[] = [],
  after: readonly T[] = [],
  details: (was: T, now: T) => string[] = () => [],
): string[] {
  const [old, now] = [byId(before), byId(after)];
  const order = (list: readonly T[], other: Map<string, T>) =>
    list.filter((x) => other.has(x.id)).map((x) => x.id);
  const changed = (x: T): string[] => {
    const was = old.get(x.id);
    if (!was) return [`added the ${what} ${name(x)}`];
    if (sameJson(was, x)) return [];
    const told = details(was, x);
    return [`changed the ${what} ${name(x)}${told.length ? `: ${told.join(', ')}` : ''}`];
  };
  return [
    ...before.filter((x) => !now.has(x.id)).map((x) => `removed the ${what} ${name(x)}`),
    ...after.flatMap(changed),
    ...(same(order(before, now), order(after, old)) ? [] : [`changed the order of the ${what}s`]),
  ];
}

/** Songs, told by what a player would ask: tempo, key, tuning, instrument, sections. */
const songChanges = (before: Rig, after: Rig): string[] =>
  listChanges(
    'song',
    (x) => x.title,
    before.songs,
    after.songs,
    (was, song) => {
      const told = (['bpm', 'key', 'tuning', 'title'] as const).flatMap((field) =>
        was[field] === song[field]
          ? []
          : [`${field} ${song[field] ?? 'not said'} (was ${was[field] ?? 'not said'})`],
      );
      if (was.instrument !== song.instrument)
        told.push(
          `on ${song.instrument === undefined ? 'no one instrument' : nameOf(after, song.instrument)}`,
        );
      if (!sameJson(was.sections, song.sections)) told.push('sections');
      if (!sameJson(was.states, song.states) || !sameJson(was.divisions, song.divisions))
        told.push('what differs in this song');
      return told;
    },
  );

function tickChanges(before: Rig, after: Rig): string[] {
  const [old, now] = [before, after].map(
    (r) => new Set((r.done?.ticks ?? []).map((t) => t.id)),
  ) as [Set<string>, Set<string>];
  const fresh = (after.done?.ticks ?? []).filter((t) => !old.has(t.id));
  const back = [...old].filter((id) => !now.has(id)).length;
  const same_ = sameJson({ ...before.done, ticks: [] }, { ...after.done, ticks: [] });
  const again = (after.done?.ticks ?? []).filter(
    (t) =>
      old.has(t.id) &&
      !sameJson(
        t,
        before.done?.ticks.find((x) => x.id === t.id),
      ),
  ).length;
  return [
    ...(fresh.length
      ? [
          `ticked ${fresh.length} of the checklist (${[...new Set(fresh.map((t) => t.by))].join(', ')})`,
        ]
      : []),
    ...(back ? [`took ${back} ticks back`] : []),
    ...(again ? [`ticked ${again} again`] : []),
    ...(same_ ? [] : ['changed the timer of the adhesive']),
  ];
}

function promiseChanges(before: Rig, after: Rig): string[] {
  const old = byId<RigPromise>(before.promises ?? []);
  const now = byId<RigPromise>(after.promises ?? []);
  return [
    ...[...old.values()]
      .filter((p) => !now.has(p.id))
      .map((p) => `took back the promise: ${promiseWords(before, p)}`),
    ...[...now.values()]
      .filter((p) => !sameJson(old.get(p.id), p))
      .map(
        (p) => `${old.has(p.id) ? 'changed a promise to' : 'promised'}: ${promiseWords(after, p)}`,
      ),
  ];
}
