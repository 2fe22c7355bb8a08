import type { Device } from '../../rig/schema';
import { jobOf, type Making, METRES, otherSide, type Waiting } from '../making';
import type { Wiring } from './amplifiers';
import { isWet } from './desk';
import { type End, isAmp, toEach } from './ends';

const DIRT = ['fuzz', 'drive', 'boost'];

/**
 * Into a modeler: what comes in front of it, what hangs in its loops, an amplifier and a cabinet
 * inside, and its outputs to each who hears them; a power stage on stage is fed before the cabinet.
 */
export function toModeler(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  ends: readonly End[],
): Device {
  const { making, brief, choices } = w;
  const wet = pedals.filter(isWet);
  const dirt = dirtInLoop(w, pedals);
  const amps = ends.filter(isAmp);
  const others = ends.filter((e) => !isAmp(e));
  const needsMore = amps.length > 0 || (dirt.length > 0 && wet.length > 0);
  const kind = choices.take(
    'modeler',
    'Which modeler',
    [
      ...(needsMore ? [] : [['modeler-compact', 'a compact one'] as const]),
      ['modeler-floor', 'one on the floor'] as const,
      ['modeler-rack', 'one in the rack'] as const,
    ],
    needsMore ? 'modeler-floor' : 'modeler-compact',
    (taken) =>
      taken === 'modeler-compact'
        ? 'Two loops and one pair of outputs do for what hangs on it.'
        : needsMore
          ? 'It needs a loop for what is dirty and two for both sides of what is wet, or a ' +
            'second pair of outputs for the stage.'
          : 'It has loops and outputs to spare.',
  );
  const at = making.through(
    from,
    pedals.filter((d) => !wet.includes(d) && !dirt.includes(d)),
  );
  const modeler = making.add(kind, 'Modeler', {
    place: kind === 'modeler-rack' ? 'rack' : 'floor',
  });
  making.join(
    at.left,
    { device: modeler.id, jack: 'in' },
    kind === 'modeler-rack' ? METRES.amp : at.metres,
  );
  const inside = insideOf(w, modeler, { dirt, wet, onStage: amps.length > 0, others });
  sendOut(w, modeler, inside, amps, others, brief);
  return modeler;
}

/** Where what drives stands. */
function dirtInLoop({ choices, brief }: Wiring, pedals: readonly Device[]): Device[] {
  const dirt = pedals.filter((d) => DIRT.includes(jobOf(d)));
  if (!dirt.length || (brief.means?.switching ?? 'foot') !== 'foot') return [];
  const taken = choices.take(
    'dirt',
    'Where what drives stands',
    [
      ['front', 'in front of the modeler'],
      ['loop', 'in its first loop'],
    ],
    'front',
    (place) =>
      place === 'front'
        ? 'In front, pedals see the pickup as they would an amplifier, and no converter lies between.'
        : 'In a loop, the modeler can put blocks in front of them; each trip takes 1 to 2 ms.',
  );
  return taken === 'loop' ? dirt : [];
}

/** Two inner points, left and right, where the sound of the amplifier waits. */
interface Inner {
  left: Waiting['left'];
  right: Waiting['left'];
}

/** What is inside: an amplifier, what is wet in a loop behind it, and the cabinet that the desk hears. */
function insideOf(
  w: Wiring,
  modeler: Device,
  {
    dirt,
    wet,
    onStage,
    others,
  }: { dirt: readonly Device[]; wet: readonly Device[]; onStage: boolean; others: readonly End[] },
): { stage: Inner; cab: Inner } {
  const { making, choices } = w;
  const at = (jack: string) => ({ device: modeler.id, jack });
  const block = (kind: string, name: string, rest: Partial<Device> = {}) =>
    making.add(kind, name, { host: modeler.id, ...rest });
  let from = at('fromIn');
  if (dirt.length) {
    making.link(modeler.id, 'fromIn', 'toSend1');
    const out = making.through({ left: at('send1'), metres: 0.5 }, dirt);
    making.join(out.left, at('return1'), 0.5);
    from = at('fromReturn1');
  }
  let sides = ampsInside(w, from, block, others);
  if (wet.length) {
    // Two returns that lie beside each other are the two sides of one loop.
    const n = modeler.kind === 'modeler-compact' ? 1 : 3;
    choices.take(
      'wet',
      'Where the wet effects stand',
      [['loop', `in loop ${n}, both sides back on ${n} and ${n + 1}`]],
      'loop',
      () => 'Behind the modelled amplifier, so that echoes are not driven again.',
    );
    making.join(sides.left, at(`toSend${n}`), 0);
    const isTwo = sides.left.device !== sides.right.device;
    if (isTwo) making.join(sides.right, at(`toSend${n + 1}`), 0);
    const sent = { left: at(`send${n}`), ...(isTwo && { right: at(`send${n + 1}`) }), metres: 0.5 };
    const out = making.through(sent, wet, true);
    making.join(out.left, at(`return${n}`), 0.5);
    if (out.right) making.join(out.right, at(`return${n + 1}`), 0.5);
    sides = {
      left: at(`fromReturn${n}`),
      right: at(out.right ? `fromReturn${n + 1}` : `fromReturn${n}`),
    };
  }
  const isWide = sides.left.device !== sides.right.device || sides.left.jack !== sides.right.jack;
  if (onStage) {
    // What comes back on a return serves one thing: a level in between can serve two.
    const level = block('pan', 'Stage level');
    const side = (jack: string) => ({ device: level.id, jack });
    making.join(sides.left, side('in'), 0);
    if (isWide) making.join(sides.right, side('inR'), 0);
    sides = { left: side('out'), right: side(isWide ? 'outR' : 'out') };
  }
  const cab = block('cab-block', 'Cab');
  making.join(sides.left, { device: cab.id, jack: 'in' }, 0);
  if (isWide) making.join(sides.right, { device: cab.id, jack: 'inR' }, 0);
  const cabOut = { device: cab.id, jack: 'out' };
  return {
    stage: sides,
    cab: { left: cabOut, right: (isWide && otherSide(cabOut, cab.kind)) || cabOut },
  };
}

