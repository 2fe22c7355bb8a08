import { createStore } from 'zustand';
import type { Report, SoundReport } from '../../core/report';
import {
  applyEdits,
  type Edit,
  editWords,
  type History,
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

export type SaveState =
  { state: 'saved' } | { state: 'saving' } | { state: 'unsaved'; why: string };

/** The rig being worked on, its figures, and what the person is looking at. */
export interface RigState {
  history: History;
  report: Report;
  sound: string;
  selection: Selection;
  save: SaveState;
  /** Said to the person until the next edit: why something could not be done, or what was done. */
  notice: string | null;
  units: UnitChoice;
  findingsOpen: boolean;
  /** Words of the changes that are not saved yet. */
  unsaved: string[];
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
  /** Takes over a document that came from elsewhere (a merge, a local copy) as a step that can be undone. */
  adopt: (rig: Rig, words: string) => void;
  takeSaved: (count: number) => void;
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

/** Makes the store of one opened rig. */
export function createRigStore(rig: Rig, report: Report) {
  return createStore<RigState>((set, get) => {
    const patchReport = (patches: Patch[]) => {
      get()
        .door?.ask('patch', { patches })
        .then((u) => set({ report: updated(get().report, u) }), reopen);
    };
    const take = (report: Promise<ReportUpdate>) =>
      void report.then(
        (u) => set({ report: updated({ sounds: [], promises: [], findings: [] }, u) }),
        () => set({ notice: 'The analysis stopped. Reload the page; nothing is lost.' }),
      );
    const reopen = () => {
      const opened = get().door?.ask('open', { rig: get().history.rig });
      if (opened) take(opened);
    };
    const move = (next: History, words: string) => {
      const { history, sound } = get();
      if (next === history) return;
      set({
        history: next,
        unsaved: [...get().unsaved, words],
        notice: null,
        sound: next.rig.sounds.some((s) => s.id === sound)
          ? sound
          : (next.rig.sounds[0]?.id ?? sound),
      });
    };
    return {
      history: startHistory(rig),
      report,
      sound: rig.sounds[0]?.id ?? 'as-it-stands',
      selection: null,
      save: { state: 'saved' },
      notice: null,
      units: { level: 'dBu', length: 'metric' },
      findingsOpen: false,
      unsaved: [],
      revision: 0,
      door: null,
      edit: (edits, words) => {
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
        patchReport(applied.value.patches);
        return { ok: true, value: applied.value.rig };
      },
      undo: () => {
        const step = get().history.past.at(-1);
        if (!step) return;
        move(undo(get().history), `undid: ${step.words}`);
        patchReport(step.inverse);
      },
      redo: () => {
        const step = get().history.future[0];
        if (!step) return;
        move(redo(get().history), `did again: ${step.words}`);
        patchReport(step.patches);
      },
      setSound: (sound) => set({ sound }),
      select: (selection) => set({ selection }),
      setNotice: (notice) => set({ notice }),
      takeOver: (why, report) => {
        set({ notice: `The analysis was started again: ${why}. Nothing is lost.` });
        take(report);
      },
      setSave: (save) => set({ save }),
      setUnits: (units) => set({ units }),
      openFindings: (findingsOpen) => set({ findingsOpen }),
      adopt: (next, words) => {
        const { history } = get();
        const applied = {
          rig: next,
          patches: [{ op: 'replace' as const, path: [], value: next }],
          inverse: [{ op: 'replace' as const, path: [], value: history.rig }],
        };
        set({
          history: record(history, applied, words),
          sound: next.sounds.some((s) => s.id === get().sound)
            ? get().sound
            : (next.sounds[0]?.id ?? ''),
        });
        reopen();
      },
      takeSaved: (count) => set({ unsaved: get().unsaved.slice(count) }),
      setDoor: (door) => {
        set({ door });
        reopen();
      },
    };
  });
}

export type RigStore = ReturnType<typeof createRigStore>;
