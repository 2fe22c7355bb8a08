import { sure } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { copyWith } from '../rig/copies';
import { byId, deviceOf, endWords, jackOf, leadOf, nameOf } from '../rig/find';
import type { Edit } from '../rig/edits';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Lead, Rig, Sound } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import { routeTo, stationsOf, placeStations } from '../walk';
import { type CrossedLoop, crossedLoops } from './crossed-loops';
import type { Remarker } from './evidence';
import { broughtBack, unheardIn } from './missing-leads';

/**
 * How well a hook-up works: circles first, then destinations that are reached, then passes that
 * signal meets on its way, then devices
 * that it meets first by a return instead of their input.
 */
interface Worth {
  circles: number;
  reached: number;
  passes: number;
  /** Passes of devices that the sound switches on. */
  engaged: number;
  astray: number;
}

const worths = new WeakMap<Rig, Map<string, Worth>>();

/** How well a hook-up works in one sound. */
function worthOf(rig: Rig, sound: Sound): Worth {
  let known = worths.get(rig);
  if (!known) worths.set(rig, (known = new Map<string, Worth>()));
  let worth = known.get(sound.id);
  if (!worth) known.set(sound.id, (worth = workedOut(rig, sound)));
  return worth;
}

/** How well it works in all its sounds together. */
const worthOfAll = (rig: Rig): Worth =>
  rig.sounds
    .map((sound) => worthOf(rig, sound))
    .reduce((a, b) => ({
      circles: a.circles + b.circles,
      reached: a.reached + b.reached,
      passes: a.passes + b.passes,
      engaged: a.engaged + b.engaged,
      astray: a.astray + b.astray,
    }));

function workedOut(rig: Rig, sound: Sound): Worth {
  const { stations, steps } = stationsOf(rig, sound);
  placeStations(stations, steps);
  const destinations = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.id);
  const routes = destinations.map((id) => routeTo(stations, steps, (s) => s.device === id));
  const used = routes.filter((r) => r.some((s) => s.source));
  const first = new Map<string, string[]>();
  for (const s of [...new Set(used.flat())].sort((a, b) => a.column - b.column))
    if (!first.has(s.device)) first.set(s.device, s.ins);
  const astray = [...first].filter(([id, ins]) => {
    const kind = kindOf(sure(deviceOf(rig, id)).kind);
    return kind.loops?.some((l) => l.return.some((j) => ins.includes(j))) === true;
  }).length;
  return {
    astray,
    circles: steps.filter((s) => s.back && !s.open).length,
    reached: used.length,
    passes: new Set(used.flat().map((s) => s.id)).size,
    engaged: new Set(used.flat().flatMap((s) => (sound.states[s.device]?.engaged ? [s.id] : [])))
      .size,
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
  /** Loops that come home by another return then. */
  crossed: number;
  rig: Rig;
  device: string;
  edits: Edit[];
}

/** What an exchange has to better: the rig as it is, in the sound that shows it. */
interface Now {
  rig: Rig;
  sound: Sound;
  worth: Worth;
  crossed: number;
}

/** So many exchanges that seem to cure it are held against one another in every sound. */
const MOST_COMPARED = 12;
/** So many that would do beside the likeliest are offered, too: a trial tells which leaves least wrong. */
const MOST_OTHERS = 3;

/**
 * The classic error around a loop: plugs in each other's jack. Where signal runs in a circle, or
 * somebody hears nothing and a loop comes home by another return, every exchange of two leads at a
 * device with a loop is tried, and the one that cures it is named; where none puts everything right,
 * two exchanges at one device, one after the other: three plugs that went round, or two pairs; where
 * none of those does, four plugs that went round. Of several that would, the one with which most of
 * what the sounds switch on is heard.
 */
