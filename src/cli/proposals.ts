import { exactSolver } from './exact-solver';
import { kindOf } from '../core/kinds';
import type { Rig, Sound } from '../core/rig';
import { proposeBuffers, proposeInside, proposeIsolation, proposeOrder } from '../core/solve';
import { fixed } from '../core/units';

/** All proposals for one sound, as figures and as lines of words. */
export async function proposals(rig: Rig, sound: Sound, hostId?: string) {
  const host = hostId ?? rig.devices.find((d) => kindOf(d.kind).hosts)?.id;
  const solver = await exactSolver();
  const order = await proposeOrder(rig, sound);
  const inside = host === undefined ? null : proposeInside(rig, host, solver);
  const isolation = proposeIsolation(rig, sound);
  const buffers = await proposeBuffers(rig, sound);
  const words: [string, string][] = [
    ...(typeof order === 'string'
      ? [['order', order] as [string, string]]
      : order.moves.length
        ? order.moves.map((m): [string, string] => ['order', `${m.words}. ${m.reasons.join(' ')}`])
        : [['order', 'It is in order already.'] as [string, string]]),
    ...(inside === null
      ? []
      : typeof inside === 'string'
        ? [['inside', inside] as [string, string]]
        : !inside.possible
          ? [
              ['inside', `It does not fit whatever leaves: ${inside.short.join(', ')}.`] as [
                string,
                string,
              ],
            ]
          : inside.moves.length
            ? inside.moves.map((m): [string, string] => [
                'inside',
                `${m.device}: ${m.to}, ${m.place}, because ${m.reasons.join('; ')}.`,
              ])
            : [['inside', 'Everything can stay where it is.'] as [string, string]]),
    ...(isolation.cuts.length
      ? isolation.cuts.map((c): [string, string] => ['isolate', `${c.words}: ${c.why}.`])
      : [['isolate', 'No hum loop needs opening.'] as [string, string]]),
    ...(buffers.gains.length
      ? buffers.gains.map((b): [string, string] => [
          'buffer',
          `${b.words}: ${fixed(b.gainDb)} dB at 5 kHz.`,
        ])
      : [['buffer', 'No buffer would earn its keep.'] as [string, string]]),
  ];
  return { order, inside, isolation, buffers, words };
}
