import type { Circuit, CircuitStage } from '../circuit';

/** Less gain than this, in dB, lets nothing through. */
const SHUT_DB = -80;

/** Whether a stage lets signal through. */
export const isOpen = ({ stage }: CircuitStage): boolean =>
  !stage.muted && stage.gainDb + stage.outputDb > SHUT_DB;

/** Where a stage's output goes: its passive section. */
export const sectionOut = (circuit: Circuit, s: CircuitStage): number =>
  circuit.nets[circuit.drivers[s.driver]!.net]!.section;

/**
 * Sections that signal reaches from some others, by stages that are open; and the gates it meets on
 * the way. No levels are figured.
 */
export function carriedFrom(
  circuit: Circuit,
  sections: readonly number[],
): { sections: Set<number>; gates: Set<string> } {
  const behind = new Map<number, CircuitStage[]>();
  for (const s of circuit.stages) {
    if (!isOpen(s)) continue;
    const at = circuit.nets[s.from]!.section;
    const list = behind.get(at);
    if (list) list.push(s);
    else behind.set(at, [s]);
  }
  const gates = new Set<string>();
  const seen = new Set(sections);
  const next = [...sections];
  for (let at = next.pop(); at !== undefined; at = next.pop()) {
    for (const s of behind.get(at) ?? []) {
      if (s.stage.gate) gates.add(s.device);
      const to = sectionOut(circuit, s);
      if (seen.has(to)) continue;
      seen.add(to);
      next.push(to);
    }
  }
  return { sections: seen, gates };
}

/** Destinations in a set of sections. */
export const destinationsIn = (circuit: Circuit, sections: ReadonlySet<number>): Set<string> =>
  new Set(
    circuit.arrivals.filter((a) => sections.has(circuit.nets[a.net]!.section)).map((a) => a.device),
  );
