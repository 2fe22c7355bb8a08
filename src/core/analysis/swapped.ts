import { sure } from '../outcome';
import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { copyWith } from '../rig/copies';
import { byId, endWords, leadOf } from '../rig/find';
import type { Edit } from '../rig/edits';
import { CONTROL_LEADS, type Lead, type Rig, type Sound } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import { routeTo, stationsOf, placeStations } from '../walk';
import type { Remarker } from './evidence';

/**
 * How well a hook-up works: circles first, then destinations that are reached, then passes that
 * signal meets on its way, then devices that it meets first by a return instead of their input.
 */
interface Worth {
  circles: number;
  reached: number;
  passes: number;
  astray: number;
}

function worthOf(rig: Rig, sound: Sound): Worth {
  const { stations, steps } = stationsOf(rig, sound);
  placeStations(stations, steps);
  const destinations = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.id);
  const routes = destinations.map((id) => routeTo(stations, steps, (s) => s.device === id));
  const used = routes.filter((r) => r.some((s) => s.source));
  const first = new Map<string, string[]>();
  for (const s of [...new Set(used.flat())].sort((a, b) => a.column - b.column))
    if (!first.has(s.device)) first.set(s.device, s.ins);
  const astray = [...first].filter(([id, ins]) => {
    const kind = kindOf(sure(rig.devices.find((d) => d.id === id)).kind);
    return kind.loops?.some((l) => l.return.some((j) => ins.includes(j))) === true;
  }).length;
  return {
    astray,
    circles: steps.filter((s) => s.back && !s.open).length,
    reached: used.length,
    passes: new Set(used.flat().map((s) => s.id)).size,
  };
}

const isBetter = (a: Worth, b: Worth): boolean =>
  a.circles < b.circles &&
  a.reached >= b.reached &&
  (a.reached > b.reached || a.passes >= b.passes);

/** More exchanges than this are not tried: single ones, two one after the other, and four plugs round. */
const MOST_TRIES = 120;
const MOST_DOUBLE_TRIES = 400;
const MOST_ROUND_TRIES = 420;

/** Two leads whose ends at one device may be exchanged. */
interface Exchange {
  device: string;
  /** Whether they leave it or enter it. */
  side: 'from' | 'to';
  leads: [string, string];
}

/** An exchange of plugs, what it leads to, and the leads whose plugs it moves. */
interface Cure {
  worth: Worth;
  device: string;
  edits: Edit[];
}

/**
 * The classic error around a loop: plugs in each other's jack. Where signal runs in a circle, every
 * exchange of two leads at a device with a loop is tried, and the one that cures it is named; where
 * none puts everything right, two exchanges at one device, one after the other: three plugs that went
 * round, or two pairs; where none of those does, four plugs that went round.
 */
export const swappedRemarks: Remarker = ({ ctx, cycles }) => {
  if (!cycles.length) return [];
  const { rig, sound } = ctx;
  const now = worthOf(rig, sound);
  const circling = new Set(cycles.flatMap((c) => c.devices));
  const exchanges = exchangesAt(ctx, circling).slice(0, MOST_TRIES);
  const singles = exchanges.flatMap((x) => tried(rig, sound, now, [x]));
  const [single] = singles.toSorted(likelier);
  const isRight = (c: Cure | undefined) => c && c.worth.circles === 0 && c.worth.astray === 0;
  if (single && isRight(single)) return [remarkOf(ctx, single)];
  const pairs = exchanges.flatMap((x, i) =>
    exchanges
      .slice(i + 1)
      .filter((y) => y.device === x.device)
      .flatMap((y) => (sharesLead(x, y) ? [[x, y] as const, [y, x] as const] : [[x, y] as const])),
  );
  const [double] = pairs
    .slice(0, MOST_DOUBLE_TRIES)
    .flatMap((two) => tried(rig, sound, now, two))
    .toSorted(likelier);
  if (double && isRight(double)) return [remarkOf(ctx, double)];
  const [round] = fourRound(exchanges)
    .slice(0, MOST_ROUND_TRIES)
    .flatMap((three) => tried(rig, sound, now, three))
    .toSorted(likelier);
  const best = isRight(round) ? round : single;
  return best ? [remarkOf(ctx, best)] : [];
};

