import {
  applyPatches,
  current,
  type Draft,
  enablePatches,
  type Patch,
  produceWithPatches,
} from 'immer';
import { findKind } from '../kinds';
import {
  addDevice,
  moveDevice,
  putDeviceInLead,
  removeDevice,
  replaceDevice,
  unplugLost,
} from './chain-edits';
import type { Edit, EditName, EditOf } from './edit';
import { deviceOf, insideOf, leadOf, leadTypeFor, nameOf, soundOf } from './find';
import { integrityProblems } from './integrity';
import { issueWords } from './issue-words';
import { moveFromLoop, moveToLoop } from './loop-edits';
import { done, type Outcome, refused } from './problem';
import { type Device, type Rig, rigSchema, type Sound, type State } from './schema';

enablePatches();

/** An edit that was applied: the new document, and the patches that lead there and back. */
export interface Applied {
  rig: Rig;
  patches: Patch[];
  inverse: Patch[];
}

/** Why an edit cannot be done, in words; handlers return it instead of throwing. */
export type Refusal = string | undefined | void;

type Handler<N extends EditName> = (rig: Draft<Rig>, edit: EditOf<N>) => Refusal;

const device = (rig: Rig, id: string): Device | string =>
  deviceOf(rig, id) ?? `There is no device "${id}" any more.`;
const sound = (rig: Rig, id: string): Sound | string =>
  soundOf(rig, id) ?? `There is no sound "${id}" any more.`;

function onDevice(rig: Draft<Rig>, id: string, change: (d: Draft<Device>) => Refusal): Refusal {
  const found = device(rig, id);
  return typeof found === 'string' ? found : change(found);
}

function onSound(rig: Draft<Rig>, id: string, change: (s: Draft<Sound>) => Refusal): Refusal {
  const found = sound(rig, id);
  return typeof found === 'string' ? found : change(found);
}

/** Where a state is written: in a sound, or in the device itself. */
function onState(
  rig: Draft<Rig>,
  deviceId: string,
  soundId: string | undefined,
  change: (s: Draft<State>) => void,
): Refusal {
  return onDevice(rig, deviceId, (d) => {
    if (soundId === undefined) return void change(d);
    return onSound(rig, soundId, (s) => void change((s.states[deviceId] ??= {})));
  });
}

type Listed = 'controls' | 'songs' | 'sets' | 'promises' | 'boards' | 'racks' | 'looms';
const LISTED: Record<Listed, string> = {
  controls: 'control',
  songs: 'song',
  sets: 'set',
  promises: 'promise',
  boards: 'board',
  racks: 'rack',
  looms: 'loom',
};

/**
 * Adds an entry to one of the lists whose entries have ids of their own; `at` is its place, the end
 * where it is left out.
 */
function addTo<L extends Listed>(
  rig: Draft<Rig>,
  list: L,
  entry: NonNullable<Rig[L]>[number],
  at?: number,
): Refusal {
  const entries = (rig[list] ??= [] as never) as { id: string }[];
  if (entries.some((x) => x.id === entry.id))
    return `the id "${entry.id}" is used twice; give one of the two another`;
  entries.splice(at ?? entries.length, 0, entry);
}

/** Puts an entry in the place of the one with its id; without an entry, takes that one out. */
function changeIn<L extends Listed>(
  rig: Draft<Rig>,
  list: L,
  id: string,
  entry?: NonNullable<Rig[L]>[number],
): Refusal {
  const entries = (rig[list] ?? []) as { id: string }[];
  const at = entries.findIndex((x) => x.id === id);
  if (at < 0) return `That ${LISTED[list]} is not there any more.`;
  if (entry) entries[at] = entry;
  else entries.splice(at, 1);
}

