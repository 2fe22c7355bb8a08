import { at } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { byKey, Joined } from '../graph';
import { type Budget, kindOf, settingWith } from '../kinds';
import type { Jack } from '../kinds/kind';
import { jackOf, leadsFrom, leadsInto } from '../rig/find';
import type { Device, End, Lead } from '../rig/schema';
import { allOf, dbuOfVolts, fixed } from '../units';
import { totalVolts } from '../signal';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

/**
 * What a host's blocks use of what it has. Figures are typical for each kind of block, or the
 * device's own where corrected.
 */
export interface HostUse {
  host: string;
  blocks: string[];
  used: Budget;
  has: Budget;
  loops: { id: string; label: string; sends: string | null; returns: string | null }[];
}

const figureOr = (device: Device, id: string, typical: number): number =>
  device.figures?.[id]?.value ?? typical;

/**
 * What a device costs inside a host: slots, and percent of its processing. A block's own figures
 * win over the kind's.
 */
export function blockCost(device: Device): { slots: number; percent: number } {
  const cost = kindOf(device.kind).block ?? { slots: 1, percent: 0 };
  return {
    slots: figureOr(device, 'slots', cost.slots),
    percent: figureOr(device, 'percent', cost.percent),
  };
}

/** What a host has: its kind's budget, or its own figures where corrected. */
export function hostBudget(device: Device): Budget {
  const has = kindOf(device.kind).hosts!;
  return {
    slots: figureOr(device, 'slots', has.slots),
    percent: figureOr(device, 'percent', has.percent),
    paths: figureOr(device, 'paths', has.paths),
  };
}

/**
 * What every host of the rig uses: slots, processing, paths, sends and returns. Bypassed blocks
 * keep their slot and their processing.
 */
export function hostUses(ctx: SoundContext): HostUse[] {
  const inside = byKey(ctx.rig.devices, (d) => d.host);
  return ctx.rig.devices
    .filter((d) => kindOf(d.kind).hosts)
    .map((host) => {
      const blocks = inside.get(host.id) ?? [];
      const own = [host, ...blocks].flatMap((d) => leadsFrom(ctx.rig, d.id));
      const links = [...new Set([...own, ...leadsInto(ctx.rig, host.id)])].filter(
        (l) => l.type === 'inside',
      );
      const costs = blocks.map(blockCost);
      const outer = (jack: string, side: 'from' | 'to') => {
        const [leads, far] =
          side === 'from'
            ? ([leadsFrom(ctx.rig, host.id), 'to'] as const)
            : ([leadsInto(ctx.rig, host.id), 'from'] as const);
        const lead = leads.find((l) => l.type !== 'inside' && l[side].jack === jack);
        return lead ? lead[far].device : null;
      };
      return {
        host: host.id,
        blocks: blocks.map((b) => b.id),
        has: hostBudget(host),
        used: {
          slots: costs.reduce((s, c) => s + c.slots, 0),
          percent: costs.reduce((s, c) => s + c.percent, 0),
          paths: pathsOf(host, links),
        },
        loops: (kindOf(host.kind).loops ?? []).map((l) => ({
          id: l.id,
          label: l.label,
          sends: outer(at(l.send, 0), 'from'),
          returns: outer(at(l.return, 0), 'to'),
        })),
      };
    });
}

/**
 * Ways through a host that do not touch one another inside: each is a path of its own. One that
 * leaves by a send and comes back by its return is still one, on both returns of a pair where it was
 * sent on one side and came back wide.
 */
function pathsOf(
  { id: host, kind }: Device,
  links: readonly {
    from: { device: string; jack: string };
    to: { device: string; jack: string };
  }[],
): number {
  const ways = new Joined<string>();
  const node = (end: { device: string; jack: string }) =>
    end.device === host ? `${host}/${end.jack}` : end.device;
  const used = new Set(links.flatMap((l) => [node(l.from), node(l.to)]));
  for (const l of links) ways.join(node(l.from), node(l.to));
  for (const n of used) {
    const back = n.replace('/toSend', '/fromReturn');
    if (back !== n && used.has(back)) ways.join(n, back);
  }
  for (const { id, pair } of kindOf(kind).jacks) {
    const [n, other] = [`${host}/${id}`, `${host}/${pair?.with}`];
    const isSent = used.has(n.replace('/fromReturn', '/toSend'));
    if (id.startsWith('fromReturn') && used.has(n) && !isSent && used.has(other))
      ways.join(n, other);
  }
  return new Set([...used].map((n) => ways.root(n))).size;
}

