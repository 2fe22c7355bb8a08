import { blockCost, hostBudget } from '../analysis/hosts';
import { type Budget, kindOf } from '../kinds';
import { type MipAnswer, type MipSolver, solveMip } from '../optimum/mip';
import { done, type Outcome, refused, sure } from '../outcome';
import { applyEdit } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, leadInto } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import { hostLoopOf, isFreeLoop } from '../rig/loop-edits';
import type { Device, Rig } from '../rig/schema';
import { type Candidate, candidateOf, type Path, pathsOf } from './inside-candidates';
import { InsideProgram, partnerLinked } from './inside-program';

/** One change that is proposed, with its reasons, and what it would cost to leave the device where it is. */
export interface HostMove {
  device: string;
  to: 'outside' | 'inside';
  place: string;
  reasons: string[];
  ifLeft: { points: number } | { impossible: true };
}

export type InsideProposal =
  | {
      possible: true;
      host: string;
      moves: HostMove[];
      edits: Edit[];
      has: Budget;
      now: { slots: number; percent: number };
      then: { slots: number; percent: number };
      candidates: Candidate[];
    }
  | { possible: false; host: string; short: string[]; has: Budget; candidates: Candidate[] };

/** Whether a kind can exist as a real box: it has a socket that a lead fits. */
const isReal = (d: Device): boolean => kindOf(d.kind).size !== undefined;

/**
 * Decides exactly which devices of a host's paths live inside and which are real pedals, by a
 * mixed-integer problem: slots and processing must fit, whatever stands outside in the middle of a
 * path needs a send and return (neighbours share one), and whatever stands before everything inside
 * needs none. Points for either side are a judgement: see the reasons. Only the first link of each
 * step is followed, so devices on side branches inside keep their place and are counted as they
 * are.
 */
export function proposeInside(
  rig: Rig,
  host: string,
  solver: MipSolver,
  pinned: ReadonlyMap<string, boolean> = new Map(),
): Outcome<InsideProposal> {
  const hostDevice = deviceOf(rig, host);
  const kind = hostDevice && kindOf(hostDevice.kind);
  if (!hostDevice || !kind?.hosts) return refused('Choose a modeler first.');
  const paths = pathsOf(rig, host);
  const rowOf = new Set(paths.flatMap((p) => p.row));
  const canLeave = (d: Device) =>
    isReal(d) && !d.pinned && kindOf(d.kind).through !== undefined && !kindOf(d.kind).alwaysOn;
  const candidates = [...rowOf]
    .map((id) => sure(deviceOf(rig, id)))
    .filter((d) => kindOf(d.kind).block && canLeave(d))
    .map((d) => candidateOf(rig, d, host));
  if (!candidates.length)
    return refused(
      `Nothing on the paths of ${hostDevice.name} could be moved in or out: blocks that ` +
        'exist only inside, pinned ones and always-on routing stay where they are.',
    );
  const movable = new Map(candidates.map((c) => [c.device, c]));
  const has = hostBudget(hostDevice);
  const stays = rig.devices.filter((d) => d.host === host && !movable.has(d.id)).map(blockCost);
  const fixed = {
    slots: stays.reduce((s, c) => s + c.slots, 0),
    percent: stays.reduce((s, c) => s + c.percent, 0),
  };
  // Loops that nothing on these rows uses are free; those that candidates hang on can be given back.
  const held = candidates.reduce(
    (n, c) =>
      n +
      (hostLoopOf(rig, c.device)?.host === host ? sure(hostLoopOf(rig, c.device)).ways.length : 0),
    0,
  );
  const free = (kind.loops ?? []).filter((l) => isFreeLoop(rig, host, l)).length + held;

  const program = new InsideProgram(rig, host, paths, candidates, { ...fixed, loops: free }, has);

  const answer = solveMip(program.of(pinned), solver);
  if (!answer.solved)
    return done({
      possible: false,
      host,
      has,
      candidates,
      short: shortWords(solveMip(program.of(pinned, true), solver)),
    });
  const isIn = (c: Candidate) => (answer.values[`in_${program.name(c.device)}`] ?? 0) > 0.5;
  const isFront = (c: Candidate) => (answer.values[`front_${program.name(c.device)}`] ?? 0) > 0.5;
  const sum = (of: (c: Candidate) => boolean) =>
    candidates
      .filter(of)
      .reduce((s, c) => ({ slots: s.slots + c.slots, percent: s.percent + c.percent }), fixed);
  const changes = candidates.filter((c) => isIn(c) !== c.inside);
  const now = sum((c) => c.inside);
  const moves = changes.map((c): HostMove => {
    const left = solveMip(program.of(new Map([...pinned, [c.device, c.inside]])), solver);
    return {
      device: c.device,
      to: c.inside ? 'outside' : 'inside',
      place: placeWords(hostDevice, c, isFront(c)),
      reasons: [...(c.inside ? overWords(hostDevice, now, has) : []), ...c.reasons],
      ifLeft: left.solved
        ? { points: Math.round((left.cost - answer.cost) * 10) / 10 }
        : { impossible: true },
    };
  });
  const turns = changes.map((c) => ({ device: c.device, inside: !c.inside, front: isFront(c) }));
  return done({
    possible: true,
    host,
    has,
    moves,
    edits: editsFor(rig, host, paths, turns).edits,
    now,
    then: sum(isIn),
    candidates,
  });
}

