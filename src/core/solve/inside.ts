import { done, type Outcome, refused, sure } from '../outcome';
import { blockCost, hostBudget } from '../analysis/hosts';
import { isEngaged, stateIn } from '../rig/device-state';
import { type Budget, kindOf } from '../kinds';
import { applyEdit } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, leadFrom, leadInto, nameOf, partnerEnd } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import { hostLoopOf, innerReturn, isFreeLoop } from '../rig/loop-edits';
import type { Device, Rig } from '../rig/schema';
import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';

/** What speaks for a device to be inside or outside, in points; more points, a stronger wish. */
const POINTS = {
  alwaysOn: 3,
  perTenPercent: 1,
  owned: 3,
  buy: 5,
  differs: 2,
  switched: 0.5,
  stay: 1,
  loop: 1.5,
};

/**
 * A device that could live inside a host or outside of it: where it is now, what it costs inside,
 * and what speaks for either.
 */
export interface Candidate {
  device: string;
  inside: boolean;
  slots: number;
  percent: number;
  outsidePoints: number;
  reasons: string[];
}

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
 * A row of devices on one path of a host, in the order of the signal: first what stands before its
 * input, then what lives inside or hangs in its loops.
 */
interface Path {
  input: string;
  row: string[];
}

/** The candidates of a host with the paths they stand on. */
function pathsOf(rig: Rig, host: string): Path[] {
  const kind = kindOf(sure(deviceOf(rig, host)).kind);
  return kind.jacks
    .filter((j) => j.inside && j.faces?.is === 'input')
    .flatMap((point): Path[] => {
      const input = point.faces?.jack ?? '';
      const row: string[] = [];
      // Upstream of the input: real devices that could live inside, as far as they follow one another.
      for (let lead = leadInto(rig, host, input); lead;) {
        const d = sure(deviceOf(rig, lead.from.device));
        const way = kindOf(d.kind).through;
        if (
          d.host !== undefined ||
          !kindOf(d.kind).block ||
          way?.out !== lead.from.jack ||
          kindOf(d.kind).hosts ||
          kindOf(d.kind).job === 'instrument'
        )
          break;
        row.unshift(d.id);
        lead = leadInto(rig, d.id, way.in);
      }
      // Downstream: the first link of each step, through blocks and through loops.
      const seen = new Set<string>();
      for (let at = { device: host, jack: point.id }; ;) {
        const link = rig.leads.find(
          (l) =>
            l.type === 'inside' &&
            l.from.device === at.device &&
            l.from.jack === at.jack &&
            !seen.has(l.id),
        );
        if (!link) break;
        seen.add(link.id);
        if (link.to.device !== host) {
          const d = sure(deviceOf(rig, link.to.device));
          const way = kindOf(d.kind).through;
          if (!way) break;
          row.push(d.id);
          at = { device: d.id, jack: way.out };
          continue;
        }
        const send = kind.jacks.find((j) => j.id === link.to.jack)?.faces;
        if (send?.is !== 'send') break;
        // A device on the loop stands at this place of the path.
        const out = leadFrom(rig, host, send.jack);
        const looped = out && hostLoopOf(rig, out.to.device);
        const back = looped?.ways[0]?.back;
        if (!out || looped?.host !== host || back === undefined) break;
        row.push(out.to.device);
        at = { device: host, jack: innerReturn(back) };
      }
      return row.length ? [{ input, row }] : [];
    });
}

/**
 * What speaks for and against each candidate being outside, read from the sounds, the brief and
 * what it costs.
 */
