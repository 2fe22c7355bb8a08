import { at, sure } from '../outcome';
import { byKey } from '../graph';
import { isMetal } from '../circuit';
import type { Fix } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { kindOf, settingWith } from '../kinds';
import { copyWith } from '../rig/copies';
import { settingOf, stateIn } from '../rig/device-state';
import { byId, jackOf, nameOf } from '../rig/find';
import type { Lead } from '../rig/schema';
import {
  type Arriving,
  arrivingFigures,
  type DestinationFigures,
  type PointFigures,
  type StationFigures,
} from '../signal';
import { soundContext, type SoundContext } from '../signal/sound-context';
import { fixed, showLevel } from '../units';
import type { Evidence, Remarker } from './evidence';

/** Signal over what is left between notes, in dB, under which a listener notices hiss. */
export const QUIET_ENOUGH_DB = 40;
/** Under this it stands beside the music; between the two it is what much gain brings with it. */
export const LOUD_HISS_DB = 30;

/** How far a note played normally stands over what is heard between notes, in dB; gates are shut then. */
const quietDb = (d: Arriving): number =>
  d.levelDbu && d.idleNoiseDbu !== null ? d.levelDbu.normal - d.idleNoiseDbu : Infinity;

/** Hiss between notes at the destinations, one remark for each device that gives most of it. */
export const noiseRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => {
  const noisy = destinations.filter((d) => quietDb(d) < QUIET_ENOUGH_DB);
  return [...byKey(noisy, (d) => d.idleNoisiest ?? d.device)].map(([culprit, list]) => {
    const heard = list.toSorted((a, b) => quietDb(a) - quietDb(b));
    const worst = at(heard, 0);
    return {
      rule: 'noise' as const,
      // Coils hum by nature: nothing is wrong with the rig.
      severity:
        quietDb(worst) < LOUD_HISS_DB && !isCoil(ctx, culprit)
          ? ('caution' as const)
          : ('advice' as const),
      subjects: [culprit, ...heard.map((d) => d.device).filter((d) => d !== culprit)],
      about: culprit,
      what: `${noiseWords(ctx, culprit)} at ${heard.map((d) => d.name).join(', ')}.`,
      why:
        `At ${worst.name} a note is ${fixed(quietDb(worst))} dB over a noise ` +
        `of ${showLevel(worst.idleNoiseDbu)} that is left between notes; under ${QUIET_ENOUGH_DB} dB ` +
        `it is heard. Most of it comes from ${ctx.device(culprit).name}.`,
      fix: wantsFixes ? gateFix({ ctx, stations }, worst, culprit) : undefined,
    };
  });
};

/** Whether a device is played by coils, which pick up hum. */
const isCoil = (ctx: SoundContext, device: string): boolean =>
  ctx.flowing.circuit.drivers.some((d) => d.device === device && d.source?.bare);

/** What is heard between notes, by what makes most of it: coils hum, everything else hisses. */
function noiseWords(ctx: SoundContext, culprit: string): string {
  const { name } = ctx.device(culprit);
  return isCoil(ctx, culprit)
    ? `The coils of ${name} pick up hum, which the gain behind them makes heard`
    : `${name} and the gain behind it hiss`;
}

/**
 * What leaves little enough between notes at a destination, tried on a copy: a gate that stands on the
 * way and is set too low, or a new one in the first lead behind the culprit in which one does.
 */
function gateFix(
  { ctx, stations }: Pick<Evidence, 'ctx' | 'stations'>,
  worst: DestinationFigures,
  culprit: string,
): Fix | undefined {
  const way = worst.route.flatMap((id) => stations.filter((s) => s.id === id));
  return [...raisedGates(ctx, way), ...newGates(ctx, way, culprit)].find((fix) => {
    const copy = copyWith(ctx.rig, fix.edits);
    if (!copy) return false;
    const after = arrivingFigures(soundContext(copy, ctx.sound));
    const there = after.find((d) => d.device === worst.device);
    return there !== undefined && quietDb(there) >= QUIET_ENOUGH_DB;
  });
}

