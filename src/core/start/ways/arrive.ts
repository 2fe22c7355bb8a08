import { at as entryAt } from '../../outcome';
import { type Kind, kindOf } from '../../kinds';
import type { Brief, Device } from '../../rig/schema';
import type { Choices } from '../choices';
import { type Making, METRES, type Waiting } from '../making';
import { isDigital, isFeed } from '../instruments';

type Source = Brief['sources'][number];

/** A source as a device of the start. */
export interface Playing {
  line: Source;
  device: Device;
}

/**
 * The instruments of a brief; where they are changed and not played together, the first one is
 * played, and voices and feeds all the same. What sends line level is turned down to what pedals are
 * made for.
 */
export function playersOf(making: Making, choices: Choices, brief: Brief): Playing[] {
  const played = brief.sources.filter((line) => !isFeed(line));
  return brief.sources.map((line) => ({
    line,
    device: making.add(line.kind, line.name, {
      ...(kindOf(line.kind).stands === undefined && { place: 'player' as const }),
      ...(played.indexOf(line) > 0 && !brief.means?.together && { engaged: false }),
      ...(isTurnedDown(choices, line, brief) && { settings: { volume: TURNED_DOWN } }),
    }),
  }));
}

/** A volume that brings line level down to an instrument's: 12 dB. */
const TURNED_DOWN = 5;

function isTurnedDown(choices: Choices, line: Source, brief: Brief): boolean {
  const kind = kindOf(line.kind);
  const isPlugged = !isFeed(line) && !isDigital(line);
  if (!isPlugged || !brief.gear.length || peakOf(kind) <= PACK_TAKES_DBU) return false;
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
  if (!line.wireless || isFeed(line)) return { left, metres: METRES.player };
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
  const at = { left: { device: radio.id, jack: 'out' }, metres: METRES.receiver };
  return withSpare(making, choices, line, at, several);
}

/** A second receiver beside the first, on a selector, where a lead is not spare enough. */
function withSpare(
  making: Making,
  choices: Choices,
  line: Source,
  at: Waiting,
  several: boolean,
): Waiting {
  const spare = choices.take(
    `spare-${line.id}`,
    `When the wireless of ${line.name} fails`,
    [
      ['lead', 'a lead into the emergency jack'],
      ['second', 'a second receiver, on a selector'],
    ],
    'lead',
    (taken) =>
      taken === 'lead'
        ? 'A lead in the receiver’s emergency jack takes priority over the radio: keep one plugged in there or at hand.'
        : 'The second pack is clipped on and the selector pressed; nothing has to be plugged in.',
  );
  if (spare === 'lead') return at;
  const of = several ? `, ${line.name}` : '';
  const second = making.add('wireless', `Spare wireless${of}`, { place: 'rack' });
  const selector = making.add('input-selector', `Receiver selector${of}`, { place: 'floor' });
  making.join(at.left, { device: selector.id, jack: 'a' }, at.metres);
  making.join(
    { device: second.id, jack: 'out' },
    { device: selector.id, jack: 'b' },
    METRES.receiver,
  );
  return { left: { device: selector.id, jack: 'out' }, metres: METRES.patch };
}

type Join = 'mixer' | 'selector' | 'passive';

/** The choice of how instruments come together. */
export const JOIN = 'join';

const JOIN_WHY: Record<Join, string> = {
  mixer:
    'All inputs stay up, so that an instrument is changed by its volume alone; ' +
    'nothing has to be pressed.',
  selector: 'One at a time, changed by a press; what is not selected is not heard at all.',
  passive: 'It needs no power, but each instrument loads the other: both get softer and duller.',
};

function joinedBy(choices: Choices, players: readonly Playing[], together: boolean): Join {
  if (players.length < 2) return 'mixer';
  const ways: readonly (readonly [Join, string])[] = [
    ['mixer', 'by a mixer, all of them plugged in'],
    ...(together || players.length > INPUTS.length
      ? []
      : [['selector', 'by a selector, one at a time'] as const]),
    ...(players.length === 2 ? [['passive', 'by a passive box'] as const] : []),
  ];
  return choices.take(JOIN, 'How instruments come together', ways, 'mixer', (t) => JOIN_WHY[t]);
}

const INPUTS = ['a', 'b', 'c', 'd'];

/** What is known of those who come: several by wireless, all at once, pedals behind them. */
export interface Arriving {
  several: boolean;
  together: boolean;
  hasPedals?: boolean;
}

/** Instruments brought to one point: one alone as it comes, several by one box or more. */
export function arrive(
  making: Making,
  choices: Choices,
  players: readonly Playing[],
  { several, together, hasPedals }: Arriving,
): Waiting {
  const arriving = players.map((p) => arrival(making, choices, p, several));
  const by = joinedBy(choices, players, together);
  const isSum = together && hasPedals;
  if (by === 'mixer') return mixed(making, arriving, isSum ? shareOf(players) : undefined);
  const box =
    by === 'selector'
      ? making.add('input-selector', 'Instrument selector', { place: 'floor' })
      : making.add('combiner-passive', 'Instrument joiner', {
          place: 'floor',
          settings: { select: 'both' },
        });
  for (const [n, { left, metres }] of arriving.entries())
    making.join(left, { device: box.id, jack: entryAt(INPUTS, n) }, metres);
  return { left: { device: box.id, jack: 'out' }, metres: METRES.patch };
}

/** By mixers, two at a time; the first takes both down, each later one what comes to it. */
const mixed = (making: Making, arriving: readonly Waiting[], share: number | undefined): Waiting =>
  arriving.slice(1).reduce(
    (at, extra, n) => {
      const name = arriving.length > 2 ? `Instrument joiner ${n + 1}` : 'Instrument joiner';
      const joiner = making.add('mixer-line', name, {
        place: 'floor',
        ...(share !== undefined && {
          settings: { ...(n === 0 && { levelA: share }), levelB: share },
        }),
      });
      making.join(at.left, { device: joiner.id, jack: 'a' }, at.metres);
      making.join(extra.left, { device: joiner.id, jack: 'b' }, extra.metres);
      return { left: { device: joiner.id, jack: 'out' }, metres: METRES.patch };
    },
    entryAt(arriving, 0),
  );

/** What pedals are made for at most, as a peak in dBu: a typical figure. */
const PEDALS_TAKE_DBU = 0;

/**
 * The knob of a mixer, from 0 to 10, at which instruments that sound at once stay together as soft as
 * pedals are made for: their peaks are added as voltages, the worst case. Nothing where they are softer.
 */
function shareOf(players: readonly Playing[]): number | undefined {
  const dbus = players.map(({ line, device }) => {
    const isDown = device.settings?.volume === TURNED_DOWN;
    return peakOf(kindOf(line.kind)) - (isDown ? 12 : 0);
  });
  const sum = dbus.reduce((volts, dbu) => volts + 10 ** (dbu / 20), 0);
  const share = 10 * (10 ** (PEDALS_TAKE_DBU / 20) / sum);
  return share < 10 ? Math.floor(share * 10) / 10 : undefined;
}
