import { createStore } from 'zustand';
import { clashWords } from '../../core/changes';
import type { Report, SoundReport } from '../../core/report';
import {
  applyEdits,
  type Edit,
  editWords,
  type Gone,
  type History,
  onTop,
  type Outcome,
  type Patch,
  record,
  redo,
  type Rig,
  startHistory,
  undo,
} from '../../core/rig';

import type { UnitChoice } from '../../core/units';
import type { Door, ReportUpdate } from '../../worker';

export type Selection =
  { kind: 'device'; id: string; station?: string } | { kind: 'lead'; id: string } | null;

/** Whether the work is kept: `looking` until it is known what earlier pages of this browser left. */
export type SaveState =
  { state: 'looking' | 'saved' | 'saving' } | { state: 'unsaved'; why: string };

/** Somebody else who has the rig open, and what they have in hand. */
export interface Other {
  tab: string;
  name: string;
  device: string | null;
}

/** The rig being worked on, its figures, and what the person is looking at. */
export interface RigState {
  history: History;
  report: Report;
  /** The figures on screen are not those of this document yet: they are being worked out. */
  isBehind: boolean;
  sound: string;
  selection: Selection;
  save: SaveState;
  /** Said to the person until the next edit: why something could not be done, or what was done. */
  notice: string | null;
  units: UnitChoice;
  findingsOpen: boolean;
  /** Words of the changes that are not saved yet. */
  unsaved: readonly string[];
  /** The last change that was made here; a new one each time. */
  lastEdit: { rig: Rig; words: string } | null;
  /** Whether this browser keeps what is not saved yet, through a reload or a crash. */
  keeps: boolean;
  /** Who else has the rig open. */
  others: readonly Other[];
  /** The revision that the document was last saved as, or opened from. */
  revision: number;
  edit: (edits: Edit | Edit[], words?: string) => Outcome<Rig>;
  undo: () => void;
  redo: () => void;
  setSound: (id: string) => void;
  select: (selection: Selection) => void;
  setNotice: (notice: string | null) => void;
  setSave: (save: SaveState) => void;
  setUnits: (units: UnitChoice) => void;
  openFindings: (open: boolean) => void;
  /** Shows a document that holds what others changed; the steps made here can still be taken back. */
  adopt: (rig: Rig) => void;
  setDoor: (door: Door) => void;
  /** A worker died and another was started: says so, and takes its report. */
  takeOver: (why: string, report: Promise<ReportUpdate>) => void;
  door: Door | null;
}

const updated = (report: Report, update: ReportUpdate): Report => {
  const known = new Map<string, SoundReport>(report.sounds.map((s) => [s.sound, s]));
  for (const s of update.changed) known.set(s.sound, s);
  return {
    sounds: update.order.flatMap((id) => known.get(id) ?? []),
    promises: update.promises,
    findings: update.findings,
  };
};

type Get = () => RigState;
type Set = (part: Partial<RigState>) => void;

/** The sound of that id, or the first where a document has it no more. */
const soundIn = (rig: Rig, sound: string): string =>
  rig.sounds.some((s) => s.id === sound) ? sound : (rig.sounds[0]?.id ?? sound);

/** Asks the worker for figures, of what changed or of all, and takes them into the store. */
function figuring(set: Set, get: Get) {
  const take = (report: Promise<ReportUpdate>) =>
    void report.then(
      (u) =>
        set({ report: updated({ sounds: [], promises: [], findings: [] }, u), isBehind: false }),
      () => set({ notice: 'The analysis stopped. Reload the page; nothing is lost.' }),
    );
  const reopen = () => {
    const opened = get().door?.ask('open', { rig: get().history.rig });
    if (opened) take(opened);
  };
  const patch = (patches: Patch[]) => {
    get()
      .door?.ask('patch', { patches })
      .then((u) => set({ report: updated(get().report, u) }), reopen);
  };
  return { take, reopen, patch };
}

/** Changes the document: by edits, back, and forward again. */
function changing(set: Set, get: Get, { reopen, patch }: ReturnType<typeof figuring>) {
  const move = (next: History, words: string) => {
    const { history, sound } = get();
    if (next === history) return;
    set({
      history: next,
      lastEdit: { rig: next.rig, words },
      notice: null,
      sound: soundIn(next.rig, sound),
    });
  };
  const gone = (step: Gone | undefined, did: string, done: string) => {
    if (!step) return;
    const { history } = get();
    const [clash] = step.blocked;
    if (clash) {
      const { what } = clashWords(history.rig, history.rig, clash);
      return set({
        history: step.history,
        notice: `“${step.words}” can no longer be ${done}: somebody changed it since (${what}).`,
      });
    }
    move(step.history, `${did}: ${step.words}`);
    if (step.patches) patch(step.patches);
    else reopen();
  };
  const edit: RigState['edit'] = (edits, words) => {
    const list = Array.isArray(edits) ? edits : [edits];
    const { history } = get();
    const applied = applyEdits(history.rig, list);
    if (!applied.ok) {
      set({ notice: applied.problems.map((p) => p.what).join(' ') });
      return applied;
    }
    if (applied.value.patches.length === 0) return { ok: true, value: history.rig };
    const said = words ?? list.map((e) => editWords(history.rig, e)).join(', ');
    move(record(history, applied.value, said), said);
    patch(applied.value.patches);
    return { ok: true, value: applied.value.rig };
  };
  return {
    edit,
    undo: () => gone(undo(get().history), 'undid', 'taken back'),
    redo: () => gone(redo(get().history), 'did again', 'done again'),
  };
}

/** Makes the store of one opened rig, with figures that may still be of an earlier revision. */
export function createRigStore(rig: Rig, report: Report, isBehind = false) {
  return createStore<RigState>((set, get) => {
    const figures = figuring(set, get);
    return {
      history: startHistory(rig),
      report,
      isBehind,
      sound: soundIn(rig, 'as-it-stands'),
      selection: null,
      save: { state: 'looking' },
      notice: null,
      units: { level: 'dBu', length: 'metric' },
      findingsOpen: false,
      unsaved: [],
      lastEdit: null,
      keeps: true,
      others: [],
      revision: 0,
      door: null,
      ...changing(set, get, figures),
      setSound: (sound) => set({ sound }),
      select: (selection) => set({ selection }),
      setNotice: (notice) => set({ notice }),
      takeOver: (why, taken) => {
        set({ notice: `The analysis was started again: ${why}. Nothing is lost.` });
        figures.take(taken);
      },
      setSave: (save) => set({ save }),
      setUnits: (units) => set({ units }),
      openFindings: (findingsOpen) => set({ findingsOpen }),
      adopt: (next) => {
        set({ history: onTop(get().history, next), sound: soundIn(next, get().sound) });
        figures.reopen();
      },
      setDoor: (door) => {
        set({ door });
        figures.reopen();
      },
    };
  });
}

export type RigStore = ReturnType<typeof createRigStore>;
