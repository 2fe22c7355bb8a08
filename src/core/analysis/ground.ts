import { sure } from '../outcome';
import { byKey, Joined, nearestFirst } from '../graph';
import { passesOf, pluggedJacks } from '../circuit';
import { type Jack, kindOf, type Pass } from '../kinds';
import { outletsOf } from '../rig/find';
import type { Device, Rig, Sound } from '../rig/schema';
import type { SoundContext } from '../signal';
import { type BareSource, type Cure, cureOf, gather, type Tie } from './ground-cures';

/** A closed way through ground: its devices in order, its ties, and the cheapest place to open it. */
export interface HumLoop extends Cure {
  devices: string[];
  ties: Tie[];
}

const EARTH = 'protective earth';

/** Points of a device's chassis, apart where a transformer, an optical or a radio hop parts them. */
function groundsOf(passes: readonly Pass[], all: readonly Jack[]): Map<string, string> {
  const jacks = all.map((j) => j.id);
  const apart = new Set(all.filter((j) => j.apart).map((j) => j.id));
  const joined = new Joined<string>();
  const root = (p: string) => joined.root(p);
  const join = (a: string, b: string) => joined.join(a, b);
  const isolated = new Set<string>();
  const insulated = new Set<string>();
  for (const p of passes) {
    if (p.is === 'open' && (apart.has(p.a) || apart.has(p.b))) continue;
    if (p.is === 'wire' || p.is === 'open' || p.is === 'resistor') join(p.a, p.b);
    else if (p.is === 'series') p.legs.forEach((leg) => join(p.at, leg));
    else if (p.is === 'stage' && p.groundThrough) join(p.from, p.to);
    else if (p.is === 'stage') isolated.add(p.to);
    if (p.is === 'wire' && p.insulated) insulated.add(p.a);
  }
  for (const p of [...insulated, ...apart]) isolated.add(p);
  // Jacks that no pass touches in this state stand on the chassis; isolated ones stand apart.
  const chassis = jacks.find(
    (j) => !isolated.has(root(j)) && ![...isolated].some((i) => root(i) === root(j)),
  );
  for (const j of jacks)
    if (chassis && root(j) === j && ![...isolated].some((i) => root(i) === root(j)))
      join(j, chassis);
  return new Map(jacks.map((j) => [j, root(j)]));
}

/** Every tie between chassis in a sound. */
export function groundTies(rig: Rig, sound?: Sound): Tie[] {
  const plugged = pluggedJacks(rig);
  const nodes = new Map<string, Map<string, string>>();
  const node = (device: Device, jack: string): string => {
    if (device.host !== undefined) return `${device.host}`;
    let own = nodes.get(device.id);
    if (!own)
      nodes.set(
        device.id,
        (own = groundsOf(
          passesOf(device, sound, plugged),
          kindOf(device.kind).jacks.filter((j) => !j.inside),
        )),
      );
    return `${device.id}/${own.get(jack) ?? jack}`;
  };
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const ties: Tie[] = [];
  for (const lead of rig.leads) {
    if (lead.shieldLifted || lead.type === 'air' || lead.type === 'midi' || lead.type === 'inside')
      continue;
    const [from, to] = [sure(devices.get(lead.from.device)), sure(devices.get(lead.to.device))];
    ties.push({
      kind: 'shield',
      a: node(from, lead.from.jack),
      b: node(to, lead.to.jack),
      lead: lead.id,
      balanced: lead.type === 'balanced',
      device: from.id,
      other: to.id,
    });
  }
  for (const device of rig.devices) {
    const { earth, jacks } = kindOf(device.kind);
    if (earth !== undefined)
      ties.push({
        kind: 'earth',
        a: node(device, earth),
        b: EARTH,
        device: device.id,
        other: EARTH,
      });
    const supply = device.supply && devices.get(device.supply.device);
    const outlet = supply && outletsOf(supply)?.find((o) => o.id === device.supply!.outlet);
    const first = jacks.find((j) => !j.inside);
    if (supply && first && !(outlet?.isolated ?? outletsOf(supply)?.every((o) => o.isolated))) {
      ties.push({
        kind: 'supply',
        a: node(device, first.id),
        b: supply.id,
        device: device.id,
        other: supply.id,
      });
    }
  }
  // Sorted, so that the same rig has the same loops however its file lists things.
  return ties
    .map((t) => ({ t, key: `${t.a} ${t.b} ${t.kind} ${t.lead ?? ''}` }))
    .sort((x, y) => (x.key < y.key ? -1 : 1))
    .map(({ t }) => t);
}

/** Up to this many loops are exchanged for shorter ones; beyond, what is found first is told. */
const SHORTENED_UP_TO = 60;

