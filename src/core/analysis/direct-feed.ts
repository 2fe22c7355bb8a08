import { CONTROL_LEADS } from '../rig/schema';
import { passesOf, pluggedJacks } from '../circuit';
import { insertFix } from '../findings/insert-fix';
import type { Remark } from '../findings/finding';
import { fixed } from '../units';
import { loudest, presentFigures } from '../signal/point-figures';
import type { Remarker } from './evidence';

/**
 * From here on, in percent, distortion without a cabinet sounds like a fault; under it down to the
 * second figure, thin.
 */
const HARSH_PERCENT = 10;
const AUDIBLE_PERCENT = 3;

/**
 * Distorted signal that reaches full-range ears without a cabinet, and cabinets modelled ahead of a
 * real one.
 */
export const directFeedRemarks: Remarker = ({ ctx, destinations }) => {
  const remarks: Remark[] = [];
  const plugged = pluggedJacks(ctx.rig);
  for (const { device, net, arrive } of ctx.flowing.circuit.arrivals) {
    const flows = ctx.flowing.present(net).flows;
    const main = loudest(flows);
    if (!main) continue;
    const route = destinations.find((d) => d.device === device)?.route ?? [];
    if (arrive.fullRange && !main.cabinet) {
      const thd = presentFigures(ctx.flowing.present(net)).thdPercent?.normal ?? 0;
      if (thd < AUDIBLE_PERCENT) continue;
      const lead = ctx.rig.leads.find(
        (l) => l.to.device === device && !CONTROL_LEADS.includes(l.type),
      );
      remarks.push({
        rule: 'unfiltered',
        severity: thd >= HARSH_PERCENT ? 'fault' : 'caution',
        subjects: [device],
        what: `${ctx.device(device).name} gets distorted signal that no cabinet has shaped.`,
        why:
          `${fixed(thd)} % of distortion straight into a full-range input is harsh: a guitar ` +
          'speaker takes the top octaves away. Put a cab block or a simulator ahead, or a ' +
          'microphone in front of a cabinet.',
        fix:
          lead && lead.type !== 'inside' && lead.type !== 'digital'
            ? insertFix(
                ctx.rig,
                'amp-cab-simulator',
                'Cab simulator',
                lead.id,
                `Put a simulator in front of ${ctx.device(device).name}`,
              )
            : undefined,
      });
    }
    if (
      !arrive.fullRange &&
      main.cabinet &&
      (arrive.coil || !arrive.wantsDbu) &&
      arrive.maxDbu >= 60
    ) {
      const block = ctx.stations
        .filter((s) => route.includes(s.id))
        .map((s) => ctx.device(s.device))
        .find((d) =>
          passesOf(d, ctx.sound, plugged).some(
            (p) => p.is === 'stage' && p.cabinet && p.to !== 'air',
          ),
        );
      if (!block) continue;
      remarks.push({
        rule: 'two-cabinets',
        severity: 'caution',
        subjects: [device, block.id],
        what: `${block.name} models a cabinet ahead of ${ctx.device(device).name}, which is one.`,
        why:
          'Two cabinets one behind the other sound dull and boxed in. Bypass the modelled one ' +
          'for this way, or feed this way from a tap ahead of it.',
        fix: {
          words: `Bypass ${block.name} here`,
          edits: [
            {
              edit: 'setEngaged',
              device: block.id,
              ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }),
              engaged: false,
            },
          ],
        },
      });
    }
  }
  return remarks;
};
