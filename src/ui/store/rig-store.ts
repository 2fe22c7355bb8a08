import { createStore } from 'zustand';
import type { Severity } from '../../core/findings/finding';
import type { Report, SoundReport } from '../../core/report';
import { NOTHING_YET } from '../../core/report/nothing-yet';
import type { Edit, Gone, Outcome, Patch, Rig } from '../../core/rig';
import { type History, onTop, record, startHistory } from '../../core/rig/history';
import { learnSheets } from '../../core/rig/sheets/own-kinds';
import type { UnitChoice } from '../../core/units';
import type { Door, ReportUpdate } from '../../worker';
import { fetchWorking, type Working } from './fetch-working';

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

/** Which findings are listed: of a severity, in a sound, with some words in them; all where nothing is said. */
export interface FindingsFilter {
  severity?: Severity;
  sound?: string;
  text?: string;
}

/** The signal as strips, as a table, or its wiring by place. */
export const PANES = ['walk', 'table', 'wiring'] as const;

/** What of the signal is looked at: how it is drawn, whose ways alone, and beside which sound. */
export interface SignalAsked {
  pane: (typeof PANES)[number];
  follow: string | null;
  compare: string | null;
  /** The host whose inside the wiring shows, or nothing for the stage. */
  inside: string | null;
}

/** What the last edit did to the findings: keys of those that came, and how many went. */
export interface SinceEdit {
  fresh: readonly string[];
  cured: number;
}

