import type { Remark } from '../findings/finding';
import { routeTo } from '../walk';
import type { Remarker } from './evidence';

/** Destinations that nothing leads to, and sources that lead nowhere. */
export const reachRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const remarks: Remark[] = [];
  for (const d of destinations) {
    if (!d.connected) {
      remarks.push({
        rule: 'no-route',
        severity: 'fault',
        subjects: [d.device],
        what: `Nothing reaches ${d.name}.`,
        why: 'No way of leads and devices leads there from any instrument. Connect it, or remove it.',
      });
    } else if (
      d.selected &&
      !d.levelDbu &&
      !stations.some((s) => d.route.includes(s.id) && (s.state === 'muted' || s.state === 'unused'))
    ) {
      remarks.push({
        rule: 'silent',
        severity: 'fault',
        subjects: [d.device],
        what: `${d.name} is silent, and nothing on the way is muted.`,
        why: 'A level on the way is turned all the way down.',
      });
    }
  }
  const routed = new Set(destinations.flatMap((d) => d.route));
  const couldBe = new Set(
    routeTo(
      ctx.stations,
      ctx.steps,
      (s) => ctx.destinations.some((d) => d.device.id === s.device),
      true,
    ).map((s) => s.id),
  );
  for (const source of stations) {
    if (
      !source.source ||
      routed.has(source.id) ||
      couldBe.has(source.id) ||
      source.state !== 'engaged'
    )
      continue;
    remarks.push({
      rule: 'dead-end',
      severity: 'caution',
      subjects: [source.device],
      what: `${ctx.device(source.device).name} is not heard anywhere.`,
      why: 'Its way ends before a destination.',
    });
  }
  return remarks;
};
