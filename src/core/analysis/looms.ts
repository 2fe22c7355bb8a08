import { pointFigures } from '../signal/station-figures';
import type { Remarker } from './evidence';
import { CONTROL_LEADS } from '../rig/lead-types';
import { endWords, leadOf } from '../rig/find';
import { withPrefix } from '../units';

/**
 * From this source impedance on, in ohms, a lead picks up what runs beside it. A buffer is far
 * below, a pickup above.
 */
export const LOOM_OHMS = 10_000;

/**
 * Audio in one sleeve with mains or data, where what drives it is a bare pickup or of high
 * impedance. Balanced leads and buffered ones bear it.
 */
export const loomRemarks: Remarker = ({ ctx }) =>
  (ctx.rig.looms ?? []).flatMap((loom) => {
    const inside = loom.leads.flatMap((id) => leadOf(ctx.rig, id) ?? []);
    const noisy = [
      ...(loom.mains ? ['a mains lead'] : []),
      ...inside
        .filter((l) => CONTROL_LEADS.includes(l.type) || l.type === 'digital')
        .map((l) => `data (${endWords(ctx.rig, l.from)})`),
    ];
    if (!noisy.length) return [];
    return inside
      .filter((l) => l.type === 'instrument' || l.type === 'insert' || l.type === 'stereo')
      .flatMap((l) => {
        const { sourceOhms } = pointFigures(ctx, l.from.device, l.from.jack);
        if (sourceOhms === null || sourceOhms < LOOM_OHMS) return [];
        return [
          {
            rule: 'loom-mixed',
            severity: 'caution' as const,
            subjects: [l.id, l.from.device],
            about: `${loom.id} ${l.id}`,
            what: `${endWords(ctx.rig, l.from)} runs un-buffered in one sleeve with ${noisy[0]}.`,
            why:
              `In ${loom.name} it is driven from ${withPrefix(sourceOhms, 'Ω')}; ` +
              `over ${withPrefix(LOOM_OHMS, 'Ω')} a lead picks up what runs beside it.`,
            fix: {
              words: `Take the lead from ${endWords(ctx.rig, l.from)} out of ${loom.name}`,
              edits: [
                {
                  edit: 'setLoom' as const,
                  loom: { ...loom, leads: loom.leads.filter((id) => id !== l.id) },
                },
              ],
            },
          },
        ];
      });
  });
