import { at } from '../outcome';
import { fixes, type Remark } from '../findings/finding';
import { endWords } from '../rig/find';
import type { DestinationFigures, StationFigures } from '../signal';
import type { SoundContext } from '../signal/sound-context';
import { routeTo } from '../walk';
import type { Remarker } from './evidence';
import { aheadOf, missingLeads, openingsBefore } from './missing-leads';

/** Destinations that nothing leads to, and sources that lead nowhere. */
export const reachRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => {
  const missing = (d: string) => fixes(wantsFixes ? missingLeads(ctx, d) : []);
  const remarks: Remark[] = [];
  for (const d of destinations) {
    if (!d.connected) {
      remarks.push({
        rule: 'no-route',
        severity: 'fault',
        subjects: [d.device],
        what: `Nothing reaches ${d.name}.`,
        why: `No way of leads and devices leads there from any instrument.${beginning(ctx, d.device)}`,
        ...missing(d.device),
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
        why: endingAt(ctx, stations, d),
        ...missing(d.device),
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
  // An instrument whose signal stands where a lead is missing on the way to somebody is told with that.
  const told = new Set(
    remarks.flatMap(({ subjects }) =>
      missingLeads(ctx, at(subjects, 0))
        .slice(0, 1)
        .flatMap(({ edits }) => edits)
        .flatMap((e) => (e.edit === 'connect' ? [...aheadOf(ctx, e.lead.from.device)] : [])),
    ),
  );
  for (const source of stations) {
    if (
      !source.source ||
      told.has(source.device) ||
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

/** Where what leads to a destination begins with an open input, in words. */
function beginning(ctx: SoundContext, destination: string): string {
  const isFed = (id: string) => ctx.rig.leads.some((l) => l.to.device === id);
  const [first] = openingsBefore(ctx, destination).filter(({ end }) => !isFed(end.device));
  return first && first.end.device !== destination
    ? ` What leads there begins at ${endWords(ctx.rig, first.end)}, and nothing is plugged in there.`
    : '';
}

/** How far the signal comes on its way to a destination that is silent. */
function endingAt(
  ctx: SoundContext,
  stations: readonly StationFigures[],
  { route }: DestinationFigures,
): string {
  const way = route.flatMap((id) => stations.find((s) => s.id === id) ?? []);
  const last = way.findLast((s) => s.output.levelDbu);
  const stops = way.find((s) => s.input?.levelDbu && !s.output.levelDbu) ?? last;
  return stops
    ? `Signal comes as far as ${ctx.device(stops.device).name}.`
    : 'Nothing on the way to it carries any signal.';
}
