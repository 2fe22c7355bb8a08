import type { Circuit, CircuitStage, Driver, Net, Section } from '../circuit';
import type { Solution } from '../circuit/passive';
import { at as entryAt, sure } from '../outcome';
import type { Flowing } from './flow';
import type { Present } from './meeting';

/** What a run of nearly the same circuit says about this one. */
export interface Like {
  /** What was found at a net of a section that is the same. */
  present: (net: number) => Present;
  /** The solution of a section whose metal is the same, whatever comes into it. */
  solution: (section: Section, hertz: number) => Solution | undefined;
  /** Whether a section is made as it was and nothing else comes into it. */
  isSame: (section: Section) => boolean;
}

/**
 * The idea: a copy with one fault differs from the whole rig in a few sections and in what lies
 * behind them. Sections are found again by the names of their points; one whose metal, loads and
 * drivers are the same and whose stages listen only to sections that are the same has the same signal.
 * Nothing is taken over of circles, nor of what lies behind them.
 */
export function likeIn(circuit: Circuit, known: Flowing): Like {
  const nets = circuit.nets.map((net) => counterpart(net, known.circuit));
  const metal = circuit.sections.map((s) => sameMetal(s, nets, known.circuit));
  const verdicts: (boolean | undefined)[] = circuit.sections.map(() => undefined);
  const inCircle = new Set(known.loops.flatMap((l) => l.stages.map((s) => s.device)));
  /** Whether what comes from a net, or keys a gate from there, is what came from its counterpart. */
  const isFrom = (net: number | undefined, then: number | undefined): boolean =>
    net === undefined || then === undefined
      ? net === then
      : nets[net]?.index === then &&
        isSame(entryAt(circuit.sections, entryAt(circuit.nets, net).section));
  const isSame = (section: Section): boolean => {
    const before = verdicts[section.index];
    if (before !== undefined) return before;
    verdicts[section.index] = false;
    const was = metal[section.index];
    const same =
      was !== undefined &&
      section.drivers.every((d, k) => {
        const then = entryAt(was.drivers, k);
        return (
          d.source === then.source &&
          d.stages.length === then.stages.length &&
          d.stages.every(
            (s, i) =>
              sameStage(s, entryAt(then.stages, i)) &&
              !inCircle.has(s.device) &&
              isFrom(s.from, entryAt(then.stages, i).from) &&
              isFrom(s.keyNet, entryAt(then.stages, i).keyNet),
          )
        );
      });
    return (verdicts[section.index] = same);
  };
  return {
    present: (net) => known.present(sure(nets[net]).index),
    solution: (section, hertz) => {
      const was = metal[section.index];
      return was && known.solution(was, hertz);
    },
    isSame,
  };
}

/** The net of another circuit that has the same points, leads and loads. */
function counterpart(net: Net, circuit: Circuit): Net | undefined {
  const [first] = net.points;
  const was = first && circuit.netAt(first.device, first.point);
  const same =
    was?.points.length === net.points.length &&
    was.leads.length === net.leads.length &&
    was.leadFarads === net.leadFarads &&
    was.shunts.length === net.shunts.length &&
    net.points.every(
      (p, i) => p.device === was.points[i]?.device && p.point === was.points[i]?.point,
    ) &&
    net.shunts.every((s, i) => {
      const then = was.shunts[i];
      return s.ohms === then?.ohms && s.farads === then.farads && s.henries === then.henries;
    });
  return same ? was : undefined;
}

/** The section of another circuit that is made of the same metal and fed by drivers of the same kind. */
function sameMetal(
  section: Section,
  nets: readonly (Net | undefined)[],
  known: Circuit,
): Section | undefined {
  const was = nets[section.nets[0] ?? -1];
  const then = was && known.sections[was.section];
  const same =
    then?.nets.length === section.nets.length &&
    then.resistors.length === section.resistors.length &&
    then.drivers.length === section.drivers.length &&
    section.nets.every((n, i) => nets[n]?.index === then.nets[i]) &&
    section.resistors.every((r, i) => {
      const old = entryAt(then.resistors, i);
      return r.ohms === old.ohms && nets[r.a]?.index === old.a && nets[r.b]?.index === old.b;
    }) &&
    section.drivers.every((d, i) => sameDriver(d, entryAt(then.drivers, i), nets));
  return same ? then : undefined;
}

const sameDriver = (d: Driver, then: Driver, nets: readonly (Net | undefined)[]): boolean =>
  d.device === then.device &&
  d.ohms === then.ohms &&
  d.henries === then.henries &&
  nets[d.net]?.index === then.net;

/** Stages are the same where they come of the same pass; hops are made anew and say what they are. */
const sameStage = (a: CircuitStage, b: CircuitStage): boolean =>
  a.stage === b.stage ||
  (a.device === b.device &&
    a.stage.id === b.stage.id &&
    a.lead === b.lead &&
    a.stage.gainDb === b.stage.gainDb &&
    a.stage.latencyMs === b.stage.latencyMs &&
    a.lead !== undefined);
