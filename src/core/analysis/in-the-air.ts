import { AIR_MS_PER_METRE } from '../circuit';
import { fixes, type Remark } from '../findings/finding';
import { byId } from '../rig/find';
import type { DestinationFigures, Flow } from '../signal';
import { FAR_UNDER_DB, firstNotchHertz } from '../signal/combing';
import type { SoundContext } from '../signal/sound-context';
import { dbuOfVolts, fixed, withPrefix } from '../units';
import { byKey } from '../graph';
import type { RuleId } from '../findings/rules';
import type { Remarker } from './evidence';
import { turnFixes } from './polarity';
import { wetFix, wetFixes } from './parallel';

/** Two loudspeakers closer together in time than this push together, or against each other. */
const LIKE_MS = 0.5;
/** Loudspeakers this far apart in time comb as if one stood a metre further away. */
const APART_IN_AIR_MS = AIR_MS_PER_METRE;
/** One loudspeaker this far under another that plays the same is no part of a pair, in dB. */
const UNEVEN_DB = 10;
/** From here on an amplifier is there for its effects, in percent of what it plays. */
const WET_PERCENT = 50;

/** A loudspeaker on stage, with what it plays of one source undelayed by any effect. */
interface Playing {
  id: string;
  speaker: DestinationFigures;
  dry: Flow;
}

/**
 * Loudspeakers in one room that play the same source are judged like arrivals at one jack: turned
 * against each other, late, of one source dry beside an effect of its own, and of very unlike
 * levels. How far each stands from whoever listens is not known, so equal distances are taken; a
 * difference of time is told as the metres that it is like.
 */
export const airRemarks: Remarker = ({ ctx, destinations }) => {
  const onStage = destinations
    .filter((d) => d.hears === 'stage' && d.levelDbu !== null)
    .sort((a, b) => byId({ id: a.device }, { id: b.device }));
  const bySource = playingIn(ctx, onStage);
  // One remark a pair: whatever is wrong is wrong for every source that goes the same ways.
  const told = new Map<string, RuleId>();
  return [...bySource].flatMap(([source, playing]) =>
    playing.flatMap((late, i) => {
      // Of each kind against the first that speaks: where many are late, each is told once.
      const said = new Set<RuleId>();
      return playing.slice(0, i).flatMap((early) => {
        const [a, b] = early.id < late.id ? [early, late] : [late, early];
        const pair = `${a.id} ${b.id}`;
        const before = told.get(pair);
        const found = before ? undefined : between(ctx, source, a, b);
        const rule = before ?? found?.rule;
        if (!rule || said.has(rule)) return [];
        told.set(pair, rule);
        said.add(rule);
        return found ? [found.remark()] : [];
      });
    }),
  );
};

/** By source, the loudest dry copy of it at each loudspeaker that plays it, the first to speak first. */
function playingIn(
  ctx: SoundContext,
  speakers: readonly DestinationFigures[],
): Map<string, Playing[]> {
  const points = new Map(ctx.destinations.map((d) => [d.device.id, d.points]));
  const playing = speakers.flatMap((speaker) => {
    const dry = (points.get(speaker.device) ?? [])
      .flatMap((p) => ctx.at(speaker.device, p).flows)
      .filter((f) => speaker.sources.includes(f.source) && !f.wet && !f.side)
      .sort((x, y) => y.volts[1] - x.volts[1]);
    return [...new Map(dry.toReversed().map((f) => [f.source, f])).values()].map((f) => ({
      id: speaker.device,
      speaker,
      dry: f,
    }));
  });
  const inTime = playing.sort((a, b) => a.dry.latencyMs - b.dry.latencyMs || byId(a, b));
  return byKey(inTime, (p) => p.dry.source);
}

/** Something wrong between two loudspeakers; its words are made where it is told. */
interface Wrong {
  rule: RuleId;
  remark: () => Remark;
}

