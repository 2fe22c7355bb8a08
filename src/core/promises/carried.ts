import { at as entryAt } from '../outcome';
import { byKey, reachable } from '../graph';
import type { Circuit, CircuitStage } from '../circuit';
import type { Stage } from '../kinds';

/** Less gain than this, in dB, lets nothing through. */
const SHUT_DB = -80;

/** Whether a stage lets signal through. */
export const isOpen = (stage: Stage): boolean =>
  !stage.muted && stage.gainDb + stage.outputDb > SHUT_DB;

/** Where a stage's output goes: its passive section. */
export const sectionOut = (circuit: Circuit, s: CircuitStage): number =>
  entryAt(circuit.nets, entryAt(circuit.drivers, s.driver).net).section;

/**
 * Sections that signal reaches from some others, by stages that are open; and the gates it meets on
 * the way. No levels are figured.
 */
export function carriedFrom(
  circuit: Circuit,
  sections: readonly number[],
): { sections: Set<number>; gates: Set<string> } {
  const behind = byKey(
    circuit.stages.filter((s) => isOpen(s.stage)),
    (s) => circuit.nets[s.from]?.section,
  );
  const reached = reachable(sections, (at) =>
    (behind.get(at) ?? []).map((s) => sectionOut(circuit, s)),
  );
  const passed = [...reached].flatMap((at) => behind.get(at) ?? []);
  return {
    sections: reached,
    gates: new Set(passed.filter((s) => s.stage.gate).map((s) => s.device)),
  };
}

/** Destinations in a set of sections. */
export const destinationsIn = (circuit: Circuit, sections: ReadonlySet<number>): Set<string> =>
  new Set(
    circuit.arrivals
      .filter((a) => sections.has(entryAt(circuit.nets, a.net).section))
      .map((a) => a.device),
  );
