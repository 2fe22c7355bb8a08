import { kindOf } from '../../kinds';
import type { Device } from '../../rig/schema';
import { jobOf, type Making, METRES, otherSide, type Waiting } from '../making';
import type { Wiring } from './amp-parts';
import { isWet } from './desk';
import { type End, isAmp } from './ends';
import { ampsInside, type Inner } from './modeler-amps';
import { type SecondLine, sendOut, stageFor } from './modeler-out';

const DIRT = ['fuzz', 'drive', 'boost'];

/** What is special about what comes into a modeler, or stays in it. */
export interface Special {
  /** The first line came by the digital input, and what was waiting is the first send of this modeler. */
  entered?: Device;
  second?: SecondLine;
  /** A gate that has heard the string, and acts behind the amplifier. */
  around?: Device;
}

/**
 * Into a modeler: what comes in front of it, what hangs in its loops, an amplifier and a cabinet
 * inside, and its outputs to each who hears them; a power stage on stage is fed before the cabinet.
 */
export function toModeler(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  ends: readonly End[],
  special: Special = {},
): Device {
  const { making } = w;
  const { entered, second, around } = special;
  const wet = pedals.filter(isWet);
  const dirt = entered ? [] : dirtInLoop(w, pedals);
  const amps = ends.filter(isAmp);
  const others = ends.filter((e) => !isAmp(e));
  const needsMore =
    amps.length > 0 ||
    (dirt.length > 0 && wet.length > 0) ||
    around !== undefined ||
    entered !== undefined ||
    second !== undefined;
  const onlyCombos = others.length === 0 && amps.every((e) => e.way === 'combo');
  const isPlain = !entered && !second && !around && !dirt.length;
  const kind = entered?.kind ?? kindFor(w, needsMore, onlyCombos && isPlain ? amps.length : 0);
  const at = making.through(
    from,
    pedals.filter((d) => !wet.includes(d) && !dirt.includes(d)),
  );
  const isCombo = kind === 'combo-modeling';
  const [own] = amps;
  const modeler =
    entered ??
    making.add(kind, isCombo && own ? own.name : 'Modeler', {
      place: isCombo ? 'amps' : kind === 'modeler-rack' ? 'rack' : 'floor',
    });
  const begin = entered ? behindFirstLoop(making, modeler, at) : 'fromIn';
  if (!entered)
    making.join(
      at.left,
      { device: modeler.id, jack: 'in' },
      kind === 'modeler-floor' || kind === 'modeler-compact' ? at.metres : METRES.amp,
    );
  const stageBy = isCombo ? 'return' : stageFor(w, kind, amps);
  const onStage = amps.length > 0 && !isCombo;
  const inside = insideOf(w, modeler, { begin, dirt, wet, onStage, others, around, second });
  if (isCombo) toOwnSpeakers(making, modeler, inside.stage, amps);
  else sendOut(w, modeler, inside, { amps, others, stageBy, second });
  return modeler;
}

/** A modeler that is there before what stands in front of its amplifier, as a digital line needs it. */
export function enteredBy(w: Wiring, player: Device): Device {
  const kind = kindFor(w, true, 0);
  const modeler = w.making.add(kind, 'Modeler', {
    place: kind === 'modeler-rack' ? 'rack' : 'floor',
  });
  w.making.join(
    { device: player.id, jack: 'digital' },
    { device: modeler.id, jack: 'digitalIn' },
    METRES.player,
  );
  return modeler;
}

/** From the digital line through what hangs in the first loop, or on at once where nothing does. */
function behindFirstLoop(making: Making, modeler: Device, { left }: Waiting): string {
  if (left.device === modeler.id) return 'fromDigital1';
  making.link(modeler.id, 'fromDigital1', 'toSend1');
  making.join(left, { device: modeler.id, jack: 'return1' }, 0.5);
  return 'fromReturn1';
}