function candidateOf(rig: Rig, device: Device, host: string): Candidate {
  const kind = kindOf(device.kind);
  const { slots, percent } = blockCost(device);
  const inside = device.host === host;
  const reasons: string[] = [];
  let outside = 0;
  const add = (points: number, words: string) => {
    outside += points;
    reasons.push(words);
  };
  const on = rig.sounds.map((s) => isEngaged(kind, device, stateIn(s, device.id)));
  if (on.every(Boolean))
    add(POINTS.alwaysOn, 'it is on in every sound, so it needs no program change');
  else if (on.some(Boolean) && on.some((x) => !x))
    add(-POINTS.switched, 'it is switched between sounds');
  const settings = new Set(
    rig.sounds.map((s) => JSON.stringify(stateIn(s, device.id)?.settings ?? {})),
  );
  if (settings.size > 1)
    add(
      -POINTS.differs,
      'its settings change from sound to sound, which a program does inside and hands do outside',
    );
  if (percent >= 10)
    add((percent / 10) * POINTS.perTenPercent, `it costs ${percent} % of the processing`);
  const isOwned = !inside || rig.brief?.gear.some((g) => g.kind === device.kind) === true;
  if (isOwned) add(POINTS.owned, inside ? 'a real one is on hand' : 'it is a real pedal already');
  else add(-POINTS.buy, 'a real one would have to be found');
  return { device: device.id, inside, slots, percent, outsidePoints: outside, reasons };
}

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

  const name = (id: string) => `d${[...rowOf].indexOf(id)}`;
  const build = (extra: ReadonlyMap<string, boolean>, soft: boolean): Mip => {
    const minimise: Term[] = [];
    const binaries: string[] = [];
    const rules: Mip['rules'] = [];
    const loopTerms: Term[] = [];
    for (const c of candidates) {
      const x = `in_${name(c.device)}`;
      binaries.push(x);
      // Being inside forgoes the points for outside; moving at all costs a little.
      minimise.push([c.outsidePoints + (c.inside ? -POINTS.stay : POINTS.stay), x]);
      const wanted = extra.get(c.device);
      if (wanted !== undefined)
        rules.push({
          name: `hold_${name(c.device)}`,
          terms: [[1, x]],
          is: '=',
          value: wanted ? 1 : 0,
        });
    }
    for (const { row } of paths) {
      let before: string | undefined;
      let looped: string | undefined;
      for (const id of row) {
        const n = name(id);
        if (!movable.has(id)) {
          // A device of the row that is fixed: outside in front keeps the front going, inside ends it.
          if (sure(deviceOf(rig, id)).host === host) [before, looped] = ['never', undefined];
          continue;
        }
        // f: stands in front of everything inside; o: hangs in a loop; l: a loop begins here.
        const [f, o, l] = [`front_${n}`, `out_${n}`, `loop_${n}`];
        binaries.push(f, o, l);
        rules.push({
          name: `place_${n}`,
          terms: [
            [1, `in_${n}`],
            [1, f],
            [1, o],
          ],
          is: '=',
          value: 1,
        });
        if (before === 'never')
          rules.push({ name: `nofront_${n}`, terms: [[1, f]], is: '=', value: 0 });
        else if (before)
          rules.push({
            name: `front_after_${n}`,
            terms: [
              [1, f],
              [-1, before],
            ],
            is: '<=',
            value: 0,
          });
        rules.push({
          name: `begins_${n}`,
          terms: [[1, l], [-1, o], ...(looped ? [[1, looped] as Term] : [])],
          is: '>=',
          value: 0,
        });
        const sides = partnerLinked(rig, id) ? 2 : 1;
        loopTerms.push([sides, l]);
        minimise.push([POINTS.loop * sides, l]);
        if (before !== 'never') before = f;
        looped = o;
      }
    }
    const over = (key: string): Term[] => (soft ? [[-1, `over_${key}`]] : []);
    rules.push({
      name: 'slots',
      terms: [...candidates.map((c): Term => [c.slots, `in_${name(c.device)}`]), ...over('slots')],
      is: '<=',
      value: has.slots - fixed.slots,
    });
    rules.push({
      name: 'percent',
      terms: [
        ...candidates.map((c): Term => [c.percent, `in_${name(c.device)}`]),
        ...over('percent'),
      ],
      is: '<=',
      value: has.percent - fixed.percent,
    });
    rules.push({ name: 'loops', terms: [...loopTerms, ...over('loops')], is: '<=', value: free });
    const reals = soft ? ['over_slots', 'over_percent', 'over_loops'] : [];
    if (soft) minimise.push([1000, 'over_slots'], [100, 'over_percent'], [1000, 'over_loops']);
    return { minimise, rules, binaries, reals };
  };

  const answer = solveMip(build(pinned, false), solver);
  if (!answer.solved) {
    const short = solveMip(build(pinned, true), solver);
    const lacks = (key: string, unit: string) =>
      short.solved && (short.values[`over_${key}`] ?? 0) > 1e-6
        ? [`${Math.round(short.values[`over_${key}`]! * 10) / 10} ${unit} short`]
        : [];
    return done({
      possible: false,
      host,
      has,
      candidates,
      short: [
        ...lacks('slots', 'slots'),
        ...lacks('percent', '% of processing'),
        ...lacks('loops', 'sends and returns'),
      ],
    });
  }
  const isIn = (values: Record<string, number>, c: Candidate) =>
    (values[`in_${name(c.device)}`] ?? 0) > 0.5;
  const changes = candidates.filter((c) => isIn(answer.values, c) !== c.inside);
  const sum = (of: (c: Candidate) => boolean) =>
    candidates
      .filter(of)
      .reduce((s, c) => ({ slots: s.slots + c.slots, percent: s.percent + c.percent }), {
        ...fixed,
      });
  const front = (c: Candidate) => (answer.values[`front_${name(c.device)}`] ?? 0) > 0.5;
  const { edits } = editsFor(
    rig,
    host,
    paths,
    changes.map((c) => ({ device: c.device, inside: !c.inside, front: front(c) })),
  );
  const moves = changes.map((c): HostMove => {
    const left = solveMip(build(new Map([...pinned, [c.device, c.inside]]), false), solver);
    const leaves = c.inside;
    const over = sum((x) => x.inside);
    const must =
      leaves && (over.slots > has.slots || over.percent > has.percent)
        ? [
            `${nameOf(rig, host)} is over its budget (${over.slots} of ${has.slots} ` +
              `slots, ${over.percent} of ${has.percent} %)`,
          ]
        : [];
    return {
      device: c.device,
      to: leaves ? 'outside' : 'inside',
      place: leaves
        ? front(c)
          ? `in front of ${hostDevice.name}`
          : `on a send and return of ${hostDevice.name}`
        : `inside ${hostDevice.name}`,
      reasons: [...must, ...c.reasons],
      ifLeft: left.solved
        ? { points: Math.round((left.cost - answer.cost) * 10) / 10 }
        : { impossible: true },
    };
  });
  return done({
    possible: true,
    host,
    has,
    moves,
    edits,
    now: sum((c) => c.inside),
    then: sum((c) => isIn(answer.values, c)),
    candidates,
  });
}

/** Whether both sides of a device's stereo pair are joined to something. */
function partnerLinked(rig: Rig, id: string): boolean {
  const way = kindOf(sure(deviceOf(rig, id)).kind).through!;
  const right = partnerEnd(rig, { device: id, jack: way.in });
  return right !== undefined && leadInto(rig, right.device, right.jack) !== undefined;
}

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
