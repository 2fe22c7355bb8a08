import { type Circuit, type Section, sectionKey, solveSection } from '../circuit';
import type { Solution } from '../circuit/passive';
import { responseOf, type Stage } from '../kinds';
import { remembered } from './remembered';
import { HARMONICS, responseOver, type Spectrum } from './spectrum';

/** What a stage makes of the harmonics of a note before its ceiling and behind it; nothing where it leaves them. */
export interface StageResponse {
  before?: Spectrum;
  after?: Spectrum;
}

const ofStages = remembered<StageResponse>();
const ofSections = remembered<Spectrum>();

const shapes = new WeakMap<Stage, string>();

/** What shapes the tone in a stage, as one word: equal words, equal responses. */
export function shapeOf(stage: Stage): string {
  let shape = shapes.get(stage);
  if (shape === undefined) {
    const { filters, tiltDb, cabinet } = stage;
    shapes.set(stage, (shape = JSON.stringify([filters, tiltDb, cabinet])));
  }
  return shape;
}

/** A stage's responses at the harmonics of a note of so many Hz. */
export function stageResponse(stage: Stage, hertz: number): StageResponse {
  return ofStages(`${hertz} ${shapeOf(stage)}`, () => {
    const { filters, tiltDb, cabinet } = stage;
    const { before, after } = responseOf(stage);
    const shapesBefore = (filters?.before?.length ?? 0) > 0;
    const shapesAfter = tiltDb !== 0 || cabinet === true || filters !== undefined;
    return {
      ...(shapesBefore && { before: responseOver(hertz, before) }),
      ...(shapesAfter && { after: responseOver(hertz, after) }),
    };
  });
}

/** A section's solutions by frequency in Hz, each worked out once. */
export function solvedAt(circuit: Circuit, section: Section): (hertz: number) => Solution {
  const solutions = new Map<number, Solution>();
  return (hertz) => {
    let s = solutions.get(hertz);
    if (!s) solutions.set(hertz, (s = solveSection(circuit, section, hertz)));
    return s;
  };
}

/** A section's responses at the harmonics of a note, from one of its drivers to one of its nets. */
export function sectionResponses(
  circuit: Circuit,
  section: Section,
): (hertz: number, driver: number, net: number) => Spectrum {
  const key = sectionKey(circuit, section);
  const at = solvedAt(circuit, section);
  return (hertz, driver, net) =>
    ofSections(`${key}#${hertz}#${driver}#${net}`, () =>
      responseOver(hertz, (f) => at(f).response(driver, net)),
    );
}

/** Where a stage lifts a note most above what it does at 1 kHz, at which levels are stated. */
export interface Lift {
  db: number;
  hertz: number;
}

/** Above this, in Hz, a string gives too little for a lift to matter. */
const HIGHEST_HERTZ = 8000;

/** A stage's highest lift of the harmonics of a note, its filters before and behind its ceiling together. */
export function liftOf(stage: Stage, hertz: number): Lift {
  const { before, after } = stageResponse(stage, hertz);
  let most: Lift = { db: 0, hertz: 1000 };
  const size = (h: Spectrum | undefined, n: number) => (h ? Math.hypot(h.re[n]!, h.im[n]!) : 1);
  for (let n = 1; n <= HARMONICS && n * hertz <= HIGHEST_HERTZ; n++) {
    const db = 20 * Math.log10(size(before, n) * size(after, n));
    if (db > most.db) most = { db, hertz: n * hertz };
  }
  return most;
}
