import { isMetal, passesOf, pluggedJacks } from '../circuit';
import type { Remark } from '../findings/finding';
import { copyWith } from '../rig/copies';
import type { Edit } from '../rig/edits';
import { byId, endWords } from '../rig/find';
import type { Lead } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';
import { arrivingFigures } from '../signal';
import { soundContext, type SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';

/** More leads than this are not tried. */
const MOST_TRIES = 8;

/**
 * A lead that was left in a jack that takes priority: an instrument that is played is heard nowhere,
 * and with the plug pulled, on a copy, it is.
 */
export const priorityRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const heard = new Set(destinations.flatMap((d) => d.sources.map(sourceDevice)));
  const unheard = stations
    .filter((s) => s.source && s.state === 'engaged' && !heard.has(s.device))
    .map((s) => s.device);
  if (!unheard.length) return [];
  return ctx.rig.leads
    .filter((l) => isMetal(l) && changesItsDevice(ctx, l))
    .sort(byId)
    .slice(0, MOST_TRIES)
    .flatMap((lead): Remark[] => {
      const pull: Edit = { edit: 'disconnect', lead: lead.id };
      const back = broughtBack(ctx, pull, unheard);
      if (!back.length) return [];
      const jack = endWords(ctx.rig, lead.to);
      const names = back.map((d) => ctx.device(d).name).join(' and ');
      return [
        {
          rule: 'priority',
          severity: 'fault',
          subjects: [lead.to.device, lead.id, ...back],
          about: lead.id,
          what: `The plug in ${jack} takes priority: ${names} is not heard.`,
          why: 'A plug in that jack cuts the other input off, whether anything is played through it or not. Pull it.',
          fix: { words: `Pull the plug from ${jack}`, edits: [pull] },
        },
      ];
    });
};

/** Whether the device that a lead goes into does anything else without it, at its other jacks. */
function changesItsDevice(ctx: SoundContext, { to }: Lead): boolean {
  const device = ctx.device(to.device);
  const plugged = pluggedJacks(ctx.rig);
  const jacks = plugged.get(to.device) ?? new Set<string>();
  const others = ctx.rig.leads.filter((l) => l.to.device === to.device && l.to.jack !== to.jack);
  if (!others.some(isMetal)) return false;
  const without = new Map(plugged).set(
    to.device,
    new Set([...jacks].filter((jack) => jack !== to.jack)),
  );
  const of = (map: typeof plugged) => JSON.stringify(passesOf(device, ctx.sound, map));
  return of(plugged) !== of(without);
}

/** Which of some instruments are heard after an edit, tried on a copy. */
function broughtBack(ctx: SoundContext, edit: Edit, unheard: readonly string[]): string[] {
  const copy = copyWith(ctx.rig, [edit]);
  if (!copy) return [];
  const then = arrivingFigures(soundContext(copy, ctx.sound));
  const heard = new Set(then.filter((d) => d.levelDbu).flatMap((d) => d.sources.map(sourceDevice)));
  return unheard.filter((d) => heard.has(d));
}
