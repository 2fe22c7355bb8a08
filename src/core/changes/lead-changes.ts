import { byKey, nearestFirst } from '../graph';
import { endWords } from '../rig/find';
import type { Lead, Rig } from '../rig/schema';
import { byId } from './parts';

/** A way from one device to another, whatever stands in it of those that came, went or moved. */
interface Joint {
  key: string;
  leads: Lead[];
}

/**
 * What is joined to what, with the devices in `through` taken for pieces of lead: what is true of
 * both rigs was not rewired, whatever was put in, taken out or moved.
 */
function jointsOf(rig: Rig, through: ReadonlySet<string>): Joint[] {
  const outOf = byKey(rig.leads, (l) => l.from.device);
  return rig.leads
    .filter((l) => !through.has(l.from.device))
    .flatMap((first) => {
      const onward = (way: Lead[]): Lead[][] => {
        const at = way[way.length - 1]?.to.device;
        return at !== undefined && through.has(at)
          ? (outOf.get(at) ?? []).map((next) => [...way, next])
          : [];
      };
      const ways = [...nearestFirst([[first]], onward, (way) => way[way.length - 1])];
      return ways.flatMap((leads): Joint[] => {
        const last = leads[leads.length - 1];
        if (!last || through.has(last.to.device)) return [];
        const { from } = first;
        const { to } = last;
        return [{ key: `${from.device}/${from.jack}>${to.device}/${to.jack}`, leads }];
      });
    });
}

/**
 * Leads that were plugged, pulled or changed. One that only follows from a device that was put in,
 * taken out or moved is not told beside it.
 */
export function leadChanges(before: Rig, after: Rig, moved: readonly string[]): string[] {
  const place = (l: Lead) => `${l.from.device}/${l.from.jack}>${l.to.device}/${l.to.jack}`;
  const old = new Map(before.leads.map((l) => [place(l), l]));
  const now = new Map(after.leads.map((l) => [place(l), l]));
  const [was, is] = [byId(before.devices), byId(after.devices)];
  const through = new Set([
    ...moved,
    ...before.devices.map((d) => d.id).filter((id) => !is.has(id)),
    ...after.devices.map((d) => d.id).filter((id) => !was.has(id)),
  ]);
  const [joined, joins] = [jointsOf(before, through), jointsOf(after, through)];
  const follows = (own: readonly Joint[], other: readonly Joint[]): Set<Lead> => {
    const there = new Set(other.map((j) => j.key));
    return new Set(own.filter((j) => there.has(j.key)).flatMap((j) => j.leads));
  };
  const [kept, still] = [follows(joined, joins), follows(joins, joined)];
  const lines: string[] = [];
  for (const [at, l] of now) {
    const other = old.get(at);
    const changes = other ? leadDetails(other, l) : [];
    if (changes.length)
      lines.push(
        `lead from ${endWords(after, l.from)} to ${endWords(after, l.to)}: ${changes.join(', ')}`,
      );
    else if (!other && !still.has(l))
      lines.push(`connected ${endWords(after, l.from)} to ${endWords(after, l.to)}`);
  }
  for (const [at, l] of old) {
    const isGone = !is.has(l.from.device) || !is.has(l.to.device);
    if (!now.has(at) && !isGone && !kept.has(l))
      lines.push(`disconnected ${endWords(before, l.from)} from ${endWords(before, l.to)}`);
  }
  return lines;
}

/** What is different about a lead between the same two jacks. */
function leadDetails(was: Lead, now: Lead): string[] {
  const told = <T>(a: T, b: T, say: (v: NonNullable<T>) => string, none: string): string[] =>
    a === b
      ? []
      : [
          `${b === undefined || b === null ? none : say(b)} (was ${a === undefined || a === null ? none : say(a)})`,
        ];
  return [
    ...told(was.type, now.type, (v) => v, ''),
    ...told(was.metres, now.metres, (v) => `${v} m`, ''),
    ...told(was.pfPerMetre, now.pfPerMetre, (v) => `${v} pF/m`, 'typical capacitance'),
    ...told(was.squareMm, now.squareMm, (v) => `${v} mm²`, 'no cross-section'),
    ...told(was.conductor, now.conductor, (v) => `on the ${v}`, 'on no one conductor'),
    ...told(
      was.shieldLifted ?? false,
      now.shieldLifted ?? false,
      (v) => (v ? 'shield open at one end' : 'shield whole'),
      '',
    ),
    ...told(was.pF, now.pF, (v) => `measured ${v} pF`, 'not measured'),
    ...told(
      was.plugs?.from,
      now.plugs?.from,
      (v) => `${v} plug at the start`,
      'usual plug at the start',
    ),
    ...told(was.plugs?.to, now.plugs?.to, (v) => `${v} plug at the end`, 'usual plug at the end'),
    ...told(
      was.crossed ?? false,
      now.crossed ?? false,
      (v) => (v ? 'tip and ring crossed' : 'straight'),
      '',
    ),
    ...told(was.label || undefined, now.label || undefined, (v) => `label ${v}`, 'no label'),
  ];
}