export const swappedRemarks: Remarker = ({ ctx, cycles, stations, destinations }) => {
  const { rig, sound } = ctx;
  const unheard = unheardIn({ ctx, stations, destinations });
  const isUnheard = unheard.destinations.length + unheard.sources.length > 0;
  // A modeler's loops are taken as they come; those of a switcher are not, used in this sound or not.
  const isHost = ({ device }: CrossedLoop) => kindOf(ctx.device(device).kind).hosts !== undefined;
  const crossed = crossedLoops(rig).filter((c) => cycles.length || isUnheard || !isHost(c));
  if (!cycles.length && !crossed.length) return [];
  const now = { rig, sound, worth: worthOf(rig, sound), crossed: crossed.length };
  const around = new Set([
    ...cycles.flatMap((c) => c.devices),
    ...crossed.flatMap((c) => [c.device, c.home.device]),
  ]);
  const exchanges = exchangesAt(ctx, around).slice(0, MOST_TRIES);
  const told = ([cure, ...others]: [Cure, ...Cure[]]) => {
    const remark = remarkOf(ctx, cure, cycles.length > 0, crossed);
    const back = broughtBack(ctx, cure.edits, unheard);
    const ways = [cure, ...others.slice(0, MOST_OTHERS)].map((c) => fixOf(rig, c));
    // Circles that are gone with it, by what signal runs round in.
    const gone = cure.worth.circles === 0 ? cycles.flatMap((c) => c.devices) : [];
    const subjects = [...new Set([...remark.subjects, ...gone, ...back])];
    return [{ ...remark, ...fixes(ways), subjects }];
  };
  const isCure = (cures: Cure[]): cures is [Cure, ...Cure[]] => cures[0] !== undefined;
  const single = best(exchanges.flatMap((x) => tried(now, [x])));
  if (isCure(single) && isRight(single[0])) return told(single);
  const pairs = exchanges.flatMap((x, i) =>
    exchanges
      .slice(i + 1)
      .filter((y) => y.device === x.device)
      .flatMap((y) => (sharesLead(x, y) ? [[x, y] as const, [y, x] as const] : [[x, y] as const])),
  );
  const double = best(pairs.slice(0, MOST_DOUBLE_TRIES).flatMap((two) => tried(now, two)));
  if (isCure(double) && isRight(double[0])) return told(double);
  const round = best(
    fourRound(exchanges)
      .slice(0, MOST_ROUND_TRIES)
      .flatMap((three) => tried(now, three)),
  );
  const found = isCure(round) && isRight(round[0]) ? round : single;
  return isCure(found) ? told(found) : [];
};

const isRight = ({ worth, crossed }: Cure): boolean =>
  worth.circles === 0 && worth.astray === 0 && crossed === 0;

/** Exchanges that would cure it, the likeliest first: in this sound, then in all. */
function best(cures: readonly Cure[]): Cure[] {
  const [first] = cures.toSorted((a, b) => a.crossed - b.crossed || likelier(a.worth, b.worth));
  if (!first) return [];
  const alike = cures.filter((c) => c.crossed === first.crossed && isRight(c) === isRight(first));
  return alike
    .slice(0, MOST_COMPARED)
    .map((cure) => ({ cure, all: worthOfAll(cure.rig) }))
    .sort((a, b) => likelier(a.all, b.all) || likelier(a.cure.worth, b.cure.worth))
    .map(({ cure }) => cure);
}

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

/** The better of two: fewer circles, each box met first by its input, then what is heard of what is on. */
const likelier = (a: Worth, b: Worth): number =>
  a.circles - b.circles ||
  a.astray - b.astray ||
  b.reached - a.reached ||
  b.engaged - a.engaged ||
  b.passes - a.passes;

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

/** Whether too many loops come home by another return than their own: more than now, or as many as are to be cured. */
const leavesCrossed = (now: Now, crossed: number): boolean =>
  crossed > now.crossed || (now.crossed > 0 && crossed === now.crossed);

const crossedKnown = new WeakMap<Rig, Map<string, number>>();

/**
 * How many loops come home by another return after some exchanges: asked of every exchange in every
 * sound, so the leads alone are exchanged, no copy is made, and it is asked once for all sounds.
 */
function crossedAfter(rig: Rig, exchanges: readonly Exchange[]): number {
  let known = crossedKnown.get(rig);
  if (!known) crossedKnown.set(rig, (known = new Map<string, number>()));
  const key = exchanges.map(({ leads }) => leads.join('+')).join(' ');
  let count = known.get(key);
  if (count === undefined) {
    const leads = new Map(rig.leads.map((l) => [l.id, l]));
    for (const { leads: pair } of exchanges) {
      const [a, b] = pair.map((id) => sure(leads.get(id)));
      if (a && b) leads.set(a.id, { ...a, to: b.to }).set(b.id, { ...b, to: a.to });
    }
    count = crossedLoops({ devices: rig.devices, leads: [...leads.values()] }).length;
    known.set(key, count);
  }
  return count;
}