/** How a node of the ground was come to: by which tie, from where, how far from its root. */
interface Come {
  node: string;
  tie?: Tie;
  from?: string;
  depth: number;
}

/** A tree of ties through all of ground, and how each node hangs in it. */
function groundTree(ties: readonly Tie[]): { way: Map<string, Come>; inTree: Set<Tie> } {
  const around = byKey(
    ties.flatMap((tie) => [tie.a, tie.b].map((node) => ({ node, tie }))),
    (x) => x.node,
  );
  const way = new Map<string, Come>();
  // Earth first: loops through the mains then show their two earths.
  for (const root of [EARTH, ...around.keys()]) {
    if (way.has(root) || !around.has(root)) continue;
    const next = ({ node, depth }: Come): Come[] =>
      (around.get(node) ?? []).map(({ tie }) => ({
        node: tie.a === node ? tie.b : tie.a,
        tie,
        from: node,
        depth: depth + 1,
      }));
    for (const come of nearestFirst<Come>([{ node: root, depth: 0 }], next, (c) => c.node))
      way.set(come.node, come);
  }
  return { way, inTree: new Set([...way.values()].flatMap((c) => c.tie ?? [])) };
}

/**
 * Every independent closed way through ground, as many as there are ties beyond a tree of them,
 * each exchanged for a shorter one where taking another loop's ties out of it leaves one. `bareSource`
 * tells whose pickup drives a lead by itself: a transformer there would take level and treble. `loops`
 * are the closed ways, where they are known.
 */
export function groundLoops(
  rig: Rig,
  sound?: Sound,
  bareSource: BareSource = () => undefined,
  loops: readonly Tie[][] = closedWays(rig, sound),
): HumLoop[] {
  const known = gather(rig);
  return loops.map((members) => {
    const devices = [...new Set(members.flatMap((m) => [m.device, m.other]))].filter(
      (d) => d !== EARTH,
    );
    return { devices, ties: members, ...cureOf(rig, members, known, bareSource) };
  });
}

const waysKnown = new WeakMap<SoundContext['stations'], Tie[][]>();

/** The closed ways of a sound, which hang on no length of a lead: kept as long as its stations are the same. */
export function waysIn({ rig, sound, stations }: SoundContext): readonly Tie[][] {
  let ways = waysKnown.get(stations);
  if (!ways) waysKnown.set(stations, (ways = closedWays(rig, sound)));
  return ways;
}

/** The ties of each closed way through ground. */
function closedWays(rig: Rig, sound?: Sound): Tie[][] {
  const ties = groundTies(rig, sound);
  const { way, inTree } = groundTree(ties);
  const found: Tie[][] = [];
  for (const tie of ties) {
    if (inTree.has(tie) || tie.a === tie.b) continue;
    const [left, right] = [[] as Tie[], [] as Tie[]];
    let [a, b] = [tie.a, tie.b];
    while (a !== b) {
      const [wa, wb] = [sure(way.get(a)), sure(way.get(b))];
      if (wa.depth >= wb.depth) {
        left.push(wa.tie!);
        a = wa.from!;
      } else {
        right.unshift(wb.tie!);
        b = wb.from!;
      }
    }
    found.push([tie, ...right.reverse(), ...left.reverse()]);
  }
  return shortened(found);
}

/**
 * The same number of independent loops, with fewer ties: a loop is replaced by its difference to
 * another where that is shorter and still one loop.
 */
function shortened(loops: readonly Tie[][]): Tie[][] {
  const best = loops.map((l) => [...l]);
  if (best.length > SHORTENED_UP_TO) return best;
  for (let changed = true; changed;) {
    changed = false;
    for (const [i, long] of best.entries()) {
      for (const other of best) {
        if (other === long || other.length > long.length) continue;
        const shared = new Set(other.filter((t) => long.includes(t)));
        if (other.length >= 2 * shared.size) continue;
        const round = oneLoop([...long, ...other].filter((t) => !shared.has(t)));
        if (!round) continue;
        best[i] = round;
        changed = true;
        break;
      }
    }
  }
  return best;
}

/** Ties in their order around, where they are one closed way that visits nothing twice. */
function oneLoop(ties: readonly Tie[]): Tie[] | undefined {
  const left = new Set(ties);
  const first = ties[0];
  if (!first) return undefined;
  const round = [first];
  left.delete(first);
  const seen = new Set([first.a, first.b]);
  for (let at = first.b; at !== first.a;) {
    const nexts = [...left].filter((t) => t.a === at || t.b === at);
    const next = nexts[0];
    if (!next || nexts.length > 1) return undefined;
    left.delete(next);
    round.push(next);
    at = next.a === at ? next.b : next.a;
    if (at !== first.a && seen.has(at)) return undefined;
    seen.add(at);
  }
  return left.size ? undefined : round;
}
