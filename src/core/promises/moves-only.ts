import { allControls, endsOf, type Reached, reachOf, reachOfControl } from '../control';
import { nameOf } from '../rig/find';
import { routeBetween } from '../walk';
import type { SoundFigures } from '../analysis/sound-figures';
import type { Rig, Sound } from '../rig/schema';
import type { Breach, InSound } from './ground';
import { routeWords } from './hearing';

/**
 * A control changes what the named destinations hear, and nothing else, found by turning it from
 * end to end.
 */
export const movesOnly: InSound<'moves-only'> = (p, { rig, known }, sound, report) => {
  if (!endsOf(rig, p.device, p.setting).length)
    return [
      {
        sound: sound.id,
        why: `${nameOf(rig, p.device)} has no control "${p.setting}" that runs from one end to another.`,
        subjects: [p.device],
      },
    ];
  const like = known(sound.id)?.flowing;
  const reached = reachOf(rig, sound, p.device, p.setting, like);
  return judged(reached, p.destinations, [p.device], { rig, report, sound });
};

/** A control with everything that it moves changes what the named destinations hear, and nothing else. */
export const controlMovesOnly: InSound<'control-moves-only'> = (
  p,
  { rig, known },
  sound,
  report,
) => {
  const control = allControls(rig).find((c) => c.id === p.control);
  if (!control)
    return [{ sound: sound.id, why: `There is no control "${p.control}" any more.`, subjects: [] }];
  return judged(
    reachOfControl(rig, sound, control, known(sound.id)?.flowing),
    p.destinations,
    [...new Set(control.assigns.map((a) => a.device)), ...(control.device ? [control.device] : [])],
    { rig, report, sound },
  );
};

/** What is reached beyond the destinations that were named, and which of those is not. */
function judged(
  reached: readonly Reached[],
  destinations: readonly string[],
  devices: readonly string[],
  { rig, report, sound }: { rig: Rig; report: SoundFigures; sound: Sound },
): Breach[] {
  const extra = reached.filter((r) => !destinations.includes(r.destination));
  const missed = destinations.filter(
    (d) =>
      !reached.some((r) => r.destination === d) &&
      report.destinations.some((x) => x.device === d && x.levelDbu),
  );
  return [
    ...extra.map((r) => {
      // What a control moves may lie in several places: the one that leads here is told.
      const { device, route } = ways(devices, r.destination, report);
      return {
        sound: sound.id,
        why:
          `It moves ${nameOf(rig, r.destination)} too (${r.what.join(', ')})` +
          `${route.length ? `, by way of ${routeWords(rig, route)}` : ''}.`,
        subjects: [device, r.destination],
        route,
      };
    }),
    ...missed.map((d) => ({
      sound: sound.id,
      why: `It does not move ${nameOf(rig, d)}.`,
      subjects: [devices[0] ?? '', d],
    })),
  ];
}

/** The first of some devices from which a way leads to a destination, with that way. */
function ways(devices: readonly string[], destination: string, report: SoundFigures) {
  const found = devices.map((device) => ({
    device,
    route: [
      ...new Set(
        routeBetween(
          report.stations,
          report.steps,
          (s) => s.device === device,
          (s) => s.device === destination,
        ).map((s) => s.device),
      ),
    ],
  }));
  return found.find((x) => x.route.length) ?? { device: devices[0] ?? '', route: [] };
}
