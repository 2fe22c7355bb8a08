import { midiOf } from '../../midi';
import type { Device, Rig, Sound } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { standingAsIn } from './changes';
import { type Fault, REACH_SECONDS, type Sort } from './fault';
import { boxes } from './look';

/** Programs: overwritten in one sound, or counted off by one in all. */
export const programFaults: Sort = {
  id: 'program',
  words: 'Programs and numbers',
  odds: 'A program is found overwritten in 0.4 of 1000 shows for each, numbers off by one in 0.6.',
  expand: ({ rig }) => boxes(rig).flatMap((d) => ofDevice(rig, d)),
};

const addressOf = (sound: Sound, device: string): number | undefined => {
  const at = sound.states[device]?.program;
  return at === undefined ? undefined : (at.bank ?? 0) * 128 + at.number;
};

function ofDevice(rig: Rig, device: Device): Fault[] {
  if (!midiOf(device)?.programs) return [];
  const where = placeOf(device);
  const used = rig.sounds.filter((s) => addressOf(s, device.id) !== undefined);
  const at = (sound: Sound, by: number) => {
    const here = addressOf(sound, device.id);
    return here === undefined ? undefined : used.find((s) => addressOf(s, device.id) === here + by);
  };
  const base = {
    sort: 'program' as const,
    subjects: [device.id],
    dark: [],
    where,
    screenAt: device.id,
  };
  const offs = [1, -1].filter((by) => used.some((s) => at(s, by)));
  return [
    ...offs.map((by): Fault => ({
      ...base,
      id: `off by ${by} ${device.id}`,
      words: `${device.name} counts ${by > 0 ? 'one too high' : 'one too low'}: every call brings the neighbour`,
      perThousand: 0.3,
      mend: {
        words: `set how ${device.name} counts, or its bank`,
        seconds: REACH_SECONDS[where] + 40,
      },
      change: (w) => standingAsIn(w, [device.id], (s) => at(s, by)),
    })),
    ...used.flatMap((sound): Fault[] => {
      const other = used.find((s) => addressOf(s, device.id) !== addressOf(sound, device.id));
      if (!other) return [];
      return [
        {
          ...base,
          id: `overwritten ${device.id} ${sound.id}`,
          words: `the program of ${device.name} for ${sound.name} was overwritten`,
          perThousand: 0.4 / used.length,
          mend: {
            words: `set ${device.name} by hand and store it again`,
            seconds: REACH_SECONDS[where] + 60,
          },
          change: (w) =>
            standingAsIn(w, [device.id], (s) =>
              addressOf(s, device.id) === addressOf(sound, device.id) ? other : undefined,
            ),
        },
      ];
    }),
  ];
}
