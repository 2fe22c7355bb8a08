import { kindOf } from '../../kinds';
import type { Device } from '../../rig/schema';
import { METRES } from '../making';
import type { Wiring } from './amp-parts';
import { arrive, type Playing } from './arrive';
import { isAmp } from './ends';
import type { SecondLine } from './modeler-out';

type Sides = SecondLine['sides'];

const SIDES_WHY: Record<Sides, string> = {
  mixed: 'Each has an amplifier of its own inside; behind them both go to all outputs.',
  dual: 'One output each: two lines at the desk, which are no stereo pair.',
};

/** Whether a second line shares the outputs or has one of them; where amplifiers are fed it shares them. */
function sidesFor({ choices, brief }: Wiring, id: string, about: string): Sides {
  const ways: readonly (readonly [Sides, string])[] = [
    ['mixed', 'both lines on both outputs'],
    ...(brief.destinations.some(isAmp) ? [] : [['dual', 'an output each'] as const]),
  ];
  return choices.take(id, about, ways, 'mixed', (t) => SIDES_WHY[t]);
}

/** A digital line beside others, which come in front of the pedals. */
export function digitalBeside(w: Wiring, { line, device }: Playing): SecondLine {
  return {
    name: line.name,
    from: 'fromDigital1',
    also: 'fromDigital2',
    amp: true,
    player: device.id,
    at: { left: { device: device.id, jack: 'digital' }, metres: METRES.player },
    sides: sidesFor(w, `beside-${line.id}`, `The digital line of ${line.name}`),
  };
}

/** The modelled instrument that comes down the same digital line as the pickups. */
export function modelled(w: Wiring, { line }: Playing): SecondLine | undefined {
  const taken = w.choices.take(
    `second-${line.id}`,
    `The modelled instrument of ${line.name}`,
    [
      ['mixed', 'past the amplifier, on the same outputs'],
      ...(w.brief.destinations.every(isAmp) ? [] : [['dual', 'an output of its own'] as const]),
      ['none', 'is not used'],
    ],
    'mixed',
    (t) =>
      t === 'none'
        ? 'Only the pickups are heard.'
        : 'It is a sound of its own: a modelled amplifier and cabinet are made for the pickups.' +
          (t === 'dual' ? ' On an output of its own the desk sets it apart.' : ''),
  );
  if (taken === 'none') return undefined;
  return { name: `${line.name} modelled`, from: 'fromDigital2', amp: false, sides: taken };
}

/** Two instruments at one modeler: joined in front of the pedals, or the second at an input of its own. */
export function instrumentBeside(
  w: Wiring,
  players: readonly Playing[],
): { joined: Playing[]; second: SecondLine } | undefined {
  const [first, other] = players;
  if (players.length !== 2 || !first || !other) return undefined;
  const areAmps = w.brief.destinations.some(isAmp);
  const taken = w.choices.take(
    'inputs',
    `Where ${other.line.name} comes in`,
    [
      ['joined', 'with the other, in front of the pedals'],
      ['mixed', 'at an input of its own, to both outputs'],
      ...(areAmps ? [] : [['dual', 'at an input of its own, to an output of its own'] as const]),
    ],
    'joined',
    (t) =>
      t === 'joined'
        ? 'Both go through the same pedals and the same amplifier.'
        : `It goes past the pedals, with an amplifier of its own. ${SIDES_WHY[t]}`,
  );
  if (taken === 'joined') return undefined;
  const { making, choices, brief } = w;
  const several = brief.sources.filter((s) => s.wireless).length > 1;
  const at = arrive(making, choices, [other], { several, together: true });
  return {
    joined: [first],
    second: {
      name: other.line.name,
      from: 'fromAux',
      amp: true,
      at,
      player: other.device.id,
      sides: taken,
    },
  };
}

/** The effect output of a pedal that has one beside its dry one, at another input of the modeler. */
export function effectBeside(w: Wiring, pedals: readonly Device[]): SecondLine | undefined {
  const pedal = pedals.find((d) => kindOf(d.kind).jacks.some((j) => j.id === 'effect'));
  if (!pedal) return undefined;
  const areAmps = w.brief.destinations.some(isAmp);
  const taken = w.choices.take(
    `effect-${pedal.id}`,
    `The effect output of ${pedal.name}`,
    [
      ['none', 'unplugged: effect and dry leave together'],
      ['mixed', 'at an input of its own, to both outputs'],
      ...(areAmps ? [] : [['dual', 'at an input of its own, to an output of its own'] as const]),
    ],
    'none',
    (t) =>
      t === 'none'
        ? 'What follows drives and colours both alike.'
        : `It skips what drives the guitar, with an amplifier of its own. ${SIDES_WHY[t]}`,
  );
  if (taken === 'none') return undefined;
  return {
    name: `${pedal.name} effect`,
    from: 'fromAux',
    amp: true,
    sides: taken,
    at: { left: { device: pedal.id, jack: 'effect' }, metres: METRES.patch },
  };
}
