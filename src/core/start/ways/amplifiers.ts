import { at as entryAt } from '../../outcome';
import type { Device, End as Jack } from '../../rig/schema';
import { jobOf, type Making, METRES, type Waiting, WIDENING, widens } from '../making';
import {
  type AmpTurns,
  inLoop,
  isLate,
  lateOnes,
  microphones,
  shared,
  standUp,
  type Wiring,
} from './amp-parts';
import { inTurns } from './amp-turns';
import { type End, isAmp } from './ends';

/**
 * Pedals, then one amplifier or several: time effects in the loop of the only one, both sides of a
 * wide effect to two, an isolated splitter to several, or a switcher where one sounds at a time.
 */
export function toAmplifiers(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
): AmpTurns | undefined {
  const amps = w.brief.destinations.filter(isAmp);
  const direct = w.brief.destinations.filter((d) => !isAmp(d));
  for (const wedge of direct.filter((d) => d.way === 'stage'))
    w.choices.take(
      `wedge-${wedge.id}`,
      wedge.name,
      [['desk', 'left to the desk']],
      'desk',
      () =>
        'Amplifiers are heard on stage as they are; a loudspeaker beside them is fed by the desk, ' +
        'behind the microphones that are here.',
    );
  if (amps.length === 1) return void toOne(w, from, pedals, entryAt(amps, 0), direct);
  return w.brief.means?.amps === 'one'
    ? inTurns(w, from, pedals, amps, direct)
    : void toAll(w, from, pedals, amps, direct);
}

function toOne(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  line: End,
  direct: readonly End[],
): void {
  const { making } = w;
  const loop = lateOnes(w, pedals, `the loop of ${line.name}`);
  const at = making.through(
    from,
    pedals.filter((d) => !loop.includes(d)),
  );
  const stage = standUp(making, line, at);
  inLoop(
    making,
    loop,
    { device: stage.amp.id, jack: 'send' },
    { device: stage.amp.id, jack: 'return' },
  );
  microphones(making, [stage], direct);
}

/** All amplifiers at once. */
function toAll(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  amps: readonly End[],
  direct: readonly End[],
): void {
  const { making } = w;
  const get = amps.length === 2 ? twoGet(w, from, pedals) : 'same';
  const wet = get === 'dry-wet' || get === 'sides-wet' ? pedals.filter(isLate) : [];
  const rest = pedals.filter((d) => !wet.includes(d));
  const row = get === 'sides-wet' ? sidesDriven(w, rest) : rest;
  const at = making.through(from, row, get === 'sides' || get === 'sides-wet');
  const fed = at.right ? bothSides(making, at) : shared(w, at, amps.length).ends;
  const [dry, line] = fed;
  if (wet.length && dry && line)
    fed[1] = making.through({ left: line, metres: METRES.patch }, wet).left;
  microphones(
    making,
    amps.map((line, n) => standUp(making, line, { left: entryAt(fed, n) })),
    direct,
  );
}

/** What two amplifiers that sound at once get. */
function twoGet({ choices }: Wiring, from: Waiting, pedals: readonly Device[]) {
  const isWide = widens(from, pedals);
  const hasWet = pedals.some(isLate);
  if (!isWide && !hasWet) return 'same';
  const staysWide =
    hasWet &&
    widens(
      from,
      pedals.filter((d) => !isLate(d)),
    );
  return choices.take(
    'amps-fed',
    'What the two amplifiers get',
    [
      ...(isWide ? [['sides', 'a side each'] as const] : []),
      ['same', 'both the same'] as const,
      ...(hasWet ? [['dry-wet', 'the first dry, the second with echo and room'] as const] : []),
      ...(staysWide ? [['sides-wet', 'a side each, the second with echo and room'] as const] : []),
    ],
    isWide ? 'sides' : 'same',
    (taken) =>
      taken === 'sides'
        ? 'The last effects make two sides; an amplifier each keeps them apart. ' +
          'Transformers between break the circle of grounds that two amplifiers close.'
        : taken === 'sides-wet'
          ? 'What makes two sides stands before them; echo and room are heard from one of them alone.'
          : taken === 'dry-wet'
            ? 'The dry one stays clear however long the echoes are; turn the mix of what stands ' +
              'before the wet one all the way up, so that it adds no second dry.'
            : 'Both say the same.',
  );
}

/** A row with a buffer in front of what makes two sides: off, that ties what stands before it to both. */
function sidesDriven({ making, choices }: Wiring, row: readonly Device[]): Device[] {
  const at = row.findIndex((d) => WIDENING.includes(jobOf(d)));
  if (at < 1) return [...row];
  choices.take(
    'sides-buffer',
    'In front of what makes two sides',
    [['buffer', 'a buffer']],
    'buffer',
    () =>
      'When what makes two sides is off, it ties what stands before it to both transformers; a buffer drives them.',
  );
  const buffer = making.add('buffer', 'Buffer, sides', { place: 'floor', engaged: true });
  return [...row.slice(0, at), buffer, ...row.slice(at)];
}

/** Two sides through transformers, so that their grounds do not meet. */
function bothSides(making: Making, at: Waiting): Jack[] {
  const iso = making.add('hum-isolator', 'Isolator', { place: 'floor' });
  making.join(at.left, { device: iso.id, jack: 'in' }, METRES.patch);
  if (at.right) making.join(at.right, { device: iso.id, jack: 'inR' }, METRES.patch);
  return ['out', 'outR'].map((jack) => ({ device: iso.id, jack }));
}