/** The amplifier inside, or two of them, one panned to each side, where somebody hears both sides. */
function ampsInside(
  { brief, choices, making }: Wiring,
  from: Waiting['left'],
  block: (kind: string, name: string, rest?: Partial<Device>) => Device,
  others: readonly End[],
): Inner {
  const amp = (name: string) => block('amp-block', name, { settings: { master: 8 } });
  const areTwo =
    others.some((e) => e.way === 'house') &&
    brief.means?.house !== 'mono' &&
    choices.take(
      'pan',
      'Amplifiers inside',
      [
        ['one', 'one, in the middle'],
        ['two', 'two, one panned to each side'],
      ],
      'one',
      (taken) =>
        taken === 'one'
          ? 'One says what is played; the effects behind it make the width.'
          : 'Each side has an amplifier of its own; set them apart by gain and tone, or both say the same.',
    ) === 'two';
  const into = (device: Device) => ({ device: device.id, jack: 'in' });
  const out = (device: Device) => ({ device: device.id, jack: 'out' });
  if (!areTwo) {
    const one = amp('Amp');
    making.join(from, into(one), 0);
    return { left: out(one), right: out(one) };
  }
  // What comes in serves one thing: a level in between parts it to both sides.
  const parted = block('pan', 'To both sides');
  making.join(from, into(parted), 0);
  const [left, right] = [amp('Amp, left'), amp('Amp, right')];
  making.join(out(parted), into(left), 0);
  making.join({ device: parted.id, jack: 'outR' }, into(right), 0);
  return { left: out(left), right: out(right) };
}

/** Main outputs behind transformers: amplifiers on stage and a desk close a circle of grounds. */
function isolated(making: Making, choices: Wiring['choices'], { left, right }: Waiting): Waiting {
  const iso = making.add('hum-isolator', 'Isolator', { place: 'floor' });
  making.join(left, { device: iso.id, jack: 'in' }, 0.5);
  if (right) making.join(right, { device: iso.id, jack: 'inR' }, 0.5);
  choices.take(
    'isolator',
    'What keeps grounds apart',
    [['isolator', 'an isolator behind the main outputs']],
    'isolator',
    () => 'Amplifiers on stage and a desk are both on the mains: a lead to each closes a hum loop.',
  );
  return {
    left: { device: iso.id, jack: 'out' },
    right: { device: iso.id, jack: 'outR' },
    metres: METRES.desk,
  };
}

/** A way for each of several power stages: the two sides first, then what a splitter makes of them. */
function forAmps(making: Making, sides: readonly Waiting['left'][], count: number) {
  const ways = [...sides];
  for (let n = 1; ways.length < count; n++) {
    const from = ways.shift();
    if (!from) break;
    const fork = making.add('splitter-isolated', `Fork ${n}`, { place: 'floor' });
    making.join(from, { device: fork.id, jack: 'in' }, METRES.patch);
    ways.push({ device: fork.id, jack: 'a' }, { device: fork.id, jack: 'b' });
  }
  return ways;
}

/** The main outputs to who hears a loudspeaker modelled, the second ones to power stages. */
function sendOut(
  { making, choices }: Wiring,
  modeler: Device,
  { stage, cab }: { stage: Inner; cab: Inner },
  amps: readonly End[],
  others: readonly End[],
  brief: Wiring['brief'],
): void {
  const at = (jack: string) => ({ device: modeler.id, jack });
  if (others.length) {
    making.join(cab.left, at('toOut'), 0);
    making.join(cab.right, at('toOutR'), 0);
    const out = { left: at('out'), right: at('outR'), metres: METRES.desk };
    toEach(making, others, brief, amps.length ? isolated(making, choices, out) : out);
  }
  if (amps.length) making.join(stage.left, at('toOut2'), 0);
  if (amps.length > 1) making.join(stage.right, at('toOut2R'), 0);
  const ways = forAmps(making, [at('out2'), at('out2R')].slice(0, amps.length), amps.length);
  for (const [n, line] of amps.entries()) {
    const way = ways[n];
    if (!way) continue;
    const isHead = line.way === 'head';
    const power = making.add(isHead ? 'head-tube' : 'combo-tube-loop', line.name, {
      place: 'amps',
    });
    making.join(way, { device: power.id, jack: 'return' }, METRES.amp);
    if (!isHead) continue;
    const cabinet = making.add('cabinet', amps.length > 1 ? `Cabinet, ${line.name}` : 'Cabinet', {
      place: 'amps',
    });
    making.join(
      { device: power.id, jack: 'speaker' },
      { device: cabinet.id, jack: 'in' },
      METRES.speaker,
    );
  }
  if (amps.length)
    choices.take(
      'power-stage',
      'What the amplifiers on stage do',
      [['return', 'power stages: the modeler goes into their returns']],
      'return',
      () =>
        'The modeler is the preamplifier; its cabinet is left out on the way to a real loudspeaker.',
    );
}
