import type { Remark } from '../findings/finding';
import type { Remarker } from './remarks';

/** Destinations that nothing leads to, sources that lead nowhere, and signal that can run in a circle. */
export const reachRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const remarks: Remark[] = [];
  for (const d of destinations) {
    if (!d.connected) {
      remarks.push({ rule: 'no-route', severity: 'fault', subjects: [d.device], what: `Nothing reaches ${d.name}.`, why: 'No way of leads and devices leads there from any instrument. Connect it, or remove it.' });
    } else if (!d.levelDbu && !stations.some((s) => d.route.includes(s.id) && (s.state === 'muted' || s.state === 'unused'))) {
      remarks.push({ rule: 'silent', severity: 'fault', subjects: [d.device], what: `${d.name} is silent, and nothing on the way is muted.`, why: 'A level on the way is turned all the way down.' });
    }
  }
  const routed = new Set(destinations.flatMap((d) => d.route));
  for (const source of stations) {
    if (!source.source || routed.has(source.id) || source.state !== 'engaged') continue;
    remarks.push({ rule: 'dead-end', severity: 'caution', subjects: [source.device], what: `${ctx.device(source.device).name} is not heard anywhere.`, why: 'Its way ends before a destination.' });
  }
  for (const loop of ctx.flowing.loops) {
    const gain = loop.reduce((g, s) => g + s.stage.gainDb + Math.max(s.stage.outputDb, -200), 0);
    if (loop.some((s) => s.stage.muted)) continue;
    const devices = [...new Set(loop.map((s) => s.device))];
    remarks.push({
      rule: 'howl', severity: gain > 0 ? 'fault' : 'caution', subjects: devices,
      what: `Signal can run in a circle through ${devices.map((d) => ctx.device(d).name).join(', ')}.`,
      why: `Once round it gains ${gain.toFixed(1)} dB${gain > 0 ? ', so it will howl' : '; it will ring and colour the sound'}. The figures leave the way back out. Disconnect the lead that closes the circle.`,
    });
  }
  return remarks;
};
