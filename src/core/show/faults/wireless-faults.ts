import { kindOf } from '../../kinds';
import { withStages } from './device-faults';
import { type Fault, type Sort } from './fault';
import { boxes } from './look';

/** Wireless: no link, battery, channel. */
export const wirelessFaults: Sort = {
  id: 'wireless',
  words: 'Wireless',
  odds: 'No link in 2 of 1000 shows, an empty battery in 2, the wrong channel in 1.',
  expand: ({ rig }) =>
    boxes(rig)
      .filter((d) => kindOf(d.kind).job === 'wireless')
      .flatMap((device) => {
        const of = (id: string, words: string, odds: number, mend: Fault['mend']): Fault => ({
          id: `wireless ${id} ${device.id}`,
          sort: 'wireless',
          words: `${device.name}: ${words}`,
          subjects: [device.id],
          perThousand: odds,
          dark: id === 'battery' ? [device.id] : [],
          where: 'player',
          ...(id === 'channel' && { screenAt: device.id }),
          mend,
          change: (w) => withStages(w, device.id, 'no link', (s) => ({ ...s, muted: true })),
        });
        return [
          of('link', 'no link', 2, {
            words: 'put in the emergency lead; then look at antennas and other transmitters',
            seconds: 25,
            spare: { is: 'lead', type: 'instrument', metres: 6 },
          }),
          of('battery', 'the battery of the pack is empty', 2, {
            words: 'put in a fresh battery',
            seconds: 30,
            spare: { is: 'part', words: 'battery for the radio pack' },
          }),
          of('channel', 'sender and receiver stand on different channels', 1, {
            words:
              'put both on the channel of the frequency plan; only on frequencies that are allowed here',
            seconds: 40,
          }),
        ];
      }),
};
