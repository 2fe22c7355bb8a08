import { at } from '../outcome';
import { fixed, showLevel } from '../units';
import type { Remarker } from './evidence';

/** Signal-to-noise, in dB, under which a listener notices hiss between notes. */
export const QUIET_ENOUGH_DB = 40;

/** Hiss at the destinations, one remark for each device that gives most of it. */
export const noiseRemarks: Remarker = ({ ctx, destinations }) => {
  const noisy = destinations.filter(
    (d) => d.signalToNoiseDb !== null && d.signalToNoiseDb < QUIET_ENOUGH_DB,
  );
  return [...new Set(noisy.map((d) => d.noisiest ?? d.device))].map((culprit) => {
    const heard = noisy
      .filter((d) => (d.noisiest ?? d.device) === culprit)
      .sort((a, b) => a.signalToNoiseDb! - b.signalToNoiseDb!);
    const worst = at(heard, 0);
    return {
      rule: 'noise',
      severity: 'caution' as const,
      subjects: [culprit, ...heard.map((d) => d.device).filter((d) => d !== culprit)],
      about: culprit,
      what: `${ctx.device(culprit).name} and the gain behind it hiss at ${heard.map((d) => d.name).join(', ')}.`,
      why:
        `At ${worst.name} the signal is ${fixed(worst.signalToNoiseDb!)} dB over a noise ` +
        `of ${showLevel(worst.noiseDbu)}; under ${QUIET_ENOUGH_DB} dB it is heard between ` +
        `notes. Most of it comes from ${ctx.device(culprit).name}.`,
    };
  });
};