/** A side of a pair that should be silent is, when it lies this far under the other, in dB. */
const APART_DB = 60;

/**
 * Budgets that are over, sends and returns used twice, pairs that feed two devices, paths without a
 * block.
 */
export const hostRemarks: Remarker = ({ ctx, hosts }) => {
  const inside = ctx.rig.leads.filter((l) => l.type === 'inside');
  return hosts.flatMap((h) => [
    ...overBudget(ctx, h),
    ...kindOf(ctx.device(h.host).kind)
      .jacks.filter((j) => j.inside)
      .flatMap((jack) =>
        jack.faces?.is === 'send'
          ? [...sendTwice(ctx, h.host, jack, inside), ...pairConflict(ctx, h.host, jack)]
          : jack.faces?.is === 'return'
            ? returnTwice(ctx, h.host, jack, inside)
            : [],
      ),
    ...emptyPaths(ctx, h, inside),
  ]);
};

/** What a host is asked for above what it has, and what costs it most. */
function overBudget(ctx: SoundContext, { host, used, has, blocks }: HostUse): Remark[] {
  const over = (
    [
      ['slots', 'slots', ''],
      ['percent', 'processing', ' %'],
      ['paths', 'paths', ''],
    ] as const
  )
    .filter(([key]) => used[key] > has[key])
    .map(
      ([key, word, unit]) =>
        `${fixed(used[key], 0)}${unit} of ${fixed(has[key], 0)}${unit} ${word}`,
    );
  if (!over.length) return [];
  const leavers = blocks
    .map((id) => ctx.device(id))
    .sort((a, b) => blockCost(b).percent - blockCost(a).percent)
    .slice(0, 3)
    .map((d) => `${d.name} (${fixed(blockCost(d).percent, 0)} %)`);
  return [
    {
      rule: 'host-budget',
      severity: 'fault',
      subjects: [host],
      what: `${ctx.device(host).name} is asked for more than it has: ${over.join(', ')}.`,
      why:
        `The costliest inside: ${leavers.join(', ')}. ` +
        'Proposals, “inside or outside”, works out what should leave.',
    },
  ];
}

/** A send that two things feed in one sound; the two sides of one stereo device are one thing. */
function sendTwice(ctx: SoundContext, host: string, jack: Jack, inside: Lead[]): Remark[] {
  const feeds = inside.filter(
    (l) =>
      l.to.device === host &&
      l.to.jack === jack.id &&
      ctx.at(l.from.device, l.from.jack).flows.length > 0,
  );
  const users = feeds.filter(
    (l, i) =>
      !feeds
        .slice(0, i)
        .some((o) => isPair(ctx, o.from, l.from) || o.from.device === l.from.device),
  );
  if (users.length < 2) return [];
  return [
    {
      rule: 'send-twice',
      severity: 'caution',
      subjects: [host, ...users.map((l) => l.from.device)],
      about: `${host}+${jack.id}`,
      what:
        `${jack.label.replace('to ', '').replace(/^s/, 'S')} of ${ctx.device(host).name} is fed ` +
        `by ${allOf(users.map((l) => ctx.device(l.from.device).name))}.`,
      why: 'A send serves one thing in a sound; two feeds mix, and what hangs on it hears both.',
      ...fixes(users.map((l) => off(ctx, l, l.from))),
    },
  ];
}

/** A return that two things use in one sound. */
function returnTwice(ctx: SoundContext, host: string, jack: Jack, inside: Lead[]): Remark[] {
  const takers = inside.filter((l) => l.from.device === host && l.from.jack === jack.id);
  const users = takers.filter(
    (l, i) =>
      !takers.slice(0, i).some((o) => isPair(ctx, o.to, l.to) || o.to.device === l.to.device),
  );
  if (users.length < 2) return [];
  return [
    {
      rule: 'return-twice',
      severity: 'caution',
      subjects: [host, ...users.map((l) => l.to.device)],
      about: `${host}+${jack.id}`,
      what:
        `${jack.label.replace('from ', '').replace(/^r/, 'R')} of ${ctx.device(host).name} is used ` +
        `by ${allOf(users.map((l) => ctx.device(l.to.device).name))}.`,
      why: 'A return serves one thing in a sound.',
      ...fixes(users.map((l) => off(ctx, l, l.to))),
    },
  ];
}