/** What comes of some exchanges, where it is better than what is there now. */
function tried(now: Now, exchanges: readonly Exchange[]): Cure[] {
  const device = exchanges[0]?.device;
  if (device === undefined || leavesCrossed(now, crossedAfter(now.rig, exchanges))) return [];
  const edits = exchanges.map(({ leads }): Edit => ({ edit: 'swapEnds', leads }));
  const copy = copyWith(now.rig, edits);
  if (!copy) return [];
  const crossed = crossedLoops(copy).length;
  if (leavesCrossed(now, crossed)) return [];
  const worth = worthOf(copy, now.sound);
  // A modeler's loops are taken as they come: that they cross is wrong only where it is why nobody hears.
  const isAsTheyCome =
    now.worth.circles === 0 && kindOf(sure(deviceOf(now.rig, device)).kind).hosts !== undefined;
  const isCure = now.crossed
    ? worth.circles <= now.worth.circles &&
      worth.reached >= now.worth.reached + (isAsTheyCome ? 1 : 0)
    : isBetter(worth, now.worth);
  return isCure ? [{ worth, crossed, rig: copy, device, edits }] : [];
}

function remarkOf(
  { rig, device: deviceAt }: SoundContext,
  cure: Cure,
  circles: boolean,
  [crossed]: readonly CrossedLoop[],
): Remark {
  const { device, worth } = cure;
  const ends = endsOf(rig, cure);
  const count = COUNTS[ends.length] ?? 'some';
  const name = deviceAt(device).name;
  const whatIs =
    crossed && !circles
      ? `what leaves by ${endWords(rig, crossed.send)} comes home by ${endWords(rig, crossed.home)}`
      : 'signal runs in a circle';
  return {
    rule: 'swapped',
    severity: 'fault',
    subjects: [device, ...leadsOf(cure)],
    about: leadsOf(cure).toSorted().join('+'),
    what:
      `${count.charAt(0).toUpperCase()}${count.slice(1)} plugs look swapped at ${name}: ` +
      `${wordList(ends.map((end) => endWords(rig, end)))}.`,
    why: `As they are, ${whatIs}; exchanged, ${whatComes(worth, circles)}.`,
  };
}

const COUNTS = ['', '', 'two', 'three', 'four'];

const leadsOf = ({ edits }: Cure): string[] => [
  ...new Set(edits.flatMap((e) => (e.edit === 'swapEnds' ? e.leads : []))),
];

/** Where the plugs of an exchange are now. */
const endsOf = (rig: Rig, cure: Cure): Lead['from'][] =>
  leadsOf(cure).flatMap((id) => {
    const lead = leadOf(rig, id);
    return lead ? [lead.from.device === cure.device ? lead.from : lead.to] : [];
  });

function fixOf(rig: Rig, cure: Cure): Fix {
  const ends = endsOf(rig, cure);
  const jacks = ends.map(({ device, jack }) => {
    const box = deviceOf(rig, device);
    return (box && jackOf(box, jack)?.label) ?? jack;
  });
  return {
    words: `Exchange the plugs in ${wordList(jacks)} of ${nameOf(rig, cure.device)}`,
    edits: cure.edits,
  };
}

/** What came of the exchange on the copy. */
function whatComes({ circles, reached }: Worth, hadCircles: boolean): string {
  const where = `signal reaches ${reached} ${reached === 1 ? 'destination' : 'destinations'}`;
  if (circles)
    return `${where}, and ${circles === 1 ? 'one circle is' : `${circles} circles are`} left`;
  return hadCircles ? `none is left, and ${where}` : where;
}

/** "a and b", "a, b, and c". */
const wordList = (words: readonly string[]): string =>
  words
    .map((w, i) => (i && i === words.length - 1 ? `and ${w}` : w))
    .join(words.length > 2 ? ', ' : ' ');
