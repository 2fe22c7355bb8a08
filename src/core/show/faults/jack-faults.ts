import { kindOf } from '../../kinds';
import type { Device } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { withPlug } from './changes';
import { type Fault, REACH_SECONDS, type Sort, WEAR } from './fault';
import { boxes } from './look';

/**
 * Jacks: the contact that makes the way inside stays broken though nothing is plugged in. An open
 * jack cannot be told from an open lead until another lead is tried; it is a fault of its own.
 */
export const jackFaults: Sort = {
  id: 'jack',
  words: 'Jacks',
  odds: 'A contact that sticks is found in 0.4 of 1000 shows, a plug left in by a hand in 2.',
  expand: ({ rig, plugged }) =>
    boxes(rig).flatMap((d) => stuckContacts(d, plugged.get(d.id) ?? new Set())),
};

function stuckContacts(device: Device, plugged: ReadonlySet<string>): Fault[] {
  const kind = kindOf(device.kind);
  const where = placeOf(device);
  return (kind.loops ?? []).flatMap((loop): Fault[] => {
    if (loop.opensAt === 'never') return [];
    const jacks = loop.opensAt === 'send' ? loop.send : loop.return;
    if ([...loop.send, ...loop.return].some((j) => plugged.has(j))) return [];
    const base = {
      subjects: [device.id],
      dark: [],
      where,
      change: (w: Parameters<Fault['change']>[0]) =>
        jacks.reduce((v, jack) => withPlug(v, device.id, jack), w),
    };
    return [
      {
        ...base,
        id: `contact stuck ${device.id} ${loop.id}`,
        sort: 'jack',
        words: `the contact of ${loop.label} of ${device.name} sticks: the way inside stays broken`,
        perThousand: 0.4 * WEAR[where],
        mend: {
          words:
            `push a plug into ${loop.label} of ${device.name} a few times; if it stays, ` +
            'join its send and return by a short lead',
          seconds: REACH_SECONDS[where] + 20,
          spare: { is: 'lead', type: 'instrument', metres: 0.3 },
        },
      },
      {
        ...base,
        id: `plug left ${device.id} ${loop.id}`,
        sort: 'hand',
        words: `a plug was left in ${loop.label} of ${device.name}`,
        perThousand: 2,
        seenAt: device.id,
        mend: { words: `pull it out`, seconds: REACH_SECONDS[where] },
      },
    ];
  });
}