/** Takes one user of a send or a return off it. */
const off = (ctx: SoundContext, lead: Lead, { device }: End): Fix => ({
  words: `Take ${ctx.device(device).name} off it`,
  edits: [{ edit: 'disconnect', lead: lead.id }],
});

const isPair = (ctx: SoundContext, a: End, b: End): boolean =>
  a.device === b.device &&
  kindOf(ctx.device(a.device).kind).jacks.find((j) => j.id === a.jack)?.pair?.with === b.jack;

/** Paths from an input of a host to an output of it that hold no block, though signal comes in. */
function emptyPaths(ctx: SoundContext, { host, blocks }: HostUse, inside: Lead[]): Remark[] {
  if (!blocks.length) return [];
  // "from return 3", "to out left"
  const label = ({ jack }: End) => jackOf(ctx.device(host), jack)?.label ?? jack;
  return inside
    .filter(
      (l) =>
        l.from.device === host && l.to.device === host && ctx.at(host, l.from.jack).flows.length,
    )
    .map((l) => ({
      rule: 'empty-path',
      severity: 'advice',
      subjects: [host],
      about: `${host}+${l.from.jack}+${l.to.jack}`,
      what: `A path of ${ctx.device(host).name} holds no block: ${label(l.from)} ${label(l.to)}.`,
      why:
        'Many modelers want at least one block on a path, a level or an equaliser, before it ' +
        'carries signal.',
    }));
}

/** Both sends of a stereo pair feed different devices, and one stereo signal reaches both of them. */
function pairConflict(ctx: SoundContext, host: string, { id: left, pair }: Jack): Remark[] {
  if (pair?.side !== 'left') return [];
  const remarks: Remark[] = [];
  const right = pair.with;
  const points = kindOf(ctx.device(host).kind).jacks;
  const outer = (inner: string) => {
    const faced = points.find((j) => j.id === inner)?.faces?.jack;
    return leadsFrom(ctx.rig, host).find((l) => l.type !== 'inside' && l.from.jack === faced)?.to
      .device;
  };
  const [a, b] = [outer(left), outer(right)];
  if (!a || !b || a === b) return [];
  for (const l of leadsInto(ctx.rig, host)) {
    if (l.type !== 'inside' || l.to.jack !== left) continue;
    const other = kindOf(ctx.device(l.from.device).kind).jacks.find((j) => j.id === l.from.jack)
      ?.pair?.with;
    const twin =
      other &&
      leadsFrom(ctx.rig, l.from.device).find(
        (x) =>
          x.type === 'inside' &&
          x.from.jack === other &&
          x.to.device === host &&
          x.to.jack === right,
      );
    if (!twin) continue;
    const level = (end: { device: string; jack: string }) =>
      dbuOfVolts(totalVolts(ctx.at(end.device, end.jack).flows, 1));
    const [dl, dr] = [level(l.from), level(twin.from)];
    if (!Number.isFinite(dl) || !Number.isFinite(dr) || Math.abs(dl - dr) > APART_DB) continue;
    const block = ctx.device(l.from.device);
    const canPan = settingWith(kindOf(block.kind), 'pan') !== undefined;
    // The side that something else feeds as well is the one to keep free.
    const shared = leadsInto(ctx.rig, host).some(
      (x) => x.type === 'inside' && x.to.jack === left && x.from.device !== block.id,
    );
    remarks.push({
      rule: 'pair-conflict',
      severity: 'fault',
      subjects: [host, block.id, a, b],
      about: `${host}+${left}+${block.id}`,
      what:
        `${block.name} feeds both sends of a pair, and they go to different ` +
        `devices: ${ctx.device(a).name} and ${ctx.device(b).name}.`,
      why:
        `${ctx.device(a).name} and ${ctx.device(b).name} get it at ${fixed(dl)} ` +
        `and ${fixed(dr)} dBu. Pan it hard to one side, so that the other send is free.`,
      fix: canPan
        ? {
            words: `Pan ${block.name} hard ${shared ? 'right' : 'left'}`,
            edits: [
              { edit: 'setSetting', device: block.id, setting: 'pan', value: shared ? 10 : -10 },
            ],
          }
        : undefined,
    });
  }
  return remarks;
}
