import type { BoostWorth, PickupTone, Preview, SoundReport } from '../core/analysis';
import type { Finding } from '../core/findings/finding';
import type { PromiseResult } from '../core/promises';
import type { Edit, Patch, Rig } from '../core/rig';
import type { BufferProposal, InsideProposal, IsolateProposal, OrderProposal } from '../core/solve';

/** What can be asked of the worker, by name: what goes in and what comes out. */
export interface Questions {
  open: { ask: { rig: Rig }; answer: ReportUpdate };
  patch: { ask: { patches: Patch[] }; answer: ReportUpdate };
  preview: { ask: { edits: Edit[]; sound: string }; answer: { ok: true; preview: Preview } | { ok: false; why: string } };
  boosts: { ask: { sound: string }; answer: BoostWorth[] };
  tone: { ask: { sound: string; pickup: string }; answer: PickupTone | undefined };
}

export type Question = keyof Questions;

/** A report with only the sounds that changed; `order` names all of them. */
export interface ReportUpdate { changed: SoundReport[]; order: string[]; promises: PromiseResult[]; findings: Finding[] }

export interface Asked<Q extends Question = Question> { id: number; question: Q; ask: Questions[Q]['ask'] }
export type Answered = { id: number; answer: unknown } | { id: number; error: string };

/** What can be proposed, by name: long work, done in a worker of its own. `held` keeps a device inside (true) or outside. */
export interface Proposals {
  order: { ask: { rig: Rig; sound: string }; answer: OrderProposal | string };
  inside: { ask: { rig: Rig; host: string; held: [string, boolean][] }; answer: InsideProposal | string };
  isolation: { ask: { rig: Rig; sound: string }; answer: IsolateProposal };
  buffers: { ask: { rig: Rig; sound: string }; answer: BufferProposal };
}

export type ProposalName = keyof Proposals;

export interface ProposalAsked<N extends ProposalName = ProposalName> { id: number; proposal: N; ask: Proposals[N]['ask'] }
export type ProposalAnswered = { id: number; share: number; words: string } | { id: number; answer: unknown } | { id: number; error: string };
