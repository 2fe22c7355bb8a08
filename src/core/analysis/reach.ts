import { byKey } from '../graph';
import { at } from '../outcome';
import { fixes, type Remark } from '../findings/finding';
import { byId, endWords, leadsInto } from '../rig/find';
import type { End } from '../rig/schema';
import { withSetting } from '../control/reach';
import { kindOf } from '../kinds';
import { settingOf, stateIn } from '../rig/device-state';
import { arrivingFigures, type DestinationFigures, type StationFigures } from '../signal';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import { routeTo } from '../walk';
import type { Remarker } from './evidence';
import { aheadOf, missingLeads, openingsBefore } from './missing-leads';
import { allOf } from '../units';

/** Destinations that nothing leads to, and sources that lead nowhere. */
export const reachRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => {
  const missing = (d: string) => fixes(wantsFixes ? missingLeads(ctx, d) : []);
  const remarks: Remark[] = [];
  const cut = destinations.filter((d) => !d.connected).map((d) => d.device);
  const { first, from } = firstOfEach(ctx, cut);
  for (const d of destinations) {
    if (!d.connected) {
      if (first.get(d.device) !== d.device) continue;
      const alike = cut.filter((id) => id !== d.device && first.get(id) === d.device);
      remarks.push({
        rule: 'no-route',
        severity: 'fault',
        // With the box that the missing lead leaves.
        subjects: [d.device, ...alike, from(d.device)].filter((id) => id !== undefined),
        about: d.device,
        what: `Nothing reaches ${allOf([d.device, ...alike].map((id) => ctx.device(id).name))}.`,
        why: `No way of leads and devices leads there from any instrument.${beginning(ctx, d.device)}`,
        ...missing(d.device),
      });
    } else if (
      d.selected &&
      !d.levelDbu &&
      !stations.some(
        (s) => d.route.includes(s.id) && (s.state === 'muted' || s.state === 'unused'),
      ) &&
      !isTurnedDown(ctx, stations, d)
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

/**
 * Where on the way to a silent destination the signal stops: inside a box, or on its way to an output beside
 * the main one, so in the last box that lets any out.
 */
const stopsIn = (way: readonly StationFigures[]): StationFigures | undefined =>
  way.find((s) => s.input?.levelDbu && !s.output.levelDbu) ??
  way.findLast((s) => s.output.levelDbu);

const wayTo = (stations: readonly StationFigures[], { route }: DestinationFigures) =>
  route.flatMap((id) => stations.find((s) => s.id === id) ?? []);

/**
 * Whether a destination is silent on purpose: a knob of the box in which the signal stops stands at an end,
 * and where it usually stands there is sound again.
 */
function isTurnedDown(
  ctx: SoundContext,
  stations: readonly StationFigures[],
  d: DestinationFigures,
): boolean {
  const stops = stopsIn(wayTo(stations, d));
  if (!stops) return false;
  const device = ctx.device(stops.device);
  const kind = kindOf(device.kind);
  const state = stateIn(ctx.sound, device.id);
  return kind.parameters.some((p) => {
    const value = settingOf(kind, device, state, p.id);
    if (p.type !== 'knob' || (value !== p.min && value !== p.max) || value === p.initial)
      return false;
    const sound = withSetting(ctx.sound, device.id, p.id, p.initial);
    const heard = arrivingFigures(listenedTo(ctx, ctx.rig, sound));
    return heard.some((x) => x.device === d.device && x.levelDbu !== null);
  });
}

/**
 * For each destination that nothing reaches the one that it is told with: those for which the likeliest
 * lead is the same lack one lead, as a loudspeaker and the desk behind it do; the nearest to it is first.
 * And the box that this lead leaves, if one does.
 */
function firstOfEach(
  ctx: SoundContext,
  cut: readonly string[],
): { first: ReadonlyMap<string, string>; from: (id: string) => string | undefined } {
  const leads = new Map(
    cut.map((id) => [id, missingLeads(ctx, id)[0]?.edits.find((e) => e.edit === 'connect')?.lead]),
  );
  const keyOf = (id: string) => {
    const lead = leads.get(id);
    const ends = lead ? [lead.from, lead.to] : [beginningOf(ctx, id)];
    return ends.map((e) => (e ? `${e.device} ${e.jack}` : id)).join(' ');
  };
  const groups = byKey(cut, keyOf);
  const first = new Map(
    [...groups.values()].flatMap((group) => {
      const [nearest] = group.toSorted(
        (a, b) => aheadOf(ctx, a).size - aheadOf(ctx, b).size || byId({ id: a }, { id: b }),
      );
      return group.map((id): [string, string] => [id, nearest ?? id]);
    }),
  );
  // An instrument may lie there for somebody else.
  const isBox = (id: string) => kindOf(ctx.device(id).kind).job !== 'instrument';
  return { first, from: (id) => [leads.get(id)?.from.device].find((x) => x && isBox(x)) };
}

/** The open input that what leads to a destination begins with. */
function beginningOf(ctx: SoundContext, destination: string): End | undefined {
  const isFed = (id: string) => leadsInto(ctx.rig, id).length > 0;
  return openingsBefore(ctx, destination).find(({ end }) => !isFed(end.device))?.end;
}

function beginning(ctx: SoundContext, destination: string): string {
  const first = beginningOf(ctx, destination);
  return first && first.device !== destination
    ? ` What leads there begins at ${endWords(ctx.rig, first)}, and nothing is plugged in there.`
    : '';
}

/** How far the signal comes on its way to a destination that is silent. */
function endingAt(
  ctx: SoundContext,
  stations: readonly StationFigures[],
  d: DestinationFigures,
): string {
  const way = wayTo(stations, d);
  const stops = stopsIn(way);
  return stops
    ? `Signal comes as far as ${ctx.device(stops.device).name}.`
    : 'Nothing on the way to it carries any signal.';
}