/** Four plugs at one side of a device, each in the jack of the next: as three exchanges one after the other. */
function fourRound(exchanges: readonly Exchange[]): Exchange[][] {
  const groups = new Map<string, Set<string>>();
  for (const { device, side, leads } of exchanges) {
    const key = `${side} ${device}`;
    const group = groups.get(key) ?? new Set();
    for (const l of leads) group.add(l);
    groups.set(key, group);
  }
  return [...groups].flatMap(([key, group]) => {
    const [side, device] = [
      key.startsWith('from') ? 'from' : 'to',
      key.slice(key.indexOf(' ') + 1),
    ] as const;
    const all = [...group].sort();
    return all.flatMap((a, i) => {
      const others = all.slice(i + 1);
      return others.flatMap((b) =>
        others.flatMap((c) =>
          others.flatMap((d) =>
            new Set([b, c, d]).size < 3
              ? []
              : [[b, c, d].map((other): Exchange => ({ device, side, leads: [a, other] }))],
          ),
        ),
      );
    });
  });
}

const sharesLead = (x: Exchange, y: Exchange): boolean => x.leads.some((l) => y.leads.includes(l));

/** Of several exchanges that would cure it, the likeliest: no circle left, and each box met first by its input. */
const likelier = ({ worth: a }: Cure, { worth: b }: Cure): number =>
  a.circles - b.circles || a.astray - b.astray || b.reached - a.reached || b.passes - a.passes;

/** Pairs of leads at one device in a circle, of which at least one is in a jack of a loop. */
function exchangesAt(ctx: SoundContext, circling: ReadonlySet<string>): Exchange[] {
  const isLoopJack = (end: Lead['from']) =>
    kindOf(ctx.device(end.device).kind).loops?.some(
      (l) => l.send.includes(end.jack) || l.return.includes(end.jack),
    ) === true;
  const leads = ctx.rig.leads
    .filter(
      (l) =>
        !['inside', 'air', 'speaker'].includes(l.type) &&
        !CONTROL_LEADS.includes(l.type) &&
        (circling.has(l.from.device) || circling.has(l.to.device)),
    )
    .sort(byId);
  return leads.flatMap((a, i) =>
    leads.slice(i + 1).flatMap((b): Exchange[] => {
      const ends = sharedEnds(a, b);
      return ends && circling.has(ends[0].device) && ends.some(isLoopJack)
        ? [
            {
              device: ends[0].device,
              side: a.from === ends[0] ? 'from' : 'to',
              leads: [a.id, b.id],
            },
          ]
        : [];
    }),
  );
}

/** The ends of two leads that are at one device: those that leave it, else those that enter it. */
const sharedEnds = (a: Lead, b: Lead): [Lead['from'], Lead['from']] | undefined =>
  a.from.device === b.from.device
    ? [a.from, b.from]
    : a.to.device === b.to.device
      ? [a.to, b.to]
      : undefined;

/** What comes of some exchanges, where it is better than what is there now. */
function tried(rig: Rig, sound: Sound, now: Worth, exchanges: readonly Exchange[]): Cure[] {
  const edits = exchanges.map(({ leads }): Edit => ({ edit: 'swapEnds', leads }));
  const copy = copyWith(rig, edits);
  const device = exchanges[0]?.device;
  if (!copy || device === undefined) return [];
  const worth = worthOf(copy, sound);
  return isBetter(worth, now) ? [{ worth, device, edits }] : [];
}

function remarkOf({ rig, device: deviceAt }: SoundContext, { device, edits, worth }: Cure): Remark {
  const leads = [...new Set(edits.flatMap((e) => (e.edit === 'swapEnds' ? e.leads : [])))];
  const ends = leads.flatMap((id) => {
    const lead = leadOf(rig, id);
    if (!lead) return [];
    return [endWords(rig, lead.from.device === device ? lead.from : lead.to)];
  });
  const count = ['', '', 'two', 'three', 'four'][leads.length] ?? 'some';
  const name = deviceAt(device).name;
  return {
    rule: 'swapped',
    severity: 'fault',
    subjects: [device, ...leads],
    about: leads.toSorted().join('+'),
    what: `${count.charAt(0).toUpperCase()}${count.slice(1)} plugs look swapped at ${name}: ${wordList(ends)}.`,
    why: `As they are, signal runs in a circle; exchanged, ${whatComes(worth)}.`,
    fix: { words: `Exchange the ${count} plugs at ${name}`, edits },
  };
}

/** What came of the exchange on the copy. */
function whatComes({ circles, reached }: Worth): string {
  const where = `signal reaches ${reached} ${reached === 1 ? 'destination' : 'destinations'}`;
  if (circles)
    return `${where}, and ${circles === 1 ? 'one circle is' : `${circles} circles are`} left`;
  return `none is left, and ${where}`;
}

/** "a, b, and c". */
const wordList = (words: readonly string[]): string =>
  words.map((w, i) => (i && i === words.length - 1 ? `and ${w}` : w)).join(', ');
