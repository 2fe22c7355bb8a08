import { Analyser, type First, previewEdits, type Report, type SoundReport } from '../core/report';
import { sequenceOf } from '../core/midi';
import { boostWorths, pickupTone, referenceNote } from '../core/analysis';
import { allControls, effectiveRig, heardIn, reachOfControl, sweepOf } from '../core/control';
import { landingLevels, oneLost, runChange, setStage } from '../core/midi';
import { noiseIn, notesAt, notesOfStations, playNote, type StationNote } from '../core/note';
import { patchRig, type Rig } from '../core/rig';
import { allScenes, sceneOf, substitutesFor } from '../core/songs';
import type { Answered, Asked, FirstOf, Question, Questions, ReportUpdate } from './messages';

/**
 * Keeps its own copy of the rig and brings it up to date by patches, so that what an edit leaves
 * alone need not be computed again.
 */
const analyser = new Analyser((check, error) => {
  // eslint-disable-next-line no-console -- a check that failed is told to whoever looks after the program
  console.error(`Yantrel: the check on ${check} failed`, error);
});
let rig: Rig | undefined;
/** The rig as it was before the last edit. */
let before: Rig | undefined;
let known: Report | undefined;
let sent = new Map<string, SoundReport>();

function update(next: Rig, first?: First): ReportUpdate {
  rig = next;
  const report = analyser.analyse(next, first);
  known = report;
  const changed = report.sounds.filter((s) => sent.get(s.sound) !== s);
  sent = new Map(report.sounds.map((s) => [s.sound, s]));
  return {
    changed,
    order: report.sounds.map((s) => s.sound),
    promises: report.promises,
    findings: report.findings,
  };
}

const open = (): Rig => {
  if (!rig) throw new Error('no rig is open');
  return rig;
};

let stands: { of: Rig; rig: Rig } | undefined;
/** The open rig as its controls leave it, in every sound. */
const standing = (): Rig => {
  if (stands?.of !== open()) stands = { of: open(), rig: effectiveRig(open()) };
  return stands.rig;
};

/** A sound of the open rig as its controls leave it. */
const effective = (id: string) => {
  const sound = open().sounds.find((s) => s.id === id);
  return sound && sceneOf(open(), sound).sound;
};

const ANSWERS: {
  [Q in Question]: (
    ask: Questions[Q]['ask'],
    tell: (first: FirstOf<Q>) => void,
  ) => Questions[Q]['answer'];
} = {
  open: (ask) => {
    sent = new Map();
    before = undefined;
    return update(ask.rig);
  },
  patch: (ask, tell) => {
    before = open();
    const take = (report: SoundReport) => {
      sent.set(report.sound, report);
      tell(report);
    };
    return update(patchRig(before, ask.patches), { sound: ask.shown, take });
  },
  preview: (ask) => previewEdits(open(), ask.edits, ask.sound, known),
  boosts: (ask) => {
    const sound = open().sounds.find((s) => s.id === ask.sound);
    return sound ? boostWorths(open(), sound) : [];
  },
  reachTable: (ask) => {
    const sound = effective(ask.sound);
    return sound
      ? allControls(open())
          .filter((c) => c.type !== 'tap' && c.type !== 'tempo')
          .map((c) => ({ control: c.id, reached: reachOfControl(open(), sound, c) }))
      : [];
  },
  sweep: (ask) => {
    const [sound, control] = [
      effective(ask.sound),
      allControls(open()).find((c) => c.id === ask.control),
    ];
    return sound && control && sweepOf(open(), sound, control);
  },
  sequence: (ask) => {
    const [from, to] = [ask.from, ask.to].map((id) => open().sounds.find((s) => s.id === id));
    return from && to && sequenceOf(open(), from, to);
  },
  landing: (ask) => {
    const stage = setStage(open());
    const [from, to] = [stage.scene(ask.from), stage.scene(ask.to)];
    return from && to && landingLevels(open(), stage, runChange(stage, from, to));
  },
  lost: (ask) => {
    const stage = setStage(open(), allScenes(open()));
    const [from, to] = [stage.scene(ask.from), stage.scene(ask.to)];
    return from && to ? oneLost(open(), stage, from, to) : [];
  },
  heard: (ask) => heardIn(open(), ask.sound),
  substitutes: (ask) => {
    const sound = effective(ask.sound);
    return sound ? substitutesFor(open(), ask.device, sound) : [];
  },
  note: ({ sound: id, device, point, as }) => {
    const stood = as === 'before' ? before && effectiveRig(before) : standing();
    const sound = stood?.sounds.find((s) => s.id === id);
    if (!stood || !sound) return null;
    const note =
      as === 'reference'
        ? referenceNote(stood, sound, device, point)
        : playNote(stood, sound).at(device, point);
    return note ?? null;
  },
  noise: (ask) => {
    const sound = standing().sounds.find((s) => s.id === ask.sound);
    return sound ? noiseIn(standing(), sound)(ask.device, ask.point) : null;
  },
  stationNotes: (ask) => {
    const sound = standing().sounds.find((s) => s.id === ask.sound);
    return sound ? notesOfStations(standing(), sound) : new Map<string, StationNote>();
  },
  notes: (ask) => notesAt(standing(), ask.destination),
  tone: (ask) => pickupTone(open(), ask.sound, ask.pickup),
};

self.onmessage = ({ data }: MessageEvent<Asked | { announce: string }>) => {
  if ('announce' in data) {
    // Held as long as this worker lives, so that the page notices at once when it is gone.
    void navigator.locks?.request(data.announce, () => new Promise(() => undefined));
    return;
  }
  const tell = (first: unknown) => self.postMessage({ id: data.id, first } satisfies Answered);
  let answered: Answered;
  try {
    answered = {
      id: data.id,
      answer: (ANSWERS[data.question] as (ask: unknown, tell: (first: unknown) => void) => unknown)(
        data.ask,
        tell,
      ),
    };
  } catch (error) {
    answered = { id: data.id, error: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(answered);
};
