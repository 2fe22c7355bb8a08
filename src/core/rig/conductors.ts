import { at } from '../outcome';
import { conductorsOf, type Jack, kindOf, type Point } from '../kinds';
import { CONTROL_LEADS } from './lead-types';
import type { Device, Lead } from './schema';

const jack = (device: Device | undefined, id: string): Jack | undefined =>
  device && kindOf(device.kind).jacks.find((j) => j.id === id);

/**
 * Which conductors of its two jacks a lead joins, as points of the sending and of the receiving
 * device.
 *
 * A TS plug reaches the tip only; in a stereo jack the ring is shorted and its side is lost. A TRS
 * lead joins tip and ring. One branch of an insert lead joins the conductor it names at the
 * two-conductor end: without a name the tip where it leaves and the ring where it comes back. A
 * digital lead joins as many channels as both ends have. Leads for messages and controls join
 * nothing that carries sound.
 */
export function joinsOf(
  lead: Lead,
  from: Device | undefined,
  to: Device | undefined,
): [Point, Point][] {
  if (CONTROL_LEADS.includes(lead.type)) return [];
  const a = jack(from, lead.from.jack);
  const b = jack(to, lead.to.jack);
  if (!a || !b) return [];
  const [as, bs] = [conductorsOf(a), conductorsOf(b)];
  if (lead.type === 'digital' || (lead.type === 'inside' && a.channels && b.channels))
    return as.slice(0, bs.length).map((p, i) => [p, at(bs, i)]);
  if (lead.type === 'insert' && (as.length > 1 || bs.length > 1)) {
    const pick = (jack: Jack, points: readonly Point[], end: 'from' | 'to'): Point => {
      if (points.length < 2) return at(points, 0);
      const ring = lead.conductor
        ? lead.conductor === 'ring'
        : end === 'to' && jack.insert !== undefined;
      return points[ring ? 1 : 0]!;
    };
    return [[pick(a, as, 'from'), pick(b, bs, 'to')]];
  }
  if ((lead.type === 'stereo' || lead.type === 'balanced') && a.stereo && b.stereo)
    return [
      [at(as, 0), at(bs, 0)],
      [at(as, 1), at(bs, 1)],
    ];
  return [[at(as, 0), at(bs, 0)]];
}