const HANDLERS: { [N in EditName]: Handler<N> } = {
  renameRig: (rig, e) => void (rig.name = e.name),
  setRigNotes: (rig, e) => void (rig.notes = e.notes),
  addDevice: (rig, e) => addDevice(rig, e.device),
  insertInLead: (rig, e) => putDeviceInLead(rig, e.device, e.lead, e.newLeads),
  append: (rig, e) => {
    const kind = findKind(e.device.kind);
    if (!kind) return `There is no kind "${e.device.kind}".`;
    const jack = kind.through?.in ?? kind.jacks.find((j) => j.direction !== 'out' && !j.inside)?.id;
    if (!jack) return `${kind.name} has no input to connect.`;
    const host = insideOf(rig, e.after);
    if (host !== undefined && !kind.block && !kind.hosts)
      return `${kind.name} cannot live inside ${deviceOf(rig, host)?.name ?? host}: it has no block form.`;
    addDevice(rig, host === undefined ? e.device : { ...e.device, host });
    const to = { device: e.device.id, jack };
    const type = leadTypeFor(rig, e.after, to);
    rig.leads.push({ id: e.newLead, from: e.after, to, type, metres: type === 'inside' ? 0 : 0.3 });
  },
  removeDevice: (rig, e) => removeDevice(rig, e.device),
  moveDevice: (rig, e) => moveDevice(rig, e.device, e.lead, e.newLeads),
  replaceDevice: (rig, e) => replaceDevice(rig, e.device, e.kind, e.name),
  connect: (rig, e) => void rig.leads.push(e.lead),
  disconnect: (rig, e) => {
    const at = rig.leads.findIndex((l) => l.id === e.lead);
    if (at < 0) return `There is no lead "${e.lead}" any more.`;
    rig.leads.splice(at, 1);
  },
  setLead: (rig, e) => {
    const found = leadOf(rig, e.lead);
    if (!found) return `There is no lead "${e.lead}" any more.`;
    const { edit: _edit, lead: _lead, pF, ...changes } = e;
    Object.assign(found, given(changes));
    if (pF === null) delete found.pF;
    else if (pF !== undefined) found.pF = pF;
  },
  swapEnds: (rig, e) => {
    const [a, b] = e.leads.map((id) => leadOf(rig, id));
    if (!a || !b) return 'One of the two leads is not there any more.';
    [a.to, b.to] = [b.to, a.to];
    for (const l of [a, b])
      l.type =
        leadTypeFor(rig, l.from, l.to) === 'instrument' ? l.type : leadTypeFor(rig, l.from, l.to);
  },
  setDevice: (rig, e) =>
    onDevice(rig, e.device, (d) => {
      const { edit: _edit, device: _device, ...changes } = e;
      Object.assign(d, given(changes));
      if (e.gives) unplugLost(rig, d);
    }),
  asUsual: (rig, e) =>
    onDevice(rig, e.device, (d) => {
      for (const what of e.what) delete d[what];
      if (e.what.includes('gives')) unplugLost(rig, d);
    }),
  setEngaged: (rig, e) => onState(rig, e.device, e.sound, (s) => (s.engaged = e.engaged)),
  setSetting: (rig, e) =>
    onState(rig, e.device, e.sound, (s) => ((s.settings ??= {})[e.setting] = e.value)),
  clearState: (rig, e) => onSound(rig, e.sound, (s) => void delete s.states[e.device]),
  overrideFigure: (rig, e) =>
    onDevice(rig, e.device, (d) => void ((d.figures ??= {})[e.figure] = e.override)),
  clearFigure: (rig, e) =>
    onDevice(rig, e.device, (d) => void (d.figures && delete d.figures[e.figure])),
  addSound: (rig, e) => void rig.sounds.splice(e.at ?? rig.sounds.length, 0, e.sound),
  copySound: (rig, e) =>
    onSound(rig, e.sound, (s) => {
      rig.sounds.splice(rig.sounds.findIndex((x) => x.id === e.sound) + 1, 0, {
        ...structuredClone(current(s)),
        id: e.id,
        name: e.name,
      });
    }),
  renameSound: (rig, e) => onSound(rig, e.sound, (s) => void (s.name = e.name)),
  setSoundNotes: (rig, e) => onSound(rig, e.sound, (s) => void (s.notes = e.notes)),
  moveSound: (rig, e) =>
    onSound(rig, e.sound, () => {
      const [taken] = rig.sounds.splice(
        rig.sounds.findIndex((x) => x.id === e.sound),
        1,
      );
      rig.sounds.splice(e.to, 0, taken!);
    }),
  removeSound: (rig, e) =>
    onSound(rig, e.sound, () => {
      if (rig.sounds.length === 1)
        return 'A rig keeps at least one sound; add another before removing this one.';
      rig.sounds.splice(
        rig.sounds.findIndex((x) => x.id === e.sound),
        1,
      );
    }),
  setStance: (rig, e) => void (((rig.order ??= {}).stances ??= {})[e.rule] = e.stance),
  acceptFinding: (rig, e) => {
    if (!e.reason.trim())
      return 'Say why this finding is accepted; the reason is kept and printed.';
    rig.accepted = [
      ...(rig.accepted ?? []).filter((a) => a.finding !== e.finding),
      given({ finding: e.finding, reason: e.reason.trim(), on: e.on }),
    ];
  },
  reopenFinding: (rig, e) =>
    void (rig.accepted &&= rig.accepted.filter((a) => a.finding !== e.finding)),
  setReference: (rig, e) => void (rig.reference = e.reference),
  tick: (rig, e) => {
    if (!e.by.trim()) return 'Say who did it: initials are enough.';
    const done = (rig.done ??= { ticks: [] });
    done.ticks = [
      ...done.ticks.filter((t) => t.id !== e.step),
      { id: e.step, by: e.by.trim(), at: e.at },
    ];
  },
  untick: (rig, e) => {
    if (!rig.done?.ticks.some((t) => t.id === e.step)) return 'That step is not ticked.';
    rig.done.ticks = rig.done.ticks.filter((t) => t.id !== e.step);
  },
  setCure: (rig, e) => {
    const done = (rig.done ??= { ticks: [] });
    done.cureHours = e.hours;
    if (e.from) done.cureFrom = e.from;
    else delete done.cureFrom;
  },
  setMaking: (rig, e) => void (rig.making = e.making),
  setBrief: (rig, e) => void (rig.brief = e.brief),
  addPromise: (rig, e) => addTo(rig, 'promises', e.promise),
  setPromise: (rig, e) => changeIn(rig, 'promises', e.promise.id, e.promise),
  removePromise: (rig, e) => changeIn(rig, 'promises', e.promise),
  moveToLoop: (rig, e) => moveToLoop(rig, e.device, e.loops, e.newLeads),
  moveFromLoop: (rig, e) => moveFromLoop(rig, e.device),
  setMidi: (rig, e) => onDevice(rig, e.device, (d) => void (d.midi = e.midi)),
  setTempo: (rig, e) => onDevice(rig, e.device, (d) => void (d.tempo = e.tempo)),
  unplugPower: (rig, e) => onDevice(rig, e.device, (d) => void delete d.supply),
  setExpects: (rig, e) =>
    onDevice(rig, e.device, (d) => {
      if (!findKind(d.kind)?.jacks.some((j) => j.id === e.jack && j.reads))
        return `${d.name} has no jack "${e.jack}" that reads a pedal or switch.`;
      (d.expects ??= {})[e.jack] = e.expects;
    }),
  setProgram: (rig, e) =>
    onDevice(rig, e.device, () =>
      onSound(rig, e.sound, (s) => {
        if (e.program) (s.states[e.device] ??= {}).program = e.program;
        else delete s.states[e.device]?.program;
      }),
    ),
  setSends: (rig, e) =>
    onSound(rig, e.sound, (s) => {
      const rest = (s.sends ?? []).filter((x) => x.from !== e.from);
      s.sends = [...rest, ...(e.sends ?? [])];
      if (!s.sends.length) delete s.sends;
    }),
  addControl: (rig, e) => addTo(rig, 'controls', e.control),
  setControl: (rig, e) => changeIn(rig, 'controls', e.control.id, e.control),
  removeControl: (rig, e) => {
    for (const s of rig.sounds) if (s.controls) delete s.controls[e.control];
    return changeIn(rig, 'controls', e.control);
  },
  setPosition: (rig, e) =>
    onSound(rig, e.sound, (s) => {
      if (!rig.controls?.some((c) => c.id === e.control))
        return 'That control is not there any more.';
      if (e.at === null) delete s.controls?.[e.control];
      else (s.controls ??= {})[e.control] = e.at;
    }),
  addSong: (rig, e) => addTo(rig, 'songs', e.song, e.at),
  setSong: (rig, e) => changeIn(rig, 'songs', e.song.id, e.song),
  removeSong: (rig, e) => {
    for (const s of rig.sets ?? []) s.entries = s.entries.filter((x) => x.song !== e.song);
    return changeIn(rig, 'songs', e.song);
  },
  addSet: (rig, e) => addTo(rig, 'sets', e.set),
  setSet: (rig, e) => changeIn(rig, 'sets', e.set.id, e.set),
  removeSet: (rig, e) => changeIn(rig, 'sets', e.set),
  setCandidates: (rig, e) => void (rig.candidates = e.candidates),
  placeOnBoard: (rig, e) =>
    stand(
      rig,
      e.device,
      'at',
      e.at,
      e.at && !rig.boards?.some((b) => b.id === e.at!.board) ? 'board' : undefined,
    ),
  placeInRack: (rig, e) =>
    stand(
      rig,
      e.device,
      'rack',
      e.rack,
      e.rack && !rig.racks?.some((r) => r.id === e.rack!.rack) ? 'rack' : undefined,
    ),
  addBoard: (rig, e) => addTo(rig, 'boards', e.board),
  setBoard: (rig, e) => changeIn(rig, 'boards', e.board.id, e.board),
  removeBoard: (rig, e) => {
    for (const d of rig.devices) if (d.at?.board === e.board) delete d.at;
    carriedNoMore(rig, e.board);
    return changeIn(rig, 'boards', e.board);
  },
  addRack: (rig, e) => addTo(rig, 'racks', e.rack),
  setRack: (rig, e) => changeIn(rig, 'racks', e.rack.id, e.rack),
  removeRack: (rig, e) => {
    for (const d of rig.devices) if (d.rack?.rack === e.rack) delete d.rack;
    carriedNoMore(rig, e.rack);
    return changeIn(rig, 'racks', e.rack);
  },
  setCases: (rig, e) => void (rig.cases = e.cases),
  addLoom: (rig, e) => addTo(rig, 'looms', e.loom),
  setLoom: (rig, e) => changeIn(rig, 'looms', e.loom.id, e.loom),
  removeLoom: (rig, e) => changeIn(rig, 'looms', e.loom),
  setStage: (rig, e) => void (rig.stage = e.stage),
  setTour: (rig, e) => void (rig.tour = e.tour),
  setLimits: (rig, e) => void (rig.limits = e.limits),
  replaceRig: () => undefined,
};

