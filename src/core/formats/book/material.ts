import { budgetOf, cutList, inputList, mainsSums, packingOf } from '../../build';
import { SEVERITIES } from '../../findings/finding';
import { setStage } from '../../midi';
import type { Report } from '../../report/report';
import type { Rig } from '../../rig/schema';
import { fixed, showLength, showLevel, type UnitChoice } from '../../units';

/** What the parts of the book are made from, worked out once. */
export function materialOf(rig: Rig, report: Report, units: UnitChoice) {
  const level = (x: number | null) => showLevel(x, units.level);
  const length = (m: number) => showLength(m, units.length);
  const stage = setStage(rig);
  const list = cutList(rig);
  const findings = [...report.findings].sort(
    (a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity),
  );
  const open = findings.filter((f) => f.accepted === undefined);
  // The document is a step ahead of its figures while they are worked out.
  const whole = report.sounds.filter(
    (s) =>
      s.stations.every((x) => rig.devices.some((d) => d.id === x.device)) &&
      s.steps.every((x) => x.leads.every((l) => rig.leads.some((y) => y.id === l))),
  );
  const inputs = inputList(rig, report.sounds);
  const packing = packingOf(rig, list);
  const kg = (grams: number) => `${fixed(grams / 1000)} kg`;
  const done = new Map((rig.done?.ticks ?? []).map((t) => [t.id, t]));
  const mains = mainsSums(rig, 230);
  const budget = budgetOf(rig, list);
  return {
    rig,
    report,
    level,
    length,
    stage,
    list,
    findings,
    open,
    whole,
    inputs,
    packing,
    kg,
    done,
    mains,
    budget,
  };
}

export type Material = ReturnType<typeof materialOf>;
