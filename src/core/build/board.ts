import { at as entryAt } from '../outcome';
import type { Item, Model, XY } from './board-model';
import { crossingsOf, type Path, pathOf, standing } from './board-ways';
import { PLUG_CLEARANCE, PLUG_WIDTH } from './footprint';

/**
 * Distances in mm: between switch centres, from wireless and supplies to high gain, what counts as
 * in front of a switch to each side.
 */
export const SWITCH_GAP = 60;
export const RADIO_GAP = 100;
const FOOT_HALF = 40;
/** Half the width of a plug. */
export const PLUG_ROOM = PLUG_WIDTH / 2;
const LONGEST = Math.max(...Object.values(PLUG_CLEARANCE));

/** What is wrong with a place: which item, with which other one (−1 for the board), and by how many mm. */
export interface Clash {
  what:
    'overlap' | 'outside' | 'plug' | 'plugs' | 'too-high' | 'half' | 'reach' | 'switches' | 'radio';
  a: number;
  b: number;
  mm: number;
  jack?: string;
}

/**
 * Where everything stands, judged: mm of lead, how often leads cross, what is wrong, and all of it
 * as one figure (the lower the better).
 */
export interface Judged {
  mm: number;
  crossings: number;
  clashes: Clash[];
  paths: Path[];
  cost: number;
}

/**
 * What one of each costs, in mm of lead. Bodies or plugs that hit something outweigh everything;
 * the rest is a judgement, told in docs/formulas.md.
 */
export const LAYOUT_PRICE = {
  hit: 100_000,
  half: 2000,
  reach: 600,
  switches: 600,
  radio: 300,
  crossing: 30,
  foot: 0.15,
  heavy: 0.05,
};

/** What cannot be built so. */
export const HITS: ReadonlySet<Clash['what']> = new Set<Clash['what']>([
  'overlap',
  'outside',
  'plug',
  'plugs',
  'too-high',
]);

/** Judges places. `at` holds the rear left corner of each item, in mm. */
export function judge(model: Model, at: readonly XY[]): Judged {
  const clashes = clashesOf(model, at);
  const paths = model.runs.map((r) => pathOf(model, at, r));
  const mm = paths.reduce((s, p) => s + p.mm, 0);
  const crossings = crossingsOf(paths);
  let cost = mm + crossings * LAYOUT_PRICE.crossing + softCost(model, at);
  for (const c of clashes)
    cost += HITS.has(c.what)
      ? LAYOUT_PRICE.hit + 10 * c.mm
      : c.what === 'half'
        ? LAYOUT_PRICE.half
        : c.what === 'reach'
          ? LAYOUT_PRICE.reach
          : c.what === 'switches'
            ? LAYOUT_PRICE.switches
            : LAYOUT_PRICE.radio;
  return { mm, crossings, clashes, paths, cost };
}

/** What is pressed most near the foot, what is heavy near the middle. */
function softCost(model: Model, at: readonly XY[]): number {
  const { board } = model;
  const foot = board.width * (board.foot === 'left' ? 0.35 : 0.65);
  let cost = 0;
  model.items.forEach((item, i) => {
    if (item.pressed)
      cost +=
        item.pressed *
        LAYOUT_PRICE.foot *
        (Math.abs(entryAt(at, i).x + item.width / 2 - foot) +
          (board.depth - entryAt(at, i).y - item.depth));
    cost +=
      (item.grams / 1000) *
      LAYOUT_PRICE.heavy *
      Math.abs(entryAt(at, i).x + item.width / 2 - board.width / 2);
  });
  return cost;
}

/**
 * A bound that no layout's cost goes below: leads as the crow walks, and the pull of foot and
 * weight. Cheap.
 */
export function costBound(model: Model, at: readonly XY[]): number {
  let mm = 0;
  for (const r of model.runs) {
    const a = entryAt(entryAt(model.items, r.a).sockets, r.aSocket);
    const [ax, ay] = [entryAt(at, r.a).x + a.tipX, entryAt(at, r.a).y + a.tipY];
    if (r.b < 0) {
      mm += Math.min(Math.abs(ay), Math.abs(ax), Math.abs(model.board.width - ax));
      continue;
    }
    const b = entryAt(entryAt(model.items, r.b).sockets, r.bSocket);
    mm += Math.abs(ax - entryAt(at, r.b).x - b.tipX) + Math.abs(ay - entryAt(at, r.b).y - b.tipY);
  }
  return mm + softCost(model, at);
}