/** What is wrong between two loudspeakers that play the same source, if anything is. */
function between(ctx: SoundContext, source: string, a: Playing, b: Playing): Wrong | undefined {
  const apartMs = Math.abs(a.dry.latencyMs - b.dry.latencyMs);
  const over = dbuOfVolts(a.dry.volts[1]) - dbuOfVolts(b.dry.volts[1]);
  if (Math.abs(over) > FAR_UNDER_DB) return undefined;
  const effect = [a, b].find((p) => (p.speaker.wetPercent ?? 0) >= WET_PERCENT);
  const straight = [a, b].find((p) => (p.speaker.wetPercent ?? 0) < 1);
  const met: Met = { ctx, name: ctx.device(source).name, apartMs, over };
  if (effect && straight && effect.dry.besideWet !== undefined)
    return { rule: 'parallel-dry', remark: () => dryBeside(met, effect, straight) };
  if (apartMs <= LIKE_MS && a.dry.polarity !== b.dry.polarity)
    return { rule: 'polarity', remark: () => against(met, a, b) };
  const [early, late] = a.dry.latencyMs > b.dry.latencyMs ? [b, a] : [a, b];
  if (apartMs > APART_IN_AIR_MS) return { rule: 'comb', remark: () => laterThan(met, early, late) };
  const [loud, faint] = over > 0 ? [a, b] : [b, a];
  if (Math.abs(over) > UNEVEN_DB && !effect)
    return { rule: 'uneven', remark: () => fainterThan(met, loud, faint) };
  return undefined;
}

/** How two loudspeakers meet in the air: `over` is how far the first is over the second, in dB. */
interface Met {
  ctx: SoundContext;
  name: string;
  apartMs: number;
  over: number;
}

function dryBeside({ ctx, apartMs, over }: Met, effect: Playing, straight: Playing): Remark {
  const under = effect.dry.volts[1] < straight.dry.volts[1] ? 'under' : 'over';
  const wet = effect.dry.besideWet ?? effect.id;
  return {
    rule: 'parallel-dry',
    severity: 'advice',
    subjects: [wet, effect.id],
    about: `${wet}+${effect.id}`,
    what: `${effect.speaker.name} plays the effects, and still carries dry beside ${straight.speaker.name}.`,
    why:
      `${fixed(effect.speaker.wetPercent ?? 0, 0)} % of what it plays is wet. Its dry part stands ` +
      `${fixed(Math.abs(over))} dB ${under} that of ${straight.speaker.name}` +
      (apartMs >= 0.05 ? ` and comes ${fixed(apartMs)} ms apart` : '') +
      ', so the two meet in the air. A wet amplifier usually gets the effect alone.',
    fix: wetFix(ctx, wet),
  };
}

function against({ ctx, name }: Met, a: Playing, b: Playing): Remark {
  const [ra, rb] = [a.speaker.route, b.speaker.route];
  const ways = [...ra, ...rb].filter((s) => !(ra.includes(s) && rb.includes(s)));
  const devices = [...ways, ...ra].flatMap((id) => {
    const station = ctx.stations.find((s) => s.id === id);
    return station ? [station.device] : [];
  });
  return {
    rule: 'polarity',
    severity: 'fault',
    subjects: [a.id, b.id],
    what: `${a.speaker.name} and ${b.speaker.name} push and pull against each other.`,
    why:
      `${name} reaches both at the same time, turned over in one of them, so low notes cancel ` +
      'in the air between. Whether an amplifier turns polarity over by itself is a figure of its ' +
      'own, typical until it is measured.',
    ...fixes(turnFixes(ctx, devices)),
  };
}

const laterThan = ({ ctx, name, apartMs }: Met, early: Playing, late: Playing): Remark => ({
  rule: 'comb',
  severity: 'caution',
  subjects: [late.id, early.id],
  what: `${late.speaker.name} plays ${name} ${fixed(apartMs)} ms after ${early.speaker.name}.`,
  why:
    `That is like standing ${fixed(apartMs / AIR_MS_PER_METRE)} m further from it. Both are dry, so ` +
    `where they are equally loud they cancel at ${withPrefix(firstNotchHertz(apartMs), 'Hz')} ` +
    'and its odd multiples.',
  ...fixes(wetFixes(ctx, new Set([...late.speaker.route, ...early.speaker.route]))),
});

const fainterThan = ({ name, over }: Met, loud: Playing, faint: Playing): Remark => ({
  rule: 'uneven',
  severity: 'advice',
  subjects: [faint.id, loud.id],
  what: `${faint.speaker.name} plays ${name} ${fixed(Math.abs(over))} dB under ${loud.speaker.name}.`,
  why:
    'Both play the same dry signal, and at such a distance the fainter one is hardly heard beside ' +
    'the other. Levels are those at the loudspeakers’ terminals; cabinets may differ by some decibels.',
});
