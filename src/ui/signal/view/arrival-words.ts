import type { DestinationFigures } from '../../../core/signal';
import { fixed, showLevel, type UnitChoice } from '../../../core/units';

/** What arrives at one place, in words: "−32.2 dBu, 88.1 dB S/N, 0.0 %, mono, 0.0 ms", or "silent". */
export function arrivalWords(d: DestinationFigures, unit: UnitChoice['level']): string {
  if (!d.levelDbu) return 'silent';
  return [
    showLevel(d.levelDbu.normal, unit),
    d.signalToNoiseDb === null ? 'no noise' : `${fixed(d.signalToNoiseDb)} dB S/N`,
    ...(d.thdPercent ? [`${fixed(d.thdPercent.normal)} %`] : []),
    d.pairedWith ? `${d.side} of stereo` : d.channels,
    `${fixed(d.latencyMs ?? 0)} ms`,
  ].join(', ');
}
