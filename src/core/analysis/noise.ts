import { at } from '../outcome';
import { byKey } from '../graph';
import { isMetal } from '../circuit';
import type { Fix } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { applyEdits } from '../rig/apply';
import { byId, jackOf, nameOf } from '../rig/find';
import type { Lead, Rig } from '../rig/schema';
import { type Arriving, arrivingFigures, type DestinationFigures } from '../signal';
import { soundContext, type SoundContext } from '../signal/sound-context';
import { fixed, showLevel } from '../units';
import type { Remarker } from './evidence';

/** Signal over what is left between notes, in dB, under which a listener notices hiss. */
export const QUIET_ENOUGH_DB = 40;
/** Under this it stands beside the music; between the two it is what much gain brings with it. */
export const LOUD_HISS_DB = 30;

/** How far a note played normally stands over what is heard between notes, in dB; gates are shut then. */
const quietDb = (d: Arriving): number =>
  d.levelDbu && d.idleNoiseDbu !== null ? d.levelDbu.normal - d.idleNoiseDbu : Infinity;

/** Hiss between notes at the destinations, one remark for each device that gives most of it. */
export const noiseRemarks: Remarker = ({ ctx, destinations, wantsFixes }) => {
  const noisy = destinations.filter((d) => quietDb(d) < QUIET_ENOUGH_DB);
  return [...byKey(noisy, (d) => d.idleNoisiest ?? d.device)].map(([culprit, list]) => {
    const heard = list.toSorted((a, b) => quietDb(a) - quietDb(b));
    const worst = at(heard, 0);
    return {
      rule: 'noise' as const,
      severity: quietDb(worst) < LOUD_HISS_DB ? ('caution' as const) : ('advice' as const),
      subjects: [culprit, ...heard.map((d) => d.device).filter((d) => d !== culprit)],
      about: culprit,
      what: `${ctx.device(culprit).name} and the gain behind it hiss at ${heard.map((d) => d.name).join(', ')}.`,
      why:
        `At ${worst.name} a note is ${fixed(quietDb(worst))} dB over a noise ` +
        `of ${showLevel(worst.idleNoiseDbu)} that is left between notes; under ${QUIET_ENOUGH_DB} dB ` +
        `it is heard. Most of it comes from ${ctx.device(culprit).name}.`,
      fix: wantsFixes ? gateFix(ctx, worst, culprit) : undefined,
    };
  });
};

/**
 * A gate in the first lead behind the culprit, on the way to a destination, in which one, tried on a
 * copy, leaves little enough between notes.
 */
function gateFix(ctx: SoundContext, worst: DestinationFigures, culprit: string): Fix | undefined {
  const way = worst.route.flatMap((id) => ctx.stations.find((s) => s.id === id)?.device ?? []);
  const behind = new Set(way.slice(Math.max(0, way.indexOf(culprit))));
  return ctx.rig.leads
    .filter((l) => isMetal(l) && behind.has(l.from.device) && behind.has(l.to.device))
    .filter((l) => carriesInstrument(ctx, l))
    .sort((a, b) => way.indexOf(a.from.device) - way.indexOf(b.from.device) || byId(a, b))
    .slice(0, ASKED)
    .map((l) => {
      const place = `behind ${nameOf(ctx.rig, l.from.device)}`;
      return insertFix(ctx.rig, 'gate', 'Noise gate', l.id, `Put a gate ${place}`);
    })
    .find((fix) => {
      const copy = copyWith(ctx.rig, fix);
      if (!copy) return false;
      const after = arrivingFigures(soundContext(copy, ctx.sound));
      const there = after.find((d) => d.device === worst.device);
      return there !== undefined && quietDb(there) >= QUIET_ENOUGH_DB;
    });
}

const copies = new WeakMap<Rig, Map<string, Rig | undefined>>();

/** The rig with a fix applied: made once for all sounds that try the same. */
function copyWith(rig: Rig, { words, edits }: Fix): Rig | undefined {
  let made = copies.get(rig);
  if (!made) copies.set(rig, (made = new Map<string, Rig | undefined>()));
  if (!made.has(words)) {
    const tried = applyEdits(rig, edits);
    made.set(words, tried.ok ? tried.value.rig : undefined);
  }
  return made.get(words);
}

/** So many leads are tried. */
const ASKED = 3;

/** A gate stands between pedals: both ends of the lead are ordinary jacks. */
const carriesInstrument = (ctx: SoundContext, lead: Lead): boolean =>
  lead.type === 'instrument' &&
  [lead.from, lead.to].every((e) => jackOf(ctx.device(e.device), e.jack)?.signal !== 'speaker');
