import { sure, at as entryAt } from '../outcome';
import { byKey, Joined, nearestFirst } from '../graph';
import { passesOf, pluggedJacks } from '../circuit';
import type { Fix, Remark } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { kindOf, type Outlet, type Pass } from '../kinds';
import { jackOf, nameOf, outletsOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, Lead, Rig, Sound } from '../rig/schema';
import { fixed } from '../units';
import type { Remarker } from './evidence';

/**
 * What ties two chassis together: a lead's shield, the mains' protective earth, or a supply's
 * shared return.
 */
export interface Tie {
  kind: 'shield' | 'earth' | 'supply';
  a: string;
  b: string;
  lead?: string;
  /** The lead is balanced: what flows in its shield is not in the signal. */
  balanced?: boolean;
  device: string;
  other: string;
}

/** A closed way through ground: its devices in order, its ties, and the cheapest place to open it. */
export interface HumLoop {
  devices: string[];
  ties: Tie[];
  cure: string;
  fix?: Fix;
  /** Other places for an isolator. */
  others?: Fix[];
}

const EARTH = 'protective earth';

/** Points of a device's chassis, apart where a transformer, an optical or a radio hop parts them. */
function groundsOf(passes: readonly Pass[], jacks: readonly string[]): Map<string, string> {
  const joined = new Joined<string>();
  const root = (p: string) => joined.root(p);
  const join = (a: string, b: string) => joined.join(a, b);
  const isolated = new Set<string>();
  const insulated = new Set<string>();
  for (const p of passes) {
    if (p.is === 'wire' || p.is === 'open' || p.is === 'resistor') join(p.a, p.b);
    else if (p.is === 'series') p.legs.forEach((leg) => join(p.at, leg));
    else if (p.is === 'stage' && p.groundThrough) join(p.from, p.to);
    else if (p.is === 'stage') isolated.add(p.to);
    if (p.is === 'wire' && p.insulated) insulated.add(p.a);
  }
  for (const p of insulated) isolated.add(p);
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
          kindOf(device.kind)
            .jacks.filter((j) => !j.inside)
            .map((j) => j.id),
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
 * tells whose pickup drives a lead by itself: a transformer there would take level and treble.
 */
export function groundLoops(
  rig: Rig,
  sound?: Sound,
  bareSource: BareSource = () => undefined,
): HumLoop[] {
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
  const known = gather(rig);
  return shortened(found).map((members) => {
    const devices = [...new Set(members.flatMap((m) => [m.device, m.other]))].filter(
      (d) => d !== EARTH,
    );
    return { devices, ties: members, ...cureOf(rig, members, known, bareSource) };
  });
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

/** What the cures of all loops read, gathered once. */
interface Known {
  devices: Map<string, Device>;
  leadsById: Map<string, Lead>;
  outlet: { d: Device; o: Outlet } | undefined;
}

function gather(rig: Rig): Known {
  const taken = new Set(
    rig.devices.flatMap((d) => (d.supply ? [`${d.supply.device} ${d.supply.outlet ?? ''}`] : [])),
  );
  const outlet = rig.devices.flatMap((d) =>
    (outletsOf(d) ?? [])
      .filter((o) => o.isolated && !taken.has(`${d.id} ${o.id}`))
      .map((o) => ({ d, o })),
  )[0];
  return {
    devices: new Map(rig.devices.map((d) => [d.id, d])),
    leadsById: new Map(rig.leads.map((l) => [l.id, l])),
    outlet,
  };
}

/**
 * The cheapest place to open a loop: an isolated output that is there already, an isolated outlet,
 * a hum isolator in the longest lead. Never a protective earth.
 */
function cureOf(
  rig: Rig,
  ties: readonly Tie[],
  { devices, leadsById, outlet }: Known,
  bareSource: BareSource,
): Pick<HumLoop, 'cure' | 'fix' | 'others'> {
  const name = (id: string) => devices.get(id)?.name ?? id;
  const leads = ties.flatMap((t) => (t.lead ? [sure(leadsById.get(t.lead))] : []));
  for (const lead of leads) {
    const device = sure(devices.get(lead.from.device));
    const kind = kindOf(device.kind);
    const lift = kind.parameters.find(
      (p) => p.type === 'switch' && p.id.toLowerCase() === `isolate${lead.from.jack}`.toLowerCase(),
    );
    if (lift)
      return {
        cure: `isolate output ${lead.from.jack.toUpperCase()} of ${device.name}, which has a transformer`,
        fix: {
          words: `Isolate output ${lead.from.jack.toUpperCase()} of ${device.name}`,
          edits: [{ edit: 'setSetting', device: device.id, setting: lift.id, value: true }],
        },
      };
    const other = isolatedSibling(rig, device, lead);
    if (other)
      return {
        cure: `use the isolated output of ${device.name} for ${name(lead.to.device)}`,
        fix: other,
      };
  }
  const supply = ties.find((t) => t.kind === 'supply');
  if (supply) {
    const isolated = outlet;
    return {
      cure: `feed ${name(supply.device)} from an isolated outlet`,
      ...(isolated && {
        fix: {
          words: `Feed ${name(supply.device)} from ${isolated.o.label} of ${isolated.d.name}`,
          edits: [
            {
              edit: 'setDevice',
              device: supply.device,
              supply: { device: isolated.d.id, outlet: isolated.o.id },
            },
          ],
        },
      }),
    };
  }
  const usb = leads.find((l) => l.type === 'usb');
  if (usb)
    return {
      cure: `a USB isolator between ${name(usb.from.device)} and ${name(usb.to.device)}`,
      fix: usbIsolatorFix(rig, usb),
    };
  // A leg that ends where it goes, such as a tuner's, before the line; then the longest.
  const endsThere = (l: Lead) => !rig.leads.some((x) => x.from.device === l.to.device);
  const places = leads
    .filter((l) => l.type !== 'speaker' && l.type !== 'digital' && l.type !== 'control')
    .sort((a, b) => Number(endsThere(b)) - Number(endsThere(a)) || b.metres - a.metres)
    .flatMap((lead) => {
      const fix = isolatorFix(rig, lead, bareSource(lead));
      return fix ? [{ lead, fix }] : [];
    });
  const [best, ...rest] = places;
  if (!best) return { cure: 'keep its leads short and side by side' };
  return {
    cure:
      `a hum isolator in the lead from ${name(best.lead.from.device)} ` +
      `to ${name(best.lead.to.device)} (${fixed(best.lead.metres)} m)`,
    fix: best.fix,
    others: rest.slice(0, OTHER_PLACES).map((p) => p.fix),
  };
}

/** The instrument whose bare pickup drives a lead, if one does. */
type BareSource = (lead: Lead) => string | undefined;

/**
 * A hum isolator in a lead. Where a bare pickup drives it, a buffer behind the instrument comes with
 * it; in the instrument's own lead there is none.
 */
export function isolatorFix(rig: Rig, lead: Lead, bareSource: string | undefined): Fix | undefined {
  const between = `between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`;
  const isolator = insertFix(
    ...([rig, 'hum-isolator', 'Hum isolator', lead.id] as const),
    `Put a hum isolator ${between}`,
  );
  if (bareSource === undefined) return isolator;
  const first = rig.leads.find((l) => l.from.device === bareSource && l.type === lead.type);
  if (!first || first === lead) return undefined;
  const words = `Put a buffer behind ${nameOf(rig, bareSource)} and a hum isolator ${between}`;
  const buffer = insertFix(rig, 'buffer', 'Buffer', first.id, words);
  return { words, edits: [...buffer.edits, ...isolator.edits] };
}

/** So many other places for an isolator are named. */
const OTHER_PLACES = 3;

/** Parts the grounds of a USB lead; the isolator's two sides fit whichever end is the host. */
function usbIsolatorFix(rig: Rig, lead: Lead): Fix {
  const box = freshId(
    'usb-isolator',
    rig.devices.map((d) => d.id),
  );
  const [first, second] = [0, 1].reduce<string[]>(
    (ids) => [...ids, freshId(`${box}-lead`, [...rig.leads.map((l) => l.id), ...ids])],
    [],
  );
  const host =
    jackOf(sure(rig.devices.find((d) => d.id === lead.from.device)), lead.from.jack)?.usb ===
    'host';
  return {
    words: `Put a USB isolator between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`,
    edits: [
      { edit: 'disconnect', lead: lead.id },
      { edit: 'addDevice', device: { id: box, kind: 'usb-isolator', name: 'USB isolator' } },
      {
        edit: 'connect',
        lead: { ...lead, id: first!, to: { device: box, jack: host ? 'up' : 'down' } },
      },
      {
        edit: 'connect',
        lead: {
          ...lead,
          id: second!,
          metres: 0.3,
          from: { device: box, jack: host ? 'down' : 'up' },
        },
      },
    ],
  };
}

/** Exchanging two outputs of a splitter, where the other one is isolated. */
function isolatedSibling(rig: Rig, device: Device, lead: Lead): Fix | undefined {
  const passes = passesOf(device, undefined, pluggedJacks(rig));
  const isolated = passes.find(
    (p) =>
      p.is === 'stage' &&
      !p.groundThrough &&
      p.to !== lead.from.jack &&
      kindOf(device.kind).jacks.some((j) => j.id === p.to && j.direction === 'out'),
  );
  if (
    isolated?.is !== 'stage' ||
    !passes.some((p) => p.is === 'stage' && p.to === lead.from.jack && p.from === isolated.from)
  )
    return undefined;
  if (rig.leads.some((l) => l.from.device === device.id && l.from.jack === isolated.to))
    return undefined;
  const { id, ...rest } = lead;
  return {
    words: `Use output ${isolated.to.toUpperCase()} of ${device.name}, which is isolated`,
    edits: [
      { edit: 'disconnect', lead: id },
      { edit: 'connect', lead: { ...rest, id, from: { device: device.id, jack: isolated.to } } },
    ],
  };
}

/** A loop between two boxes only, over their leads' shields: a send and its return, a left and a right. */
export const isPair = (l: HumLoop): boolean =>
  l.devices.length === 2 && l.ties.every((t) => t.kind === 'shield');

/** A loop of patch leads encloses too little to hum, up to this length each, in metres. */
export const PATCH_METRES = 1;

/**
 * Whether nobody would hear a loop: over shields alone, by patch leads within one board (or where
 * nothing is placed), or by two leads of like length to such a group and back, which run together: a
 * loop's send and return, a stereo pair.
 */
export function isHarmless(rig: Rig, loop: HumLoop): boolean {
  if (loop.ties.some((t) => t.kind !== 'shield')) return false;
  const leads = loop.ties.map((t) => sure(rig.leads.find((l) => l.id === t.lead)));
  const boardOf = (id: string) => rig.devices.find((d) => d.id === id)?.at?.board;
  const [patches, long] = [
    leads.filter((l) => l.metres <= PATCH_METRES),
    leads.filter((l) => l.metres > PATCH_METRES).map((l) => l.metres),
  ];
  if (patches.some((l) => boardOf(l.from.device) !== boardOf(l.to.device)) && !isPair(loop))
    return false;
  return long.length === 0 || (long.length === 2 && Math.max(...long) <= 1.25 * Math.min(...long));
}

/** Whether every lead of a loop is balanced: its shield carries the current beside the signal, not in it. */
const isBalanced = (loop: HumLoop): boolean =>
  loop.ties.every((t) => t.kind !== 'shield' || t.balanced);

/** Hum loops, worst where mains current can flow: through two protective earths or a shared supply return. */
export const groundRemarks: Remarker = ({ ctx, humLoops }) => {
  const name = (id: string) => ctx.device(id).name;
  // Loops through the same boxes are one matter for a person: the pairs of a loop's send and
  // return, left and right.
  const together = new Map<string, HumLoop[]>();
  const told = humLoops.filter((h) => !isHarmless(ctx.rig, h));
  for (const l of told.filter((h) => !isPair(h))) {
    const key = [...l.devices].sort().join('+');
    together.set(key, [...(together.get(key) ?? []), l]);
  }
  const remarks: Remark[] = [...together].map(([key, same]) => {
    const l = same.find((h) => h.fix) ?? entryAt(same, 0);
    const through = (kind: Tie['kind']) => same.some((h) => h.ties.some((t) => t.kind === kind));
    return {
      rule: 'hum-loop',
      severity:
        (through('earth') || through('supply')) && !same.every(isBalanced) ? 'caution' : 'advice',
      subjects: l.devices,
      about: key,
      what:
        `${same.length > 1 ? `${same.length} hum loops run` : 'A hum loop runs'} ` +
        `through ${l.devices.map(name).join(', ')}.`,
      why:
        (through('earth')
          ? 'Closed through protective earth, which must stay connected.'
          : through('supply')
            ? 'Closed through the shared return of a supply.'
            : 'Closed through the shields of its leads.') +
        ' ' +
        `Cheapest cure: ${l.cure}${same.length > 1 ? ', then the same for the others' : ''}.`,
      fix: l.fix,
      others: same.flatMap((h) => h.others ?? []),
    };
  });
  const pairs = told.filter(isPair);
  if (pairs.length) {
    const devices = [...new Set(pairs.flatMap((p) => p.devices))];
    remarks.push({
      rule: 'hum-pairs',
      severity: 'advice',
      subjects: devices,
      about: 'pairs',
      what:
        `${pairs.length} small ground ${pairs.length === 1 ? 'loop runs' : 'loops run'} ` +
        `between two devices each: ${pairs.map((p) => p.devices.map(name).join(' and ')).join('; ')}.`,
      why:
        'Two leads side by side between the same two boxes (a loop’s send and return, a ' +
        'stereo pair). Tie them together along their whole length, and they enclose nothing ' +
        'that could hum.',
    });
  }
  return remarks;
};
