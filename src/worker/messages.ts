import type {
  Cured,
  BySound,
  Outcomes,
  Preview,
  Report,
  Share,
  SoundReport,
  TriedFix,
  ToMeasure,
} from '../core/report';
import type { Arriving } from '../core/signal';
import type { Sequence } from '../core/midi';
import type { HeardNote, NoiseAt, NoteAt, StationNote } from '../core/note';
import type { BoostWorth, PickupTone } from '../core/analysis';
import type { Reached, Sweep } from '../core/control';
import type { LayoutFigures, LayoutProposal, PowerPlan } from '../core/build';
import type { Finding } from '../core/findings/finding';
import type { Outcome } from '../core/outcome';
import type { PromiseResult } from '../core/promises';
import type { LandingLevels, Lost, PairReport } from '../core/midi';
import type { Brief, Edit, Patch, Rig, Sound } from '../core/rig';
import type {
  Drill,
  Survival,
  Effects,
  Known,
  LineCheck,
  Rescue,
  Rewire,
  SparePlan,
} from '../core/show';
import type { Substitute } from '../core/songs';
import type { Proposal, StartChoice } from '../core/start';
import type {
  BufferProposal,
  InsideProposal,
  IsolateProposal,
  OnePress,
  OrderProposal,
} from '../core/solve';

/** What can be asked of the worker, by name: what goes in and what comes out. */
export interface Questions {
  open: { ask: { rig: Rig }; answer: ReportUpdate };
  /** The sound that is shown, where it changed, comes before the answer. */
  patch: {
    ask: { patches: Patch[]; shown: string };
    first: SoundReport;
    answer: ReportUpdate;
  };
  preview: {
    ask: { edits: Edit[]; sound: string };
    answer: Outcome<Preview>;
  };
  boosts: { ask: { sound: string }; answer: BoostWorth[] };
  /** What each control reaches in a sound, by evaluating the rig with it at its ends. */
  reachTable: { ask: { sound: string }; answer: { control: string; reached: Reached[] }[] };
  sweep: { ask: { sound: string; control: string }; answer: Sweep | undefined };
  sequence: { ask: { from: string; to: string }; answer: Sequence | undefined };
  /** What comes of it when one message of a change gets lost, for each. */
  lost: { ask: { from: string; to: string }; answer: Lost[] };
  landing: { ask: { from: string; to: string }; answer: LandingLevels | undefined };
  /** What arrives where while the rig stands in some way that is no sound of it. */
  heard: { ask: { sound: Sound }; answer: Arriving[] };
  substitutes: { ask: { device: string; sound: string }; answer: Substitute[] };
  /**
   * The played note at a jack or inner point; null where nothing sounds. `as`: in the rig before the
   * last edit, or what plays there through the reference lead alone.
   */
  note: {
    ask: { sound: string; device: string; point: string; as?: 'before' | 'reference' };
    answer: NoteAt | null;
  };
  /** The noise there, between notes and while something is played. */
  noise: { ask: { sound: string; device: string; point: string }; answer: NoiseAt | null };
  /** The played note behind every station of a sound that it reaches. */
  stationNotes: { ask: { sound: string }; answer: Map<string, StationNote> };
  /** The played note at a destination, in every sound. */
  notes: { ask: { destination: string }; answer: HeardNote[] };
  tone: { ask: { sound: string; pickup: string }; answer: PickupTone | undefined };
}

export type Question = keyof Questions;
/** What comes ahead of an answer, for questions that have such a thing. */
export type FirstOf<Q extends Question> = Questions[Q] extends { first: infer F } ? F : never;

/** A report with only the sounds that changed; `order` names all of them. */
export interface ReportUpdate {
  changed: SoundReport[];
  order: string[];
  promises: PromiseResult[];
  findings: Finding[];
}

export interface Asked<Q extends Question = Question> {
  id: number;
  question: Q;
  ask: Questions[Q]['ask'];
}
export type Answered =
  { id: number; first: unknown } | { id: number; answer: unknown } | { id: number; error: string };

/**
 * What can be proposed, by name: long work, done in a worker of its own. `held` keeps a device
 * inside (true) or outside.
 */
export interface Proposals {
  order: { ask: { rig: Rig; sound: string }; answer: Outcome<OrderProposal> };
  inside: {
    ask: { rig: Rig; host: string; held: [string, boolean][] };
    answer: Outcome<InsideProposal>;
  };
  isolation: { ask: { rig: Rig; sound: string }; answer: IsolateProposal };
  buffers: { ask: { rig: Rig; sound: string }; answer: BufferProposal };
  power: { ask: { rig: Rig; headroom: number; seconds?: number }; answer: Outcome<PowerPlan> };
  onePress: { ask: { rig: Rig; from: string; to: string }; answer: Outcome<OnePress[]> };
  pairs: { ask: { rig: Rig }; answer: PairReport };
  /** Every fix of every open finding tried on a copy, by the finding's key: those that cure it. */
  trials: { ask: { rig: Rig }; answer: Record<string, TriedFix[]> };
  /** What a proposal makes worse, and what else is different then. */
  outcome: { ask: { rig: Rig; edits: Edit[] }; answer: Outcomes };
  /** What a change loses and gains, sound by sound; or why it cannot be made. */
  bySound: { ask: { rig: Rig; edits: Edit[] }; answer: BySound | { refused: string } };
  /** Every safe fix, one after the other. */
  cure: { ask: { rig: Rig }; answer: Cured };
  /** Which figures that were never measured turn which verdicts. */
  measure: { ask: { rig: Rig }; answer: ToMeasure[] };
  /** What every single fault would make noticed, everywhere and in every sound. */
  effects: { ask: { rig: Rig }; answer: Effects };
  /** Every fault tried against a set, and the smallest set of spares for it. */
  drill: {
    ask: { rig: Rig; set: string | null; seconds: number; known: Known };
    answer: { drill: Drill; spares: SparePlan; survivals: Survival[] };
  };
  lineCheck: { ask: { rig: Rig; set: string | null }; answer: LineCheck };
  /** Ways to get sound back at one destination while a fault lasts, each tried. */
  rescue: {
    ask: { rig: Rig; fault: string; sound: string; ear: string };
    answer: Rescue[];
  };
  /** One lead more with which a fault no longer silences a destination; null where there is none. */
  rewire: {
    ask: { rig: Rig; fault: string; sound: string; ear: string };
    answer: Rewire | null;
  };
  /** A rig from answers, cured as far as a knob or a box cures it; with power and a board where asked. */
  start: {
    ask: { brief: Brief; choice: StartChoice; built: boolean };
    answer: Proposal & { report: Report };
  };
  layout: {
    ask: { rig: Rig; board: string; add: string[]; mayTurn: boolean };
    answer: Outcome<LayoutProposal>;
  };
}

export type ProposalName = keyof Proposals;

export interface ProposalAsked<N extends ProposalName = ProposalName> {
  id: number;
  proposal: N;
  ask: Proposals[N]['ask'];
  /** Of work that several workers share, what this one does. */
  share: Share;
}
/** Asks a worker that has waited whether it listens. */
export interface Wake {
  wakes: true;
}
/** Something that could be taken before the work is done. */
export interface BestSoFar {
  edits: Edit[];
  figures: LayoutFigures;
}
/** What long work has come to before it is done: a layout that could be taken, what cures some findings. */
export interface SoFar {
  best?: BestSoFar;
  tried?: Record<string, TriedFix[]>;
}
export type ProposalAnswered =
  | { listens: true }
  | { id: number; share: number; words: string; soFar?: SoFar }
  | { id: number; answer: unknown }
  | { id: number; error: string };
