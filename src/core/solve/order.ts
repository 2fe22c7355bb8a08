import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import { arrivingFigures } from '../signal/destinations';
import { soundContext } from '../signal/sound-context';
import { type Remark, type Severity } from '../findings/finding';
import { isEngaged, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { FixTrial } from '../report';
import { applyEdit, applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import { deviceOf, jackOf, leadFrom, nameOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { arrangementCost, cheapestArrangement, type Prices } from '../optimum/arrange';
import {
  curedBetween,
  editsFor,
  fewestMoves,
  fresh,
  harmless,
  movedBy,
  orderRemarksOf,
  type Stays,
} from './arranged';
import { type Chain, chainIn } from './chain';
import { type Progress, silently } from './step';

/** What an arrangement costs for each order rule that it breaks, by how much the rule matters. */
const WEIGHT: Record<Severity, number> = { danger: 1000, fault: 100, caution: 10, advice: 3 };
/** Changing what stands is a little dearer than leaving it, so that nothing moves without a reason. */
const INERTIA = { pair: 0.02, segment: 0.05 };
/** A pair that no sound engages together counts half. */
const APART = 0.5;

const priceOf = (remarks: readonly Remark[]): number =>
  remarks.reduce((s, r) => s + WEIGHT[r.severity], 0);

/** What changes at one destination from one arrangement to another. */
export interface FigureChange {
  destination: string;
  levelDb: number | null;
  thdPercent: number | null;
  signalToNoiseDb: number | null;
}

/** One move that is proposed, with its reasons; and what it would cost to leave the device where it is. */
export interface OrderMove {
  device: string;
  words: string;
  reasons: string[];
  /**
   * The price of leaving it: in points of broken rules, which rules those are, and what is heard
   * differently.
   */
  ifLeft: { points: number; breaks: string[]; figures: FigureChange[] };
}

export interface OrderProposal {
  /** Devices in the proposed order, fixed ones included. */
  order: string[];
  now: string[];
  points: number;
  pointsNow: number;
  moves: OrderMove[];
  /** Devices that the rules alone would move, and what that would break. */
  stays: Stays[];
  edits: Edit[];
  /** No order breaks rules of less weight under these schools and pins, proven. */
  exact: boolean;
  cured: string[];
  figures: FigureChange[];
}

/**
 * Finds the best order of a sound's main chain under the schools and pins of the rig. The order
 * rules themselves judge: each device is put alone into each segment, and each pair in both orders,
 * and what the rules say of that is its price; the cheapest arrangement is then found exactly.
 * Devices on other branches, in loops of switchers, and fixed ones keep their place.
 */
export async function proposeOrder(
  rig: Rig,
  sound: Sound,
  progress: Progress = silently,
): Promise<Outcome<OrderProposal>> {
  const chain = chainIn(rig, sound);
  const movable = chain?.segments.flatMap((s) => s.devices) ?? [];
  if (!chain || movable.length < 2)
    return refused(
      'There are fewer than two devices that could change places. Take out a pin, or ' +
        'choose a sound with a longer way.',
    );
  const prices = await pricesOf(rig, sound, chain, movable, progress);
  const now = chain.segments.map((s) => s.devices.map((d) => movable.indexOf(d)));
  await progress(0.85, 'Arranging');
  const best = cheapestArrangement(prices, now);
  await progress(0.86, 'Trying the moves on a copy');
  const { stays, reasons, ...arranged } = harmlessly(rig, chain, prices, movable, now);
  const cured = curedBetween(rig, arranged.rig);
  // Nobody moves a device for what is told in no sound.
  const isWorth = cured.length > 0;
  const after = isWorth ? arranged.rig : rig;
  const costNow = arrangementCost(prices, now);
  const cost = isWorth
    ? arrangementCost(
        prices,
        arranged.segments.map((s) => s.map((d) => movable.indexOf(d))),
      )
    : costNow;
  const edits = isWorth ? arranged.edits : [];
  const moved = isWorth ? movedBy(arranged) : [];
  const moves: OrderMove[] = [];
  for (const [n, device] of moved.entries()) {
    await progress(
      0.9 + (0.09 * n) / moved.length,
      `What it costs to leave ${nameOf(rig, device)}`,
    );
    moves.push({
      device,
      words: placeWords(after, device),
      reasons: reasons.get(device) ?? [],
      ifLeft: leftBehind(rig, after, sound, device, prices, movable, now, best.cost, chain),
    });
  }
  return done({
    order: orderOf(after, sound),
    now: orderOf(rig, sound),
    points: points(cost),
    pointsNow: points(costNow),
    moves,
    stays,
    edits,
    exact: best.exact && cost <= best.cost + 1e-6,
    cured: [...new Set(cured.map((r) => r.what))],
    figures: figureChanges(rig, after, sound),
  });
}

/** So often is another place looked for, for those whose cheapest place would do harm. */
const TRIES = 4;

/**
 * The cheapest arrangement of which every move was tried and does no harm. Who would do harm where the
 * rules want it is offered the next place: the rules know what sounds right, not what each jack can
 * drive, so that the cheapest place may be one that a copy of the rig shows to be wrong.
 */
function harmlessly(
  rig: Rig,
  chain: Chain,
  prices: Prices,
  movable: readonly string[],
  now: number[][],
): ReturnType<typeof harmless> {
  const trial = new FixTrial(rig);
  const allowed = prices.allowed.map((row) => [...row]);
  const found: ReturnType<typeof harmless>[] = [];
  for (let n = 0; n < TRIES; n++) {
    const { segments } = cheapestArrangement({ ...prices, allowed }, now);
    const wanted = segments.map((s) => s.map((i) => entryAt(movable, i)));
    const one = harmless(rig, chain, fewestMoves(rig, chain, wanted), trial);
    found.push(one);
    const barred = one.stays.flatMap(({ device }) => {
      const [row, me] = [entryAt(allowed, movable.indexOf(device)), movable.indexOf(device)];
      const [from, to] = [now, segments].map((rows) => rows.findIndex((s) => s.includes(me)));
      return to !== undefined && to !== from && row[to] ? [[row, to] as const] : [];
    });
    if (!barred.length) break;
    for (const [row, to] of barred) row[to] = false;
  }
  // The first that cures most: a later one moves elsewhere what the earlier one would have moved.
  const worth = (one: ReturnType<typeof harmless>) => curedBetween(rig, one.rig).length;
  return found.reduce((a, b) => (worth(b) > worth(a) ? b : a));
}

/** Points as shown: what two of a pair take away is counted for each of them, and none is under nothing. */
const points = (cost: number): number => Math.max(0, Math.round(cost * 10) / 10);
const orderOf = (rig: Rig, sound: Sound): string[] => {
  const chain = chainIn(rig, sound);
  return chain
    ? chain.segments
        .flatMap((s, i) => [entryAt(chain.fixed, i), ...s.devices])
        .concat(chain.fixed.slice(chain.segments.length))
    : [];
};

/** A chain cleared of what may move, into which devices are put again to hear what the rules say. */
interface Cleared {
  rig: Rig;
  chain: Chain;
  sound: Sound;
  /** The rig without the devices that may move. */
  bare: Rig;
}

/**
 * Whether a pedal may stand in a segment: not in a speaker line, where only loads and attenuators
 * belong, and not behind a microphone, whose level and balanced line are no pedal's.
 */
function isForPedals(rig: Rig, { after }: Chain['segments'][number]): boolean {
  const device = sure(deviceOf(rig, after.device));
  const signal = jackOf(device, after.jack)?.signal;
  return signal !== 'speaker' && signal !== 'air' && kindOf(device.kind).job !== 'microphone';
}

/** Asks the rules what each device costs in each segment, and each pair in each order. */
async function pricesOf(
  rig: Rig,
  sound: Sound,
  chain: Chain,
  movable: readonly string[],
  progress: Progress,
): Promise<Prices> {
  const segments = chain.segments.map((_, s) => s);
  const allowed = movable.map((d) =>
    chain.segments.map((s) => s.inside === sure(deviceOf(rig, d)).host && isForPedals(rig, s)),
  );
  const bare = applyEdits(
    rig,
    movable.map((device) => ({ edit: 'removeDevice', device })),
  );
  if (!bare.ok) throw new Error(entryAt(bare.problems, 0).what);
  const cleared: Cleared = { rig, chain, sound, bare: bare.value.rig };
  const total = movable.length * (segments.length + movable.length - 1);
  let asked = 0;
  const tell = () =>
    progress((0.85 * asked++) / total, 'Asking the order rules about each place and pair');
  const alone: number[][] = [];
  for (const [i, d] of movable.entries()) {
    const at = chain.segments.findIndex((s) => s.devices.includes(d));
    const row: number[] = [];
    for (const s of segments) {
      await tell();
      const stays = s === at ? 0 : INERTIA.segment;
      row.push(entryAt(allowed, i)[s] ? askPrice(cleared, [d], s) + stays : Infinity);
    }
    alone.push(row);
  }
  const before: number[][] = movable.map(() => movable.map(() => 0));
  for (const [i, first] of movable.entries())
    for (const [j, second] of movable.entries()) {
      if (i === j) continue;
      await tell();
      const s = segments.find((k) => entryAt(allowed, i)[k] && entryAt(allowed, j)[k]);
      const apart = (k: number) => entryAt(entryAt(alone, i), k) + entryAt(entryAt(alone, j), k);
      const pair = s === undefined ? 0 : askPrice(cleared, [first, second], s) - apart(s);
      entryAt(before, i)[j] = pair + (i > j ? INERTIA.pair : 0);
    }
  return { alone, before, allowed };
}

/**
 * The price of a few devices, in order, put into one segment of the chain that was cleared of the
 * others.
 */
function askPrice(cleared: Cleared, devices: readonly string[], segment: number): number {
  const { rig, chain } = cleared;
  const { weight, sound } = soundFor(cleared, devices);
  let at = cleared.bare;
  let after = entryAt(chain.segments, segment).after;
  for (const d of devices) {
    const lead = leadFrom(at, after.device, after.jack);
    const device = sure(deviceOf(rig, d));
    if (!lead) return 0;
    const put = applyEdit(at, {
      edit: 'insertInLead',
      lead: lead.id,
      device,
      newLeads: fresh(at),
    });
    if (!put.ok) return 0;
    at = put.value.rig;
    after = { device: d, jack: kindOf(device.kind).through!.out };
  }
  const told = orderRemarksOf({ ...at, sounds: [sound] }, sound);
  return weight * priceOf(told.filter((r) => r.subjects.some((x) => devices.includes(x))));
}

/**
 * The sound to ask in: one in which the devices play together, else this one with less weight; they
 * are switched on in it, but for a tuner, which would mute.
 */
function soundFor(
  { rig, sound }: Cleared,
  devices: readonly string[],
): { weight: number; sound: Sound } {
  const kind = (d: string) => kindOf(sure(deviceOf(rig, d)).kind);
  const together = rig.sounds.find((s) =>
    devices.every((d) => isEngaged(kind(d), sure(deviceOf(rig, d)), stateIn(s, d))),
  );
  const base = together ?? sound;
  const states = { ...base.states };
  for (const d of devices) states[d] = { ...states[d], engaged: kind(d).job !== 'tuner' };
  return { weight: together ? 1 : APART, sound: { ...base, states } };
}

function placeWords(rig: Rig, device: string): string {
  const into = rig.leads.find(
    (l) =>
      l.to.device === device && l.to.jack === kindOf(sure(deviceOf(rig, device)).kind).through!.in,
  );
  const outOf = rig.leads.find(
    (l) =>
      l.from.device === device &&
      l.from.jack === kindOf(sure(deviceOf(rig, device)).kind).through!.out,
  );
  return (
    `${nameOf(rig, device)} between ${into ? nameOf(rig, into.from.device) : 'nothing'} ` +
    `and ${outOf ? nameOf(rig, outOf.to.device) : 'nothing'}`
  );
}

/** The best order in which one device stays in its segment, behind and before the same others as now. */
function leftBehind(
  rig: Rig,
  after: Rig,
  sound: Sound,
  device: string,
  prices: Prices,
  movable: readonly string[],
  now: number[][],
  best: number,
  chain: Chain,
): OrderMove['ifLeft'] {
  const me = movable.indexOf(device);
  const segment = now.findIndex((s) => s.includes(me));
  // Whoever stood before it must still, and whoever stood behind it too: those orders are made dear.
  const DEAR = 1e6;
  const rank = now.flat();
  const held: Prices = {
    allowed: prices.allowed.map((row, t) => (t === me ? row.map((_, s) => s === segment) : row)),
    alone: prices.alone,
    before: prices.before.map((row, a) =>
      row.map((price, b) =>
        (a === me && rank.indexOf(b) < rank.indexOf(a)) ||
        (b === me && rank.indexOf(b) < rank.indexOf(a))
          ? price + DEAR
          : price,
      ),
    ),
  };
  const other = cheapestArrangement(held, now);
  const left = editsFor(
    rig,
    chain,
    other.segments.map((s) => s.map((i) => entryAt(movable, i))),
  ).rig;
  const key = (r: Remark) => `${r.rule} ${r.subjects.join()}`;
  const kept = new Set(after.sounds.flatMap((s) => orderRemarksOf(after, s).map(key)));
  const breaks = left.sounds.flatMap((s) =>
    orderRemarksOf(left, s).filter((r) => !kept.has(key(r))),
  );
  return {
    points: points((other.cost % DEAR) - best),
    breaks: [...new Set(breaks.map((r) => r.what))],
    figures: figureChanges(after, left, sound),
  };
}

/** What is heard differently at each destination from one rig to another, playing normally. */
export function figureChanges(before: Rig, after: Rig, sound: Sound): FigureChange[] {
  const [a, b] = [before, after].map((r) =>
    arrivingFigures(soundContext(r, r.sounds.find((s) => s.id === sound.id) ?? sound)),
  );
  const diff = (x: number | null | undefined, y: number | null | undefined) =>
    x === null || x === undefined || y === null || y === undefined ? null : y - x;
  return a!.flatMap((d) => {
    const o = b!.find((x) => x.device === d.device);
    return o
      ? [
          {
            destination: d.device,
            levelDb: diff(d.levelDbu?.normal, o.levelDbu?.normal),
            thdPercent: diff(d.thdPercent?.normal, o.thdPercent?.normal),
            signalToNoiseDb: diff(d.signalToNoiseDb, o.signalToNoiseDb),
          },
        ]
      : [];
  });
}
