import { isMetal, passesOf, pluggedJacks } from '../circuit';
import type { Remark } from '../findings/finding';
import { byKey, reachable } from '../graph';
import { kindOf } from '../kinds';
import type { Edit } from '../rig/edits';
import { byId, endWords, leadsInto } from '../rig/find';
import type { Lead } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { broughtBack, unheardIn } from './missing-leads';
import { allOf } from '../units';

/** More leads than this are not tried. */
const MOST_TRIES = 8;

/**
 * A lead that was left in a jack that takes priority: an instrument that is played is heard nowhere,
 * and with the plug pulled, on a copy, it is.
 */
export const priorityRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const unheard = unheardIn({ ctx, stations, destinations });
  if (!unheard.sources.length) return [];
  // Only a plug in a box that an unheard instrument leads on to can keep it from being heard.
  const from = byKey(ctx.rig.leads, (l) => l.from.device);
  const behind = reachable(unheard.sources, (id) => (from.get(id) ?? []).map((l) => l.to.device));
  return ctx.rig.leads
    .filter((l) => isMetal(l) && behind.has(l.to.device))
    .filter((l) => changesItsDevice(ctx, l) && !comesHome(ctx, l))
    .sort(byId)
    .slice(0, MOST_TRIES)
    .flatMap((lead): Remark[] => {
      const pull: Edit = { edit: 'disconnect', lead: lead.id };
      const back = broughtBack(ctx, [pull], unheard);
      const again = unheard.sources.filter((id) => back.includes(id));
      if (!again.length) return [];
      const jack = endWords(ctx.rig, lead.to);
      const names = allOf(again.map((d) => ctx.device(d).name));
      return [
        {
          rule: 'priority',
          severity: 'fault',
          subjects: [lead.to.device, lead.id, ...back],
          about: lead.id,
          what: `The plug in ${jack} takes priority: ${names} ${again.length > 1 ? 'are' : 'is'} not heard.`,
          why: 'A plug in that jack cuts the other input off, whether anything is played through it or not.',
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
  const others = leadsInto(ctx.rig, to.device).filter((l) => l.to.jack !== to.jack);
  if (!others.some(isMetal)) return false;
  const without = new Map(plugged).set(
    to.device,
    new Set([...jacks].filter((jack) => jack !== to.jack)),
  );
  const of = (map: typeof plugged) => JSON.stringify(passesOf(device, ctx.sound, map));
  return of(plugged) !== of(without);
}

/**
 * Whether a lead is in the return of a loop: what is wrong there, half a loop or a chain that is broken
 * on its way, is told as that.
 */
const comesHome = ({ device }: SoundContext, { to }: Lead): boolean =>
  kindOf(device(to.device).kind).loops?.some((l) => l.return.includes(to.jack)) === true;
