import { sure, at as entryAt } from '../outcome';
import { byKey, nearestFirst } from '../graph';
import { kindOf } from '../kinds';
import { stationsOf, placeStations } from '../walk';
import { endWords, nameOf } from '../rig/find';
import { sameJson } from '../rig/same-json';
import { promiseWords } from '../rig/promise-words';
import type { Device, Lead, Rig, RigPromise, Sound, State } from '../rig/schema';
import { addressWords, positionWords, settingWords } from '../rig/words';

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const byId = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((x) => [x.id, x]));

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
  );
  for (const [key, words] of [
    ['cases', 'changed the cases'],
    ['stage', 'changed the stage plot'],
    ['tour', 'changed where the rig plays'],
    ['limits', 'changed the limits'],
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

function deviceChanges(before: Rig, after: Rig, was: Device, now: Device): string[] {
  const lines: string[] = [];
  if (was.name !== now.name) lines.push(`renamed ${was.name} to ${now.name}`);
  if (was.kind !== now.kind)
    lines.push(`${now.name} is now a ${kindOf(now.kind).name}, was a ${kindOf(was.kind).name}`);
  lines.push(...stateChanges(now, was, now, 'in every sound'));
  for (const id of new Set([
    ...Object.keys(was.figures ?? {}),
    ...Object.keys(now.figures ?? {}),
  ])) {
    const f = kindOf(now.kind).figures.find((x) => x.id === id);
    const value = now.figures?.[id];
    if (!same(was.figures?.[id], value))
      lines.push(
        value
          ? `${now.name}: ${f?.label ?? id} ${value.value} ${f?.unit ?? ''}, ${value.from}`
          : `${now.name}: ${f?.label ?? id} back to the typical figure`,
      );
  }
  if (was.host !== now.host)
    lines.push(
      now.host === undefined
        ? `moved ${now.name} out of ${nameOf(before, was.host!)}`
        : `moved ${now.name} into ${nameOf(after, now.host)}`,
    );
  if (!sameJson(was.supply, now.supply))
    lines.push(
      now.supply
        ? `${now.name} is fed from ${nameOf(after, now.supply.device)}` +
            (now.supply.outlet === undefined ? '' : `, ${now.supply.outlet}`)
        : `${now.name} is no longer fed from ${nameOf(before, was.supply!.device)}`,
    );
  if (!sameJson(was.gear, now.gear)) lines.push(`changed what is known of the unit ${now.name}`);
  if (!sameJson(was.at, now.at))
    lines.push(
      now.at
        ? `${was.at ? 'moved' : 'placed'} ${now.name} ` +
            `on ${after.boards?.find((b) => b.id === now.at!.board)?.name ?? now.at.board}`
        : `took ${now.name} off its board`,
    );
  if (!sameJson(was.rack, now.rack))
    lines.push(
      now.rack
        ? `mounted ${now.name} ` +
            `in ${after.racks?.find((r) => r.id === now.rack!.rack)?.name ?? now.rack.rack}, ` +
            `unit ${now.rack.unit}`
        : `took ${now.name} out of its rack`,
    );
  if (!sameJson([was.size, was.units, was.jackSpots], [now.size, now.units, now.jackSpots]))
    lines.push(`changed the measures of ${now.name}`);
  if (!sameJson(was.mains, now.mains)) lines.push(`changed what ${now.name} takes from the mains`);
  if (!sameJson(was.power, now.power)) lines.push(`changed what ${now.name} takes of power`);
  if (!sameJson(was.gives, now.gives)) lines.push(`changed the outlets of ${now.name}`);
  if ((was.pinned ?? false) !== (now.pinned ?? false))
    lines.push(now.pinned ? `pinned ${now.name} to its place` : `took out the pin of ${now.name}`);
  if (!sameJson(was.midi, now.midi)) lines.push(`changed how ${now.name} is set up for MIDI`);
  if (!sameJson(was.tempo, now.tempo))
    lines.push(
      `${now.name} takes its time ` +
        ('by ' +
          (now.tempo
            ? `${now.tempo.way}${now.tempo.division ? `, ${now.tempo.division}` : ''}`
            : 'its own setting')),
    );
  if (!sameJson(was.expects, now.expects))
    lines.push(`changed what the control jacks of ${now.name} expect`);
  if (
    was.notes !== now.notes ||
    was.maker !== now.maker ||
    was.model !== now.model ||
    was.place !== now.place
  )
    lines.push(`changed the record of ${now.name}`);
  return lines;
}

function stateChanges(
  device: Device,
  was: State | undefined,
  now: State | undefined,
  where: string,
): string[] {
  const lines: string[] = [];
  if (was?.engaged !== now?.engaged)
    lines.push(
      `${device.name} ` +
        (now?.engaged === undefined
          ? 'follows its own setting'
          : now.engaged
            ? 'engaged'
            : 'bypassed') +
        ` ${where}`,
    );
  if (!sameJson(was?.program, now?.program))
    lines.push(
      `${device.name} ${now?.program ? `keeps it at wire ${addressWords(now.program)}` : 'has no program'} ${where}`,
    );
  for (const id of new Set([
    ...Object.keys(was?.settings ?? {}),
    ...Object.keys(now?.settings ?? {}),
  ])) {
    const value = now?.settings?.[id];
    if (was?.settings?.[id] !== value)
      lines.push(
        value === undefined
          ? `${device.name}, ${id} follows its own setting ${where}`
          : `${device.name}, ${settingWords(device.kind, id, value)} ${where}`,
      );
  }
  return lines;
}

/** Devices in the order of the walk, whatever the sound. */
export function walkOrder(rig: Rig): string[] {
  const { stations, steps } = stationsOf(rig, rig.sounds[0]);
  placeStations(stations, steps);
  return [
    ...new Set(
      [...stations].sort((a, b) => a.lane - b.lane || a.column - b.column).map((s) => s.device),
    ),
  ];
}

/**
 * Devices that both rigs have and that stand elsewhere: those outside the longest run that kept its
 * order.
 */
function movedDevices(
  before: Rig,
  after: Rig,
): { id: string; device: string; next?: string; previous?: string }[] {
  const was = walkOrder(before);
  const rank = new Map(was.map((id, i) => [id, i]));
  const full = walkOrder(after);
  const now = full.filter((id) => rank.has(id));
  const kept = new Set(
    longestRising(now.map((id) => sure(rank.get(id)))).map((i) => entryAt(now, i)),
  );
  const name = (id: string | undefined) => after.devices.find((d) => d.id === id)?.name;
  return now
    .filter((id) => !kept.has(id))
    .map((id) => {
      const at = full.indexOf(id);
      return {
        id,
        device: name(id) ?? id,
        next: name(full[at + 1]),
        previous: name(full[at - 1]),
      };
    });
}

/** Positions of a longest rising run in a list of different numbers. */
function longestRising(values: readonly number[]): number[] {
  const tails: number[] = [];
  const parent: number[] = [];
  values.forEach((v, i) => {
    let low = 0;
    let high = tails.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (entryAt(values, entryAt(tails, middle)) < v) low = middle + 1;
      else high = middle;
    }
    parent[i] = low > 0 ? entryAt(tails, low - 1) : -1;
    tails[low] = i;
  });
  const run: number[] = [];
  for (let at = tails.at(-1) ?? -1; at >= 0; at = entryAt(parent, at)) run.unshift(at);
  return run;
}

/** A way from one device to another, whatever stands in it of those that came, went or moved. */
interface Joint {
  key: string;
  leads: Lead[];
}

/**
 * What is joined to what, with the devices in `through` taken for pieces of lead: what is true of
 * both rigs was not rewired, whatever was put in, taken out or moved.
 */
function jointsOf(rig: Rig, through: ReadonlySet<string>): Joint[] {
  const outOf = byKey(rig.leads, (l) => l.from.device);
  return rig.leads
    .filter((l) => !through.has(l.from.device))
    .flatMap((first) => {
      const onward = (way: Lead[]): Lead[][] => {
        const at = way[way.length - 1]?.to.device;
        return at !== undefined && through.has(at)
          ? (outOf.get(at) ?? []).map((next) => [...way, next])
          : [];
      };
      const ways = [...nearestFirst([[first]], onward, (way) => way[way.length - 1])];
      return ways.flatMap((leads): Joint[] => {
        const last = leads[leads.length - 1];
        if (!last || through.has(last.to.device)) return [];
        const { from } = first;
        const { to } = last;
        return [{ key: `${from.device}/${from.jack}>${to.device}/${to.jack}`, leads }];
      });
    });
}

/**
 * Leads that were plugged, pulled or changed. One that only follows from a device that was put in,
 * taken out or moved is not told beside it.
 */
function leadChanges(before: Rig, after: Rig, moved: readonly string[]): string[] {
  const place = (l: Lead) => `${l.from.device}/${l.from.jack}>${l.to.device}/${l.to.jack}`;
  const old = new Map(before.leads.map((l) => [place(l), l]));
  const now = new Map(after.leads.map((l) => [place(l), l]));
  const [was, is] = [byId(before.devices), byId(after.devices)];
  const through = new Set([
    ...moved,
    ...before.devices.map((d) => d.id).filter((id) => !is.has(id)),
    ...after.devices.map((d) => d.id).filter((id) => !was.has(id)),
  ]);
  const [joined, joins] = [jointsOf(before, through), jointsOf(after, through)];
  const follows = (own: readonly Joint[], other: readonly Joint[]): Set<Lead> => {
    const there = new Set(other.map((j) => j.key));
    return new Set(own.filter((j) => there.has(j.key)).flatMap((j) => j.leads));
  };
  const [kept, still] = [follows(joined, joins), follows(joins, joined)];
  const lines: string[] = [];
  for (const [at, l] of now) {
    const other = old.get(at);
    const changes = other ? leadDetails(other, l) : [];
    if (changes.length)
      lines.push(
        `lead from ${endWords(after, l.from)} to ${endWords(after, l.to)}: ${changes.join(', ')}`,
      );
    else if (!other && !still.has(l))
      lines.push(`connected ${endWords(after, l.from)} to ${endWords(after, l.to)}`);
  }
  for (const [at, l] of old) {
    const isGone = !is.has(l.from.device) || !is.has(l.to.device);
    if (!now.has(at) && !isGone && !kept.has(l))
      lines.push(`disconnected ${endWords(before, l.from)} from ${endWords(before, l.to)}`);
  }
  return lines;
}

/** What is different about a lead between the same two jacks. */
function leadDetails(was: Lead, now: Lead): string[] {
  const told = <T>(a: T, b: T, say: (v: NonNullable<T>) => string, none: string): string[] =>
    a === b
      ? []
      : [
          `${b === undefined || b === null ? none : say(b)} (was ${a === undefined || a === null ? none : say(a)})`,
        ];
  return [
    ...told(was.type, now.type, (v) => v, ''),
    ...told(was.metres, now.metres, (v) => `${v} m`, ''),
    ...told(was.pfPerMetre, now.pfPerMetre, (v) => `${v} pF/m`, 'typical capacitance'),
    ...told(was.squareMm, now.squareMm, (v) => `${v} mm²`, 'no cross-section'),
    ...told(was.conductor, now.conductor, (v) => `on the ${v}`, 'on no one conductor'),
    ...told(
      was.shieldLifted ?? false,
      now.shieldLifted ?? false,
      (v) => (v ? 'shield open at one end' : 'shield whole'),
      '',
    ),
    ...told(was.pF, now.pF, (v) => `measured ${v} pF`, 'not measured'),
    ...told(
      was.plugs?.from,
      now.plugs?.from,
      (v) => `${v} plug at the start`,
      'usual plug at the start',
    ),
    ...told(was.plugs?.to, now.plugs?.to, (v) => `${v} plug at the end`, 'usual plug at the end'),
    ...told(
      was.crossed ?? false,
      now.crossed ?? false,
      (v) => (v ? 'tip and ring crossed' : 'straight'),
      '',
    ),
    ...told(was.label || undefined, now.label || undefined, (v) => `label ${v}`, 'no label'),
  ];
}

function soundChanges(before: Rig, after: Rig): string[] {
  const lines: string[] = [];
  const old = byId<Sound>(before.sounds);
  const now = byId<Sound>(after.sounds);
  for (const s of before.sounds) if (!now.has(s.id)) lines.push(`removed the sound ${s.name}`);
  for (const s of after.sounds) {
    const was = old.get(s.id);
    if (!was) {
      lines.push(`added the sound ${s.name}`);
      continue;
    }
    if (was.name !== s.name) lines.push(`renamed the sound ${was.name} to ${s.name}`);
    if (was.notes !== s.notes) lines.push(`changed the notes of ${s.name}`);
    for (const d of after.devices)
      lines.push(...stateChanges(d, was.states[d.id], s.states[d.id], `in ${s.name}`));
    for (const id of new Set([
      ...Object.keys(was.controls ?? {}),
      ...Object.keys(s.controls ?? {}),
    ])) {
      const at = s.controls?.[id];
      if (was.controls?.[id] !== at && after.controls?.some((c) => c.id === id))
        lines.push(
          `${sure(after.controls.find((c) => c.id === id)).name} ${positionWords(at)} in ${s.name}`,
        );
    }
    for (const id of new Set([...(was.sends ?? []), ...(s.sends ?? [])].map((x) => x.from))) {
      const of = (list: Sound['sends']) => (list ?? []).filter((x) => x.from === id);
      if (!sameJson(of(was.sends), of(s.sends)))
        lines.push(`changed what ${nameOf(after, id)} sends in ${s.name}`);
    }
  }
  const order = (r: Rig, other: Map<string, Sound>) =>
    r.sounds.filter((s) => other.has(s.id)).map((s) => s.id);
  if (!same(order(before, now), order(after, old))) lines.push('changed the order of the sounds');
  return lines;
}

/** The changes from one sound to another within a rig, device by device. */
export function compareSounds(rig: Rig, a: string, b: string): string[] {
  const [one, two] = [a, b].map((id) => rig.sounds.find((s) => s.id === id));
  if (!one || !two) return [];
  return rig.devices.flatMap((d) =>
    stateChanges(d, effective(d, one), effective(d, two), `in ${two.name}`),
  );
}

const effective = (d: Device, s: Sound): State => ({
  engaged: s.states[d.id]?.engaged ?? d.engaged ?? kindOf(d.kind).startsEngaged ?? false,
  settings: Object.fromEntries(
    kindOf(d.kind).parameters.map((p) => [
      p.id,
      s.states[d.id]?.settings?.[p.id] ?? d.settings?.[p.id] ?? p.initial,
    ]),
  ),
});
