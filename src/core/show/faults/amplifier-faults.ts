import { kindOf, type Pass } from '../../kinds';
import type { Device } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { withStages } from './device-faults';
import { type Fault, REACH_SECONDS, type Sort } from './fault';
import { boxes } from './look';

const WEAK_DB = 10;

/** Tubes, output stages, loudspeakers; and the standby switch, which does the same. */
export const amplifierFaults: Sort = {
  id: 'amplifier',
  words: 'Amplifiers and loudspeakers',
  odds:
    'A tube fails in 1.2 of 1000 shows and is weak in 0.8, an output stage in 0.3, a loudspeaker ' +
    'in 0.3; left on standby it is in 4.',
  expand: ({ rig }) => boxes(rig).flatMap((d) => [...ofAmp(d), ...ofSpeaker(d)]),
};

const drivesSpeaker = (s: Extract<Pass, { is: 'stage' }>): boolean => s.speaker !== undefined;
const CAUTION =
  'with the amplifier off, cooled down and out of the wall, by someone who knows tube amplifiers';

function ofAmp(device: Device): Fault[] {
  const kind = kindOf(device.kind);
  const speaker = kind.jacks.some((j) => j.signal === 'speaker' && j.direction === 'out');
  if (kind.job !== 'amp' || !kind.mains) return [];
  const where = placeOf(device);
  const is = (s: Extract<Pass, { is: 'stage' }>) =>
    speaker ? drivesSpeaker(s) : s.cabinet === true;
  const base = { subjects: [device.id], dark: [], where };
  const spare = { is: 'device' as const, kind: device.kind };
  const mute: Fault['change'] = (w) =>
    withStages(w, device.id, 'silent', (s) => (is(s) ? { ...s, muted: true } : s));
  return [
    {
      ...base,
      id: `standby ${device.id}`,
      sort: 'hand',
      words: `${device.name} is on standby`,
      perThousand: 4,
      seenAt: device.id,
      mend: { words: `take ${device.name} off standby`, seconds: REACH_SECONDS[where] },
      change: mute,
    },
    {
      ...base,
      id: `tube dead ${device.id}`,
      sort: 'amplifier',
      words: `a tube or the output stage of ${device.name} is dead, its lamps still on`,
      perThousand: 1.5,
      mend: {
        words: `go over to the spare head; tubes are changed later, ${CAUTION}`,
        seconds: REACH_SECONDS[where] + 120,
        spare,
      },
      change: mute,
    },
    {
      ...base,
      id: `tube weak ${device.id}`,
      sort: 'amplifier',
      words: `a tube of ${device.name} has become weak`,
      perThousand: 0.8,
      mend: {
        words: `turn it up for tonight; tubes are changed after the show, ${CAUTION}`,
        seconds: REACH_SECONDS[where],
      },
      change: (w) =>
        withStages(w, device.id, 'weak output', (s) =>
          is(s)
            ? {
                ...s,
                outputDb: s.outputDb - WEAK_DB,
                ceiling: { ...s.ceiling, dbu: s.ceiling.dbu - WEAK_DB / 2 },
              }
            : s,
        ),
    },
  ];
}

/** Loudspeakers: what filters as a cabinet does and stands by itself or in a combo. */
function ofSpeaker(device: Device): Fault[] {
  const kind = kindOf(device.kind);
  if (kind.job !== 'cabinet' && !(kind.job === 'amp' && kind.jacks.some((j) => j.signal === 'air')))
    return [];
  const where = placeOf(device);
  const toAir = (s: Extract<Pass, { is: 'stage' }>) =>
    kind.jacks.some((j) => j.id === s.to && j.signal === 'air');
  const base = {
    sort: 'amplifier' as const,
    subjects: [device.id],
    dark: [],
    where,
  };
  return [
    {
      ...base,
      id: `speaker dead ${device.id}`,
      words: `the loudspeaker of ${device.name} is open`,
      perThousand: 0.2,
      mend: {
        words:
          'amplifier off before anything of a speaker line is unplugged; then the spare cabinet',
        seconds: REACH_SECONDS[where] + 120,
        spare: { is: 'device', kind: device.kind },
      },
      change: (w) =>
        withStages(w, device.id, 'no air', (s) => (toAir(s) ? { ...s, muted: true } : s)),
    },
    {
      ...base,
      id: `speaker weak ${device.id}`,
      words: `the loudspeaker of ${device.name} rubs or is weak`,
      perThousand: 0.15,
      mend: {
        words: 'move the microphone to another loudspeaker, where the cabinet has several',
        seconds: REACH_SECONDS[where],
      },
      change: (w) =>
        withStages(w, device.id, 'weak air', (s) =>
          toAir(s) ? { ...s, outputDb: s.outputDb - WEAK_DB } : s,
        ),
    },
  ];
}