/** The rig being worked on, its figures, and what the person is looking at. */
export interface RigState {
  history: History;
  report: Report;
  /** The figures on screen are not those of this document yet: they are being worked out. */
  isBehind: boolean;
  sound: string;
  selection: Selection;
  /** Devices that are chosen together; none where one thing is chosen. */
  chosen: readonly string[];
  save: SaveState;
  /** Said to the person until the next edit: why something could not be done, or what was done. */
  notice: string | null;
  units: UnitChoice;
  findingsOpen: boolean;
  findingsFilter: FindingsFilter;
  signalAsked: SignalAsked;
  /** Nothing where nothing was edited yet, or the last edit changed no finding. */
  sinceEdit: SinceEdit | null;
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
  /** What changes the document, once it is fetched. */
  working: Working | null;
  /** Fetches that, where it is not there yet. What was edited meanwhile is done as soon as it is. */
  ready: () => Promise<Working>;
  /**
   * Edits the document: one step back and forth, and one with the step before where the same is `going`
   * on. Before what changes a document is there, it is done a moment later; a refusal is then a notice.
   */
  edit: (edits: Edit | Edit[], words?: string, going?: string) => Outcome<Rig>;
  undo: () => void;
  redo: () => void;
  setSound: (id: string) => void;
  select: (selection: Selection) => void;
  /** Chooses several devices; one alone is what is chosen then. */
  choose: (devices: readonly string[]) => void;
  setNotice: (notice: string | null) => void;
  setSave: (save: SaveState) => void;
  setUnits: (units: UnitChoice) => void;
  openFindings: (open: boolean) => void;
  filterFindings: (filter: FindingsFilter) => void;
  askSignal: (change: Partial<SignalAsked>) => void;
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

/** Which findings an edit brought and how many it took; nothing where it did neither. */
function changedBetween(before: Report, after: Report): SinceEdit | null {
  const open = (r: Report) =>
    new Set(r.findings.flatMap((f) => (f.accepted === undefined ? [f.key] : [])));
  const [old, now] = [open(before), open(after)];
  const fresh = [...now].filter((k) => !old.has(k));
  const cured = [...old].filter((k) => !now.has(k)).length;
  return fresh.length || cured ? { fresh, cured } : null;
}

type Get = () => RigState;
type Set = (part: Partial<RigState>) => void;

/** The sound of that id, or the first where a document has it no more. */
const soundIn = (rig: Rig, sound: string): string =>
  rig.sounds.some((s) => s.id === sound) ? sound : (rig.sounds[0]?.id ?? sound);

/**
 * Asks the worker for figures, of what changed or of all, and takes them into the store. `judged` is
 * the document that the figures are of, where they came with it: until something changes or is asked,
 * no worker is needed.
 */
function figuring(set: Set, get: Get, judged: Rig | undefined) {
  const take = (report: Promise<ReportUpdate>) => {
    const { door } = get();
    const { rig } = get().history;
    void report.then(
      (u) => {
        judged = rig;
        set({
          report: updated(NOTHING_YET, u),
          isBehind: false,
          // What came from elsewhere is not what the last edit did.
          sinceEdit: null,
        });
      },
      // A door that was shut on purpose has stopped nothing: its successor answers.
      () =>
        get().door === door &&
        set({ notice: 'The analysis stopped. Reload the page; nothing is lost.' }),
    );
  };
  const reopen = () => {
    const opened = get().door?.ask('open', { rig: get().history.rig });
    if (opened) take(opened);
  };
  const patch = (patches: Patch[]) => {
    const { rig } = get().history;
    get()
      .door?.ask('patch', { patches, shown: get().sound }, (first) => {
        const { report } = get();
        const others = report.sounds.filter((s) => s.sound !== first.sound);
        // The order of sounds comes with the answer.
        set({ report: { ...report, sounds: [...others, first] } });
      })
      .then((u) => {
        judged = rig;
        const before = get().report;
        const report = updated(before, u);
        set({ report, sinceEdit: changedBetween(before, report) });
      }, reopen);
  };
  return { take, reopen, patch, isJudged: () => judged === get().history.rig };
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
  /** What was asked for before what changes a document was there, in order. */
  const waiting: (() => void)[] = [];
  const gone = (way: 'undo' | 'redo', did: string, done: string) => {
    const { history, working } = get();
    // Nothing was changed yet, but for what waits.
    if (!working) {
      if (waiting.length) waiting.push(() => gone(way, did, done));
      return;
    }
    const step: Gone | undefined = working[way](history);
    if (!step) return;
    const [clash] = step.blocked;
    if (clash) {
      const { what } = working.clashWords(history.rig, history.rig, clash);
      return set({
        history: step.history,
        notice: `“${step.words}” can no longer be ${done}: somebody changed it since (${what}).`,
      });
    }
    get().door?.wake();
    move(step.history, `${did}: ${step.words}`);
    if (step.patches) patch(step.patches);
    else reopen();
  };
  const ready = async () => {
    const working = get().working ?? (await fetchWorking());
    if (get().working) return working;
    set({ working });
    for (const done of waiting.splice(0)) done();
    return working;
  };
  const edit: RigState['edit'] = (edits, words, going) => {
    const list = Array.isArray(edits) ? edits : [edits];
    const { history, door, working } = get();
    if (!working) {
      waiting.push(() => edit(edits, words, going));
      ready().catch(() => {
        if (waiting.splice(0).length) set({ notice: NOT_FETCHED });
      });
      return { ok: true, value: history.rig };
    }
    const applied = working.applyEdits(history.rig, list);
    if (!applied.ok) {
      set({ notice: applied.problems.map((p) => p.what).join(' ') });
      return applied;
    }
    if (applied.value.patches.length === 0) return { ok: true, value: history.rig };
    const said = words ?? list.map((e) => working.editWords(history.rig, e)).join(', ');
    door?.wake();
    move(record(history, applied.value, said, going), said);
    patch(applied.value.patches);
    return { ok: true, value: applied.value.rig };
  };
  return {
    edit,
    ready,
    undo: () => gone('undo', 'undid', 'taken back'),
    redo: () => gone('redo', 'did again', 'done again'),
  };
}

/** Said where an edit could not be made, since what makes it is on a server that is away. */
const NOT_FETCHED =
  'What was just done could not be: the server is away. Reload the page once it is back.';

/** Makes the store of one opened rig, with figures that may still be of an earlier revision. */
export function createRigStore(
  rig: Rig,
  report: Report,
  isBehind = false,
  working: Working | null = null,
) {
  learnSheets(rig.sheets);
  return createStore<RigState>((set, get) => {
    const isAll = !isBehind && report.sounds.length >= rig.sounds.length;
    const figures = figuring(set, get, isAll ? rig : undefined);
    return {
      history: startHistory(rig),
      report,
      isBehind,
      sound: soundIn(rig, 'as-it-stands'),
      selection: null,
      chosen: [],
      save: { state: 'looking' },
      notice: null,
      units: { level: 'dBu', length: 'metric' },
      findingsOpen: false,
      findingsFilter: {},
      signalAsked: { pane: 'walk', follow: null, compare: null, inside: null },
      sinceEdit: null,
      unsaved: [],
      lastEdit: null,
      keeps: true,
      others: [],
      revision: 0,
      door: null,
      working,
      ...changing(set, get, figures),
      setSound: (sound) => set({ sound }),
      select: (selection) => set({ selection, chosen: [] }),
      choose: (devices) => {
        const chosen = [...new Set(devices)];
        const [first] = chosen;
        if (chosen.length > 1) set({ chosen });
        else
          set({
            chosen: [],
            selection: first === undefined ? null : { kind: 'device', id: first },
          });
      },
      setNotice: (notice) => set({ notice }),
      takeOver: (why, taken) => {
        set({ notice: `The analysis was started again: ${why}. Nothing is lost.` });
        figures.take(taken);
      },
      setSave: (save) => set({ save }),
      setUnits: (units) => set({ units }),
      openFindings: (findingsOpen) => set({ findingsOpen }),
      filterFindings: (findingsFilter) => set({ findingsFilter }),
      askSignal: (change) => set({ signalAsked: { ...get().signalAsked, ...change } }),
      adopt: (next) => {
        learnSheets(next.sheets);
        set({ history: onTop(get().history, next), sound: soundIn(next, get().sound) });
        figures.reopen();
      },
      setDoor: (door) => {
        set({ door });
        if (!figures.isJudged()) figures.reopen();
      },
    };
  });
}

export type RigStore = ReturnType<typeof createRigStore>;