/**
 * Stands a device on a board or mounts it in a rack, never both; with no place it comes off. `gone`
 * is what it should go to and is not there.
 */
function stand<F extends 'at' | 'rack'>(
  rig: Draft<Rig>,
  id: string,
  field: F,
  place: Device[F] | null,
  gone: string | undefined,
): Refusal {
  return onDevice(rig, id, (d) => {
    if (gone) return `That ${gone} is not there any more.`;
    if (place && d.host !== undefined)
      return `${d.name} lives inside ${nameOf(rig, d.host)} and stands nowhere of its own.`;
    if (!place) return void delete d[field];
    delete d.at;
    delete d.rack;
    d[field] = place as Draft<Device>[F];
  });
}

/** Takes a board or rack that goes out of the cases and off the stage. */
function carriedNoMore(rig: Draft<Rig>, id: string): void {
  for (const c of rig.cases ?? []) c.holds = c.holds.filter((x) => x !== id);
  if (rig.stage) rig.stage.spots = rig.stage.spots.filter((s) => s.id !== id);
}

const given = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)) as T;

/**
 * Applies one edit: the new document with its patches, or the reason why not. The document given is
 * never changed, and a
 * document that would break a rule of the format is refused.
 *
 *     const r = applyEdit(rig, { edit: 'setEngaged', device: 'fuzz', sound: 'lead', engaged: true });
 *     if (r.ok) rig = r.value.rig;
 */