function kindFor({ choices }: Wiring, needsMore: boolean, combos: number): string {
  return choices.take(
    'modeler',
    'Which modeler',
    [
      ...(needsMore ? [] : [['modeler-compact', 'a compact one'] as const]),
      ['modeler-floor', 'one on the floor'] as const,
      ['modeler-rack', 'one in the rack'] as const,
      ...(combos === 1 || combos === 2
        ? [
            [
              'combo-modeling',
              combos === 1 ? 'the combo itself' : 'one combo, the other its slave',
            ] as const,
          ]
        : []),
    ],
    needsMore ? 'modeler-floor' : 'modeler-compact',
    (taken) =>
      taken === 'combo-modeling'
        ? 'Modeler, power stage and loudspeaker in one box; of a slave only the master still works.'
        : taken === 'modeler-compact'
          ? 'Two loops and one pair of outputs do for what hangs on it.'
          : needsMore
            ? 'It needs more than a compact one has: loops for what is dirty and for both sides of ' +
              'what is wet, another input, or a second pair of outputs for the stage.'
            : 'It has loops and outputs to spare.',
  );
}

/** A modeling combo sounds itself on the left; its right side drives the power stage of another. */
function toOwnSpeakers(making: Making, modeler: Device, stage: Inner, amps: readonly End[]): void {
  const at = (jack: string) => ({ device: modeler.id, jack });
  making.join(stage.left, at('toOut'), 0);
  const [, other] = amps;
  if (!other) return;
  making.join(stage.right, at('toOutR'), 0);
  const slave = making.add('combo-modeling', other.name, { place: 'amps' });
  making.join(at('slaveOut'), { device: slave.id, jack: 'powerIn' }, METRES.amp);
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

interface Inside {
  /** The inner point at which the first line comes in. */
  begin: string;
  dirt: readonly Device[];
  wet: readonly Device[];
  onStage: boolean;
  others: readonly End[];
  around: Device | undefined;
  second: SecondLine | undefined;
}

/** What is inside: an amplifier, what is wet in a loop behind it, and the cabinet that the desk hears. */
function insideOf(
  w: Wiring,
  modeler: Device,
  { begin, dirt, wet, onStage, others, around, second }: Inside,
): { stage: Inner; cab: Inner } {
  const { making, choices } = w;
  const at = (jack: string) => ({ device: modeler.id, jack });
  const block = (kind: string, name: string, rest: Partial<Device> = {}) =>
    making.add(kind, name, { host: modeler.id, ...rest });
  let from = at(begin);
  if (dirt.length) {
    making.link(modeler.id, begin, 'toSend1');
    const out = making.through({ left: at('send1'), metres: 0.5 }, dirt);
    making.join(out.left, at('return1'), 0.5);
    from = at('fromReturn1');
  }
  const isTwo = second !== undefined;
  const isSmall = modeler.kind === 'modeler-compact' || modeler.kind === 'combo-modeling';
  let sides = around
    ? gated(w, modeler, around, ampsInside(w, from, block, { modeler, isBeside: isTwo }))
    : ampsInside(w, from, block, { modeler, isBeside: isTwo, others });
  if (wet.length) {
    // Two returns that lie beside each other are the two sides of one loop.
    const n = isSmall ? 1 : 3;
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
  // A combo has a real loudspeaker: none is modelled.
  if (modeler.kind === 'combo-modeling') return { stage: sides, cab: sides };
  const cab = block('cab-block', 'Cab');
  making.join(sides.left, { device: cab.id, jack: 'in' }, 0);
  if (isWide) making.join(sides.right, { device: cab.id, jack: 'inR' }, 0);
  const cabOut = { device: cab.id, jack: 'out' };
  return {
    stage: sides,
    cab: { left: cabOut, right: (isWide && otherSide(cabOut, cab.kind)) || cabOut },
  };
}

/** Behind the amplifier, out through the second loop of its modeler to a gate, and back. */
function gated({ making }: Wiring, modeler: Device, gate: Device, { left }: Inner): Inner {
  const [loop] = kindOf(gate.kind).loops ?? [];
  const way = kindOf(gate.kind).through;
  const back = loop?.return[0];
  if (!way || back === undefined) return { left, right: left };
  const at = (jack: string) => ({ device: modeler.id, jack });
  making.join(left, at('toSend2'), 0);
  making.join(at('send2'), { device: gate.id, jack: back }, METRES.amp);
  making.join({ device: gate.id, jack: way.out }, at('return2'), METRES.amp);
  return { left: at('fromReturn2'), right: at('fromReturn2') };
}