/** Gates on the way that stand open, set over what idles where they listen. */
const raisedGates = (ctx: SoundContext, way: readonly StationFigures[]): Fix[] =>
  way.flatMap((s) => {
    const device = ctx.device(s.device);
    const kind = kindOf(device.kind);
    const knob = settingWith(kind, 'gate threshold');
    const over = s.input && thresholdOver(s.input);
    if (!knob || over === undefined || over === null || s.state !== 'engaged') return [];
    const now = settingOf(kind, device, stateIn(ctx.sound, device.id), knob.id);
    if (over <= Number(now)) return [];
    return [
      {
        words: `Set the threshold of ${device.name} to ${showLevel(over)}`,
        edits: [{ edit: 'setSetting' as const, device: device.id, setting: knob.id, value: over }],
      },
    ];
  });

/** New gates behind the culprit, each set for what idles at its place. */
function newGates(ctx: SoundContext, way: readonly StationFigures[], culprit: string): Fix[] {
  const ids = way.map((s) => s.device);
  const behind = new Set(ids.slice(Math.max(0, ids.indexOf(culprit))));
  const drivesBehind = (l: Lead) =>
    ids
      .slice(ids.lastIndexOf(l.from.device) + 1)
      .filter((id) => ['drive', 'fuzz'].includes(kindOf(ctx.device(id).kind).job)).length;
  return (
    ctx.rig.leads
      .filter((l) => isMetal(l) && behind.has(l.from.device) && behind.has(l.to.device))
      .filter((l) => carriesInstrument(ctx, l))
      // A gate ahead of a drive would be told to stand behind it.
      .sort(
        (a, b) =>
          drivesBehind(a) - drivesBehind(b) ||
          ids.indexOf(a.from.device) - ids.indexOf(b.from.device) ||
          byId(a, b),
      )
      .flatMap((l) => {
        const from = way.find((s) => s.device === l.from.device && s.outs.includes(l.from.jack));
        const over = from && thresholdOver(from.output);
        if (over === undefined) return [];
        const words = `Put a gate behind ${nameOf(ctx.rig, l.from.device)}, set to ${showLevel(over)}`;
        const settings = { [sure(settingWith(kindOf('gate'), 'gate threshold')).id]: over };
        return [insertFix(ctx.rig, 'gate', 'Noise gate', l.id, words, settings)];
      })
      .slice(0, ASKED)
  );
}

/** A gate shuts on what is so far over what idles at its place, in dB, and opens on soft playing. */
const OVER_IDLE_DB = 6;
const UNDER_SOFT_DB = 10;
/** Thresholds are told in steps that a knob can be set to, in dB. */
const STEP_DB = 5;

/**
 * The lowest threshold at a place that is over what idles there, from −60 dBu on; undefined where it
 * would cut off soft playing.
 */
function thresholdOver({ idleNoiseDbu, levelDbu }: PointFigures): number | undefined {
  const knob = settingWith(kindOf('gate'), 'gate threshold');
  if (!levelDbu || knob?.type !== 'knob') return undefined;
  const least = Math.ceil(((idleNoiseDbu ?? -Infinity) + OVER_IDLE_DB) / STEP_DB) * STEP_DB;
  const over = Math.max(knob.initial, least);
  return over <= Math.min(knob.max, levelDbu.soft - UNDER_SOFT_DB) ? over : undefined;
}

/** So many leads are tried. */
const ASKED = 3;

/** A gate stands between pedals: both ends of the lead are ordinary jacks. */
const carriesInstrument = (ctx: SoundContext, lead: Lead): boolean =>
  lead.type === 'instrument' &&
  [lead.from, lead.to].every((e) => jackOf(ctx.device(e.device), e.jack)?.signal !== 'speaker');
