import { at as entryAt } from '../../outcome';
import type { Brief, Device, End as Jack } from '../../rig/schema';
import type { Choices } from '../choices';
import { jobOf, type Making, METRES, type Waiting, widens } from '../making';
import { type End, finish, isAmp } from './ends';

const LATE = ['delay', 'reverb', 'looper'];
export const isLate = (d: Device): boolean => LATE.includes(jobOf(d));

/** An amplifier of the start: what it is fed into, and where it sounds. */
interface Stage {
  amp: Device;
  speaker: Device;
}

/** What a start knows while it wires amplifiers. */
export interface Wiring {
  making: Making;
  choices: Choices;
  brief: Brief;
  /** Order rules on which the other school is followed. */
  other: ReadonlySet<string>;
}

/** Amplifiers that take turns: what is set where when each of them sounds. */
export interface AmpTurns {
  /** By the number of the amplifier, from the first: settings of devices. */
  states: Record<string, { settings: Record<string, string> }>[];
  /** Who hears which of the amplifiers, by number from 0; who is not named here hears all of them. */
  hears: Record<string, number[]>;
}

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

/** Where time effects stand, where a loop is there for them. */
function lateOnes({ choices, other }: Wiring, pedals: readonly Device[], loop: string): Device[] {
  const late = pedals.filter(isLate);
  if (!late.length) return [];
  const place = choices.take(
    'time-effects',
    'Where time effects stand',
    [
      ['loop', `in ${loop}`],
      ['front', 'in front of it'],
    ],
    other.has('time-after-dirt') ? 'front' : 'loop',
    (taken) =>
      taken === 'loop'
        ? 'Echoes of a driven sound stay clear: behind the preamplifier they are not driven again.'
        : 'In front, echoes are driven with the rest, as the other school has it.',
  );
  return place === 'loop' ? late : [];
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

/** A row between a send and a return. */
function inLoop(making: Making, row: readonly Device[], send: Jack, back: Jack): void {
  if (!row.length) return;
  const out = making.through({ left: send, metres: METRES.amp }, row);
  making.join(out.left, back, METRES.amp);
}

/** A gain at which an amplifier stays clean enough for pedals to make the difference. */
const CLEAN_GAIN = 2;

/** An amplifier as it is asked for; where pedals drive, it is turned down, so that they make the sounds. */
function ampFor(making: Making, { way, name }: End): Device {
  const isDriven = making.devices.some((d) => ['drive', 'fuzz'].includes(jobOf(d)));
  return making.add(way === 'head' ? 'head-tube' : 'combo-tube-loop', name, {
    place: 'amps',
    ...(isDriven && { settings: { gain: CLEAN_GAIN } }),
  });
}

/** An amplifier, with a cabinet where it needs one, behind what waits. */
function standUp(making: Making, line: End, at: Pick<Waiting, 'left'>): Stage {
  const isHead = line.way === 'head';
  const amp = ampFor(making, line);
  making.join(at.left, { device: amp.id, jack: 'in' }, METRES.amp);
  return { amp, speaker: isHead ? cabinetOf(making, amp) : amp };
}

function cabinetOf(making: Making, amp: Device): Device {
  const taken = making.devices.some((d) => d.name === 'Cabinet');
  const cabinet = making.add('cabinet', taken ? `Cabinet, ${amp.name}` : 'Cabinet', {
    place: 'amps',
  });
  making.join(
    { device: amp.id, jack: 'speaker' },
    { device: cabinet.id, jack: 'in' },
    METRES.speaker,
  );
  return cabinet;
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
  const wet = get === 'dry-wet' ? pedals.filter(isLate) : [];
  const row = pedals.filter((d) => !wet.includes(d));
  const at = making.through(from, row, get === 'sides');
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
  return choices.take(
    'amps-fed',
    'What the two amplifiers get',
    [
      ...(isWide ? [['sides', 'a side each'] as const] : []),
      ['same', 'both the same'] as const,
      ...(hasWet ? [['dry-wet', 'the first dry, the second with echo and room'] as const] : []),
    ],
    isWide ? 'sides' : 'same',
    (taken) =>
      taken === 'sides'
        ? 'The last effects make two sides; an amplifier each keeps them apart. ' +
          'Transformers between break the circle of grounds that two amplifiers close.'
        : taken === 'dry-wet'
          ? 'The dry one stays clear however long the echoes are; turn the mix of what stands ' +
            'before the wet one all the way up, so that it adds no second dry.'
          : 'Both say the same.',
  );
}

/** Two sides through transformers, so that their grounds do not meet. */
function bothSides(making: Making, at: Waiting): Jack[] {
  const iso = making.add('hum-isolator', 'Isolator', { place: 'floor' });
  making.join(at.left, { device: iso.id, jack: 'in' }, METRES.patch);
  if (at.right) making.join(at.right, { device: iso.id, jack: 'inR' }, METRES.patch);
  return ['out', 'outR'].map((jack) => ({ device: iso.id, jack }));
}

/** One line to as many amplifiers, each behind a transformer; and the boxes that part it. */
function shared({ making, choices }: Wiring, at: Waiting, count: number, inTurns = false) {
  const kind = choices.take(
    'amp-splitter',
    'What parts the line to the amplifiers',
    [
      ['splitter-isolated', 'a splitter with transformers'],
      // One that cannot be switched to a side feeds both always.
      ...(inTurns ? [] : [['splitter-buffered', 'a buffered splitter'] as const]),
    ],
    'splitter-isolated',
    (taken) =>
      taken === 'splitter-isolated'
        ? 'Two amplifiers on one ground and one line hum; transformers break the circle.'
        : 'A buffer drives both, and their grounds stay joined.',
  );
  const ends: Jack[] = [];
  const boxes: Device[] = [];
  let left = at.left;
  for (let n = 1; n < count; n++) {
    const box = making.add(kind, count > 2 ? `Fork ${n}` : 'Fork', { place: 'floor' });
    making.join(left, { device: box.id, jack: 'in' }, METRES.patch);
    boxes.push(box);
    ends.push({ device: box.id, jack: 'a' });
    left = { device: box.id, jack: 'b' };
  }
  return { ends: [...ends, left], boxes };
}

/** One amplifier at a time: by forks, or by a switcher that can be called. */
function inTurns(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  amps: readonly End[],
  direct: readonly End[],
): AmpTurns {
  const { making, choices } = w;
  const way = choices.take(
    'turns',
    'What changes amplifiers',
    [
      ['fork', 'a splitter with transformers, by foot'],
      ...(amps.length > 4 ? [] : [['switcher', 'an amp switcher, by MIDI'] as const]),
    ],
    'fork',
    (taken) =>
      taken === 'fork'
        ? 'Each way has a transformer, which keeps the grounds of the amplifiers apart, and each ' +
          'keeps its own loudspeaker as its load.'
        : 'It takes programs and lets heads share a cabinet; amplifiers that do not sound ' +
          'see a load in it. Its ground and theirs meet.',
  );
  if (way === 'switcher') return bySwitcher(w, from, pedals, amps, direct);
  const at = making.through(from, pedals);
  const { ends, boxes } = shared(w, at, amps.length, true);
  const stages = amps.map((line, n) => standUp(making, line, { left: entryAt(ends, n) }));
  const hears = microphones(making, stages, direct);
  for (const [i, { speaker }] of stages.entries()) hears[speaker.id] = [i];
  return {
    hears,
    states: amps.map((_, n) =>
      Object.fromEntries(
        boxes.map((box, i) => [box.id, { settings: { select: i === n ? 'a' : 'b' } }]),
      ),
    ),
  };
}

/** One amplifier at a time, by a switcher that gives the others a load. */
function bySwitcher(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  amps: readonly End[],
  direct: readonly End[],
): AmpTurns {
  const { making } = w;
  const areHeads = amps.every((a) => a.way === 'head');
  const loop = areHeads ? lateOnes(w, pedals, 'the loop that the heads share') : [];
  const at = making.through(
    from,
    pedals.filter((d) => !loop.includes(d)),
  );
  const switcher = making.add('amp-switcher', 'Amp switcher', { place: 'amps' });
  const jack = (id: string): Jack => ({ device: switcher.id, jack: id });
  making.join(at.left, jack('in'), METRES.amp);
  const cabinet = areHeads ? cabinetFor(making, switcher, 1, 'Cabinet') : undefined;
  const stages = amps.map((line, i) => {
    const isHead = line.way === 'head';
    const amp = ampFor(making, line);
    making.join(jack(`amp${i + 1}`), { device: amp.id, jack: 'in' }, 1);
    if (!isHead) return { amp, speaker: amp };
    making.join({ device: amp.id, jack: 'speaker' }, jack(`speaker${i + 1}`), 1);
    if (loop.length) {
      making.join({ device: amp.id, jack: 'send' }, jack(`send${i + 1}`), 1);
      making.join(jack(`return${i + 1}`), { device: amp.id, jack: 'return' }, 1);
    }
    return {
      amp,
      speaker: cabinet ?? cabinetFor(making, switcher, i + 1, `Cabinet, ${line.name}`),
    };
  });
  inLoop(making, loop, jack('loopSend'), jack('loopReturn'));
  const hears = microphones(making, cabinet ? stages.slice(0, 1) : stages, direct);
  if (!cabinet) for (const [i, { speaker }] of stages.entries()) hears[speaker.id] = [i];
  return {
    hears: cabinet ? {} : hears,
    states: amps.map((line, i) => {
      const cab = cabinet ? '1' : line.way === 'head' ? String(i + 1) : 'none';
      return { [switcher.id]: { settings: { amp: String(i + 1), cab } } };
    }),
  };
}

function cabinetFor(making: Making, switcher: Device, n: number, name: string): Device {
  const cabinet = making.add('cabinet', name, { place: 'amps' });
  making.join(
    { device: switcher.id, jack: `cab${n}` },
    { device: cabinet.id, jack: 'in' },
    METRES.speaker,
  );
  return cabinet;
}

/**
 * A microphone in front of each loudspeaker, for each who is not in the room: two of them are the two
 * sides of one input, more get inputs of their own. Says which of the loudspeakers each input hears.
 */
function microphones(
  making: Making,
  stages: readonly Stage[],
  direct: readonly End[],
): Record<string, number[]> {
  const hears: Record<string, number[]> = {};
  for (const end of direct.filter((d) => d.way !== 'stage')) {
    const lines = stages.map(({ amp, speaker }) => {
      const name = stages.length > 1 ? `${end.name} mic, ${amp.name}` : `${end.name} mic`;
      const mic = making.add('microphone', name, { place: 'amps' });
      making.join({ device: speaker.id, jack: 'air' }, { device: mic.id, jack: 'air' }, METRES.air);
      return { line: { device: mic.id, jack: 'out' }, amp };
    });
    for (let n = 0; n < lines.length; n += 2) {
      const [first, second] = [entryAt(lines, n), lines[n + 1]];
      const name = n === 0 ? end.name : `${end.name}, ${first.amp.name}`;
      const input = finish(
        making,
        { way: end.way, name },
        { left: first.line, ...(second && { right: second.line }), metres: METRES.desk },
        'mic',
      );
      hears[input.id] = second ? [n, n + 1] : [n];
    }
  }
  return hears;
}
