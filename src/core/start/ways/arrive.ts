import { at as entryAt } from '../../outcome';
import { type Kind, kindOf } from '../../kinds';
import type { Brief, Device } from '../../rig/schema';
import type { Choices } from '../choices';
import { type Making, METRES, type Waiting } from '../making';

type Source = Brief['sources'][number];

/** A source as a device of the start. */
export interface Playing {
  line: Source;
  device: Device;
}

/**
 * The instruments of a brief; where they are changed and not played together, the first one is
 * played. What sends line level is turned down to what pedals are made for.
 */
export const playersOf = (making: Making, choices: Choices, brief: Brief): Playing[] =>
  brief.sources.map((line, n) => ({
    line,
    device: making.add(line.kind, line.name, {
      place: 'player',
      ...(n > 0 && !brief.means?.together && { engaged: false }),
      ...(isTurnedDown(choices, line, brief) && { settings: { volume: TURNED_DOWN } }),
    }),
  }));

/** A volume that brings line level down to an instrument's: 12 dB. */
const TURNED_DOWN = 5;

function isTurnedDown(choices: Choices, line: Source, brief: Brief): boolean {
  const kind = kindOf(line.kind);
  if (!brief.gear.length || peakOf(kind) <= PACK_TAKES_DBU) return false;
  if (!kind.parameters.some((p) => p.id === 'volume')) return false;
  return (
    choices.take(
      `level-${line.id}`,
      `How loud ${line.name} is`,
      [
        ['instrument', 'turned down to what pedals are made for'],
        ['line', 'all the way up'],
      ],
      'instrument',
      (taken) =>
        taken === 'instrument'
          ? 'It sends line level, which clips pedals that are made for instruments.'
          : 'It sends line level: mind the headroom of what follows.',
    ) === 'instrument'
  );
}

/** Peaks that leave a pack for instruments some room, in dBu. */
const PACK_TAKES_DBU = 3;

/** How high the peaks of an instrument are, where its kind says so, in dBu. */
const peakOf = (kind: Kind): number =>
  kind.figures.find((f) => f.id === 'peakDbu')?.typical ?? -Infinity;

/** From an instrument to the floor, by its own wireless where it has one and can have one. */
function arrival(
  making: Making,
  choices: Choices,
  { line, device }: Playing,
  several: boolean,
): Waiting {
  const left = { device: device.id, jack: 'out' };
  if (!line.wireless) return { left, metres: METRES.player };
  const isHot = peakOf(kindOf(device.kind)) > PACK_TAKES_DBU;
  const way = choices.take(
    `wireless-${line.id}`,
    `How ${line.name} comes`,
    [
      ['wireless', 'by wireless'],
      ['lead', 'on a lead'],
    ],
    isHot ? 'lead' : 'wireless',
    (taken) =>
      taken === 'wireless'
        ? 'Nobody trips over it; a buffer stands behind the pickup, so that no lead takes treble.'
        : isHot
          ? 'It sends line level, which is too much for a pack that is made for instruments.'
          : 'A lead needs no battery and has no delay.',
  );
  if (way === 'lead') return { left, metres: METRES.player };
  const name = several ? `Wireless, ${line.name}` : 'Wireless';
  const radio = making.add('wireless', name, { place: 'rack' });
  making.join(left, { device: radio.id, jack: 'in' }, METRES.pack);
  return { left: { device: radio.id, jack: 'out' }, metres: METRES.receiver };
}

/** Instruments brought to one point: one alone as it comes, several by joiners, two at a time. */
export function arrive(
  making: Making,
  choices: Choices,
  players: readonly Playing[],
  several: boolean,
): Waiting {
  const arriving = players.map((p) => arrival(making, choices, p, several));
  if (arriving.length > 1)
    choices.take(
      'join',
      'How instruments come together',
      [['mixer', 'by a mixer, all of them plugged in']],
      'mixer',
      () =>
        'All inputs stay up, so that an instrument is changed by its volume alone; ' +
        'nothing has to be pressed.',
    );
  return arriving.slice(1).reduce(
    (at, extra, n) => {
      const name = arriving.length > 2 ? `Instrument joiner ${n + 1}` : 'Instrument joiner';
      const joiner = making.add('mixer-line', name, { place: 'floor' });
      making.join(at.left, { device: joiner.id, jack: 'a' }, at.metres);
      making.join(extra.left, { device: joiner.id, jack: 'b' }, extra.metres);
      return { left: { device: joiner.id, jack: 'out' }, metres: METRES.patch };
    },
    entryAt(arriving, 0),
  );
}