function clashesOf(model: Model, at: readonly XY[]): Clash[] {
  const { items, board } = model;
  const out: Clash[] = [];
  const levels = items.map((item, i) => standing(model, item, entryAt(at, i)));
  const zones: (ReturnType<typeof zonesOf> | undefined)[] = [];
  for (let i = 0; i < items.length; i++) {
    const [a, p] = [entryAt(items, i), entryAt(at, i)];
    const over = Math.max(-p.x, -p.y, p.x + a.width - board.width, p.y + a.depth - board.depth);
    if (over > 0.5) out.push({ what: 'outside', a: i, b: -1, mm: over });
    if (a.under && a.height > (board.under ?? 0))
      out.push({ what: 'too-high', a: i, b: -1, mm: a.height - (board.under ?? 0) });
    if (entryAt(levels, i).half) out.push({ what: 'half', a: i, b: -1, mm: 0 });
    for (let j = i + 1; j < items.length; j++) {
      const [b, q] = [entryAt(items, j), entryAt(at, j)];
      if (a.under === b.under) {
        const x = Math.min(p.x + a.width, q.x + b.width) - Math.max(p.x, q.x);
        const y = Math.min(p.y + a.depth, q.y + b.depth) - Math.max(p.y, q.y);
        if (x > 0.5 && y > 0.5) out.push({ what: 'overlap', a: i, b: j, mm: Math.min(x, y) });
        else if (
          x > -2 * LONGEST &&
          y > -2 * LONGEST &&
          entryAt(levels, i).up === entryAt(levels, j).up
        ) {
          const clash = plugClash(i, (zones[i] ??= zonesOf(a, p)), j, (zones[j] ??= zonesOf(b, q)));
          if (clash) out.push(clash);
        }
      }
      if ((a.radiates && b.sensitive) || (b.radiates && a.sensitive)) {
        const dx = Math.max(0, Math.max(p.x, q.x) - Math.min(p.x + a.width, q.x + b.width));
        const dy = Math.max(0, Math.max(p.y, q.y) - Math.min(p.y + a.depth, q.y + b.depth));
        const gap = Math.hypot(dx, dy);
        if (gap < RADIO_GAP)
          out.push({
            what: 'radio',
            a: a.radiates ? i : j,
            b: a.radiates ? j : i,
            mm: RADIO_GAP - gap,
          });
      }
      if (a.pressed && b.pressed) {
        let near = Infinity;
        for (const s of a.switches)
          for (const t of b.switches)
            near = Math.min(near, Math.hypot(p.x + s.x - q.x - t.x, p.y + s.y - q.y - t.y));
        if (near < SWITCH_GAP - 0.5)
          out.push({ what: 'switches', a: i, b: j, mm: SWITCH_GAP - near });
      }
    }
    if (a.pressed && a.under) out.push({ what: 'reach', a: i, b: -1, mm: 0 });
    else if (a.pressed) {
      // In the front row, or raised above what stands in front.
      const behind = items.findIndex(
        (b, j) =>
          j !== i &&
          !b.under &&
          entryAt(levels, j).up >= entryAt(levels, i).up &&
          entryAt(at, j).y >= p.y + a.depth - 5 &&
          a.switches.some(
            (s) =>
              p.x + s.x + FOOT_HALF > entryAt(at, j).x &&
              p.x + s.x - FOOT_HALF < entryAt(at, j).x + b.width,
          ),
      );
      if (behind >= 0) out.push({ what: 'reach', a: i, b: behind, mm: 0 });
    }
  }
  return out;
}

/** The room that a plug takes, and a body: edges in mm. */
interface Zone {
  left: number;
  right: number;
  top: number;
  bottom: number;
  jack: string;
}

const deep = (a: Zone, b: Zone): number =>
  Math.min(
    Math.min(a.right, b.right) - Math.max(a.left, b.left),
    Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top),
  );

/** The room of an item's body, and of the plugs in it. */
function zonesOf(item: Item, at: XY): { body: Zone; plugs: Zone[] } {
  return {
    body: { left: at.x, right: at.x + item.width, top: at.y, bottom: at.y + item.depth, jack: '' },
    plugs: item.sockets.map((s) => {
      const [x, y] = [at.x + s.x, at.y + s.y];
      const [tx, ty] = [at.x + s.tipX, at.y + s.tipY];
      return {
        left: Math.min(x, tx) - (s.nx ? 0 : PLUG_ROOM),
        right: Math.max(x, tx) + (s.nx ? 0 : PLUG_ROOM),
        top: Math.min(y, ty) - (s.ny ? 0 : PLUG_ROOM),
        bottom: Math.max(y, ty) + (s.ny ? 0 : PLUG_ROOM),
        jack: s.jack,
      };
    }),
  };
}

/**
 * Whether plugs of one item hit the body of another, or its plugs: one for a pair, the worst, for
 * what cures it cures the others.
 */
function plugClash(
  i: number,
  a: ReturnType<typeof zonesOf>,
  j: number,
  b: ReturnType<typeof zonesOf>,
): Clash | undefined {
  let worst: Clash | undefined;
  for (const z of a.plugs) {
    const mm = deep(z, b.body);
    if (mm > 0.5 && (!worst || mm > worst.mm))
      worst = { what: 'plug', a: i, b: j, mm, jack: z.jack };
  }
  for (const z of b.plugs) {
    const mm = deep(z, a.body);
    if (mm > 0.5 && (!worst || mm > worst.mm))
      worst = { what: 'plug', a: j, b: i, mm, jack: z.jack };
  }
  if (worst) return worst;
  for (const z of a.plugs)
    for (const y of b.plugs) {
      const mm = deep(z, y);
      if (mm > 0.5 && (!worst || mm > worst.mm))
        worst = { what: 'plugs', a: i, b: j, mm, jack: z.jack };
    }
  return worst;
}
