import type { BoostWorth, PickupTone, Preview, SoundReport } from '../core/analysis';
import type { Finding } from '../core/findings/finding';
import type { PromiseResult } from '../core/promises';
import type { Edit, Patch, Rig } from '../core/rig';

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
