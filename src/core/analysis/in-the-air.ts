import { AIR_MS_PER_METRE } from '../circuit';
import { fixes, type Remark } from '../findings/finding';
import { byId } from '../rig/find';
import type { DestinationFigures, Flow } from '../signal';
import { FAR_UNDER_DB, firstNotchHertz } from '../signal/combing';
import type { SoundContext } from '../signal/sound-context';
import { dbuOfVolts, fixed, withPrefix } from '../units';
import type { Evidence, Remarker } from './evidence';
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
  speaker: DestinationFigures;
  dry: Flow;
}

/**
 * Loudspeakers in one room that play the same source are judged like arrivals at one jack: turned
 * against each other, late, of one source dry beside an effect of its own, and of very unlike
 * levels. How far each stands from whoever listens is not known, so equal distances are taken; a
 * difference of time is told as the metres that it is like.
 */
export const airRemarks: Remarker = (evidence) => {
  const { ctx, destinations } = evidence;
  const onStage = destinations
    .filter((d) => d.hears === 'stage' && d.levelDbu !== null)
    .sort((a, b) => byId({ id: a.device }, { id: b.device }));
  return onStage.flatMap((a, i) =>
    onStage.slice(i + 1).flatMap((b) => {
      const shared = a.sources.filter((s) => b.sources.includes(s));
      // One remark a pair: whatever is wrong is wrong for every source that goes the same ways.
      for (const source of shared) {
        const [one, other] = [playingOf(ctx, a, source), playingOf(ctx, b, source)];
        const remark = one && other && between(evidence, source, one, other);
        if (remark) return [remark];
      }
      return [];
    }),
  );
};

/** The loudest dry copy of a source at a loudspeaker, if any. */
function playingOf(
  ctx: SoundContext,
  speaker: DestinationFigures,
  source: string,
): Playing | undefined {
  const points = ctx.destinations.find((d) => d.device.id === speaker.device)?.points ?? [];
  const [dry] = points
    .flatMap((p) => ctx.at(speaker.device, p).flows)
    .filter((f) => f.source === source && !f.wet && !f.side)
    .sort((x, y) => y.volts[1] - x.volts[1]);
  return dry && { speaker, dry };
}

function between({ ctx }: Evidence, source: string, a: Playing, b: Playing): Remark | undefined {
  const subjects = [a.speaker.device, b.speaker.device];
  const name = ctx.device(source).name;
  const apartMs = Math.abs(a.dry.latencyMs - b.dry.latencyMs);
  const over = dbuOfVolts(a.dry.volts[1]) - dbuOfVolts(b.dry.volts[1]);
  if (Math.abs(over) > FAR_UNDER_DB) return undefined;
  const effect = [a, b].find((p) => (p.speaker.wetPercent ?? 0) >= WET_PERCENT);
  const straight = [a, b].find((p) => (p.speaker.wetPercent ?? 0) < 1);
  if (effect && straight && effect.dry.besideWet !== undefined)
    return {
      rule: 'parallel-dry',
      severity: 'advice',
      subjects: [effect.dry.besideWet, effect.speaker.device],
      about: `${effect.dry.besideWet}+${effect.speaker.device}`,
      what: `${effect.speaker.name} plays the effects, and still carries dry beside ${straight.speaker.name}.`,
      why:
        `${fixed(effect.speaker.wetPercent ?? 0, 0)} % of what it plays is wet. Its dry part stands ` +
        `${fixed(Math.abs(over))} dB ${over < 0 === (effect === a) ? 'under' : 'over'} that of ` +
        `${straight.speaker.name}` +
        (apartMs >= 0.05 ? ` and comes ${fixed(apartMs)} ms apart` : '') +
        ', so the two meet in the air. A wet amplifier usually gets the effect alone.',
      fix: wetFix(ctx, effect.dry.besideWet),
    };
  if (apartMs <= LIKE_MS && a.dry.polarity !== b.dry.polarity) {
    const [ra, rb] = [a.speaker.route, b.speaker.route];
    const ways = [...ra, ...rb].filter((s) => !(ra.includes(s) && rb.includes(s)));
    const devices = [...ways, ...ra].flatMap((id) => {
      const station = ctx.stations.find((s) => s.id === id);
      return station ? [station.device] : [];
    });
    return {
      rule: 'polarity',
      severity: 'fault',
      subjects,
      what: `${a.speaker.name} and ${b.speaker.name} push and pull against each other.`,
      why:
        `${name} reaches both at the same time, turned over in one of them, so low notes cancel ` +
        'in the air between. Whether an amplifier turns polarity over by itself is a figure of its ' +
        'own, typical until it is measured.',
      ...fixes(turnFixes(ctx, devices)),
    };
  }
  if (apartMs > APART_IN_AIR_MS) {
    const late = a.dry.latencyMs > b.dry.latencyMs ? a : b;
    const early = late === a ? b : a;
    return {
      rule: 'comb',
      severity: 'caution',
      subjects: [late.speaker.device, early.speaker.device],
      what: `${late.speaker.name} plays ${name} ${fixed(apartMs)} ms after ${early.speaker.name}.`,
      why:
        `That is like standing ${fixed(apartMs / AIR_MS_PER_METRE)} m further from it. Both are dry, so ` +
        `where they are equally loud they cancel at ${withPrefix(firstNotchHertz(apartMs), 'Hz')} ` +
        'and its odd multiples.',
      ...fixes(wetFixes(ctx, [...late.speaker.route, ...early.speaker.route])),
    };
  }
  if (Math.abs(over) > UNEVEN_DB && !effect) {
    const [loud, faint] = over > 0 ? [a, b] : [b, a];
    return {
      rule: 'uneven',
      severity: 'advice',
      subjects: [faint.speaker.device, loud.speaker.device],
      what: `${faint.speaker.name} plays ${name} ${fixed(Math.abs(over))} dB under ${loud.speaker.name}.`,
      why:
        'Both play the same dry signal, and at such a distance the fainter one is hardly heard beside ' +
        'the other. Levels are those at the loudspeakers’ terminals; cabinets may differ by some decibels.',
    };
  }
  return undefined;
}
