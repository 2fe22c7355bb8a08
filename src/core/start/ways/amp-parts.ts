import { at as entryAt } from '../../outcome';
import type { Brief, Device, End as Jack } from '../../rig/schema';
import type { Choices } from '../choices';
import { jobOf, type Making, METRES, type Waiting } from '../making';
import { type End, finish } from './ends';

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

/** Where time effects stand, where a loop is there for them. */
export function lateOnes(
  { choices, other }: Wiring,
  pedals: readonly Device[],
  loop: string,
): Device[] {
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

/** A row between a send and a return. */
export function inLoop(making: Making, row: readonly Device[], send: Jack, back: Jack): void {
  if (!row.length) return;
  const out = making.through({ left: send, metres: METRES.amp }, row);
  making.join(out.left, back, METRES.amp);
}

/** A gain at which an amplifier stays clean enough for pedals to make the difference. */
const CLEAN_GAIN = 2;

/** An amplifier as it is asked for; where pedals drive, it is turned down, so that they make the sounds. */
export function ampFor(making: Making, { way, name }: End): Device {
  const isDriven = making.devices.some((d) => ['drive', 'fuzz'].includes(jobOf(d)));
  return making.add(way === 'head' ? 'head-tube' : 'combo-tube-loop', name, {
    place: 'amps',
    ...(isDriven && { settings: { gain: CLEAN_GAIN } }),
  });
}

/** An amplifier, with a cabinet where it needs one, behind what waits. */
export function standUp(making: Making, line: End, at: Pick<Waiting, 'left'>): Stage {
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

/** One line to as many amplifiers, each behind a transformer; and the boxes that part it. */
export function shared({ making, choices }: Wiring, at: Waiting, count: number, inTurns = false) {
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

/**
 * A microphone in front of each loudspeaker, for each who is not in the room: two of them are the two
 * sides of one input, more get inputs of their own. Says which of the loudspeakers each input hears.
 */
export function microphones(
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
