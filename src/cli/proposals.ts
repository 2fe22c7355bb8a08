import { kindOf } from '../core/kinds';
import { type Outcome, reasonOf } from '../core/outcome';
import { nameOf, type Rig, type Sound } from '../core/rig';
import {
  type InsideProposal,
  type OrderProposal,
  proposeBuffers,
  proposeInside,
  proposeIsolation,
  proposeOrder,
} from '../core/solve';
import { fixed } from '../core/units';
import { exactSolver } from './exact-solver';

/** All proposals for one sound, as figures and as lines of words. */
export async function proposals(rig: Rig, sound: Sound, hostId?: string) {
  const host = hostId ?? rig.devices.find((d) => kindOf(d.kind).hosts)?.id;
  const solver = await exactSolver();
  const order = await proposeOrder(rig, sound);
  const inside = host === undefined ? null : proposeInside(rig, host, solver);
  const isolation = proposeIsolation(rig, sound);
  const buffers = await proposeBuffers(rig, sound);
  const words: Line[] = [
    ...orderLines(order).map((w): Line => ['order', w]),
    ...insideLines(rig, inside).map((w): Line => ['inside', w]),
    ...(isolation.cuts.length
      ? isolation.cuts.map((c): Line => ['isolate', `${c.words}: ${c.why}.`])
      : [['isolate', 'No hum loop needs opening.'] as [string, string]]),
    ...isolation.spared.map((w): Line => ['isolate', `${w}.`]),
    ...(buffers.gains.length
      ? buffers.gains.map((b): Line => ['buffer', `${b.words}: ${fixed(b.gainDb)} dB at 5 kHz.`])
      : [['buffer', 'No buffer would earn its keep.'] as [string, string]]),
    ...buffers.spared.map((w): Line => ['buffer', `${w}.`]),
  ];
  return { order: told(order), inside: inside && told(inside), isolation, buffers, words };
}

/** What a line speaks of, and its words. */
type Line = [string, string];

/** In the answer to a script: the proposal, or in words why there is none. */
const told = <T>(o: Outcome<T>): T | string => (o.ok ? o.value : reasonOf(o));

function orderLines(order: Outcome<OrderProposal>): string[] {
  if (!order.ok) return [reasonOf(order)];
  const { moves, stays } = order.value;
  return [
    ...moves.map((m) => `${m.words}. ${m.reasons.join(' ')}`),
    ...stays.map((s) => `${s.words}.`),
    ...(moves.length || stays.length ? [] : ['It is in order already.']),
  ];
}

function insideLines(rig: Rig, inside: Outcome<InsideProposal> | null): string[] {
  if (!inside) return [];
  if (!inside.ok) return [reasonOf(inside)];
  if (!inside.value.possible)
    return [`It does not fit whatever leaves: ${inside.value.short.join(', ')}.`];
  return inside.value.moves.length
    ? inside.value.moves.map(
        (m) => `${nameOf(rig, m.device)}: ${m.to}, ${m.place}, because ${m.reasons.join('; ')}.`,
      )
    : ['Everything can stay where it is.'];
}