export function applyEdit(rig: Rig, edit: Edit): Outcome<Applied> {
  if (edit.edit === 'replaceRig') return replaceWhole(rig, edit.rig);
  let refusal: Refusal;
  const handler = HANDLERS[edit.edit] as (r: Draft<Rig>, e: Edit) => Refusal;
  const [next, patches, inverse] = produceWithPatches(rig, (draft) => {
    refusal = handler(draft, edit);
  });
  if (refusal) return refused(refusal);
  const problems = stillSound(next);
  return problems.length ? { ok: false, problems } : done({ rig: next, patches, inverse });
}

function replaceWhole(rig: Rig, next: Rig): Outcome<Applied> {
  const whole = { ...next, id: rig.id };
  return done({
    rig: whole,
    patches: [{ op: 'replace', path: [], value: whole }],
    inverse: [{ op: 'replace', path: [], value: rig }],
  });
}

function stillSound(rig: Rig) {
  const parsed = rigSchema.safeParse(rig);
  return parsed.success
    ? integrityProblems(rig)
    : parsed.error.issues
        .slice(0, 5)
        .map((i) => ({ where: i.path.join('.'), what: issueWords(i) }));
}

/** Applies several edits as one step: all of them, or none and the first reason. */
export function applyEdits(rig: Rig, edits: readonly Edit[]): Outcome<Applied> {
  const patches: Patch[] = [];
  const inverse: Patch[] = [];
  for (const one of edits) {
    const result = applyEdit(rig, one);
    if (!result.ok) return result;
    rig = result.value.rig;
    patches.push(...result.value.patches);
    inverse.unshift(...result.value.inverse);
  }
  return done({ rig, patches, inverse });
}

/** Applies patches that an edit gave: the way there, or its inverse for the way back. */
export const patchRig = (rig: Rig, patches: Patch[]): Rig => applyPatches(rig, patches);
export type { Patch };