/** What is short, where no way fits: the answer of the problem that may go over each budget. */
function shortWords(short: MipAnswer): string[] {
  if (!short.solved) return [];
  const lacks = (
    [
      ['slots', 'slots'],
      ['percent', '% of processing'],
      ['loops', 'sends and returns'],
    ] as const
  ).map(([key, unit]) => ({ over: short.values[`over_${key}`] ?? 0, unit }));
  return lacks
    .filter((l) => l.over > 1e-6)
    .map((l) => `${Math.round(l.over * 10) / 10} ${l.unit} short`);
}

/** Where a device that changes sides goes. */
const placeWords = (host: Device, c: Candidate, isFront: boolean): string =>
  !c.inside
    ? `inside ${host.name}`
    : isFront
      ? `in front of ${host.name}`
      : `on a send and return of ${host.name}`;

/** That something must leave, where what is inside now is over the budget. */
const overWords = (host: Device, now: { slots: number; percent: number }, has: Budget): string[] =>
  now.slots > has.slots || now.percent > has.percent
    ? [
        `${host.name} is over its budget (${now.slots} of ${has.slots} ` +
          `slots, ${now.percent} of ${has.percent} %)`,
      ]
    : [];

/**
 * Edits that carry out the changes: to the front into the lead at the input, to a loop at the very
 * place, inside from either.
 */
function editsFor(
  rig: Rig,
  host: string,
  paths: readonly Path[],
  changes: readonly { device: string; inside: boolean; front: boolean }[],
): { edits: Edit[] } {
  const edits: Edit[] = [];
  let at = rig;
  const fresh = (count: number) =>
    Array.from({ length: count }).reduce<string[]>(
      (ids) => [...ids, freshId('lead', [...at.leads.map((l) => l.id), ...ids])],
      [],
    );
  const apply = (edit: Edit) => {
    const made = applyEdit(at, edit);
    if (!made.ok) return;
    at = made.value.rig;
    edits.push(edit);
  };
  for (const { device, inside, front } of [...changes].sort(
    (a, b) => Number(a.inside) - Number(b.inside),
  )) {
    const path = sure(paths.find((p) => p.row.includes(device)));
    if (!inside && front) {
      const lead = leadInto(at, host, path.input);
      if (lead) apply({ edit: 'moveDevice', device, lead: lead.id, newLeads: fresh(2) });
    } else if (!inside) {
      const sides = partnerLinked(at, device) ? 2 : 1;
      const loops = (kindOf(sure(deviceOf(at, host)).kind).loops ?? [])
        .filter((l) => isFreeLoop(at, host, l))
        .slice(0, sides)
        .map((l) => l.id);
      if (loops.length === sides)
        apply({ edit: 'moveToLoop', device, loops, newLeads: fresh(2 * sides) });
    } else if (hostLoopOf(at, device)?.host === host) apply({ edit: 'moveFromLoop', device });
    else {
      const link = at.leads.find(
        (l) =>
          l.type === 'inside' &&
          l.from.device === host &&
          l.from.jack === `from${path.input.charAt(0).toUpperCase()}${path.input.slice(1)}`,
      );
      if (link) apply({ edit: 'moveDevice', device, lead: link.id, newLeads: fresh(2) });
    }
  }
  return { edits };
}
