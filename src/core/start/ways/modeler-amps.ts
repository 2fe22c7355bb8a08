import { sure } from '../../outcome';
import type { Control, Device } from '../../rig/schema';
import { type Making, type Waiting } from '../making';
import type { Wiring } from './amp-parts';
import type { End } from './ends';

/** Two inner points of a modeler, left and right, where the sound of the amplifier waits. */
export interface Inner {
  left: Waiting['left'];
  right: Waiting['left'];
}

type Block = (kind: string, name: string, rest?: Partial<Device>) => Device;
type Amps = 'one' | 'two' | 'pedal' | 'switch';

const WHY: Record<Amps, string> = {
  one: 'One says what is played; the effects behind it make the width.',
  two: 'Each side has an amplifier of its own; set them apart by gain and tone, or both say the same.',
  pedal:
    'One pedal turns one up as it turns the other down. In the middle both are softer; two that say ' +
    'the same are then as loud as one, two that differ sound softer.',
  switch: 'One press takes one away and brings the other, where two presses would be needed.',
};

const into = (device: Device) => ({ device: device.id, jack: 'in' });
const out = (device: Device) => ({ device: device.id, jack: 'out' });
/** The master of an amplifier that sounds alone, and of one beside another line: both add up at the outputs. */
export const MASTER = { alone: 8, beside: 6 };
const named = (name: string, block: Block, master = MASTER.alone) =>
  block('amp-block', name, { settings: { master } });

/**
 * The amplifier inside, or two of them: one panned to each side, where somebody hears both sides, or one
 * in the other's place by a pedal or a switch.
 */
export function ampsInside(
  w: Wiring,
  from: Waiting['left'],
  block: Block,
  {
    modeler,
    isBeside = false,
    others = [],
  }: { modeler: Device; isBeside?: boolean; others?: readonly End[] },
): Inner {
  const taken = isBeside ? 'one' : howMany(w, others);
  if (taken === 'two') return panned(w.making, from, block);
  if (taken === 'one') {
    const one = named('Amp', block, isBeside ? MASTER.beside : MASTER.alone);
    w.making.join(from, into(one), 0);
    return { left: out(one), right: out(one) };
  }
  return crossed(w.making, from, block, modeler, taken);
}

function howMany({ brief, choices }: Wiring, others: readonly End[]): Amps {
  const hasSides = others.some((e) => e.way === 'house') && brief.means?.house !== 'mono';
  const hasPedal = others.length > 0;
  if (!hasPedal) return 'one';
  return choices.take<Amps>(
    'pan',
    'Amplifiers inside',
    [
      ['one', 'one, in the middle'],
      ...(hasSides ? [['two', 'two, one panned to each side'] as const] : []),
      ['pedal', 'two, a pedal goes from one to the other'],
      ['switch', 'two, a switch puts one in the other’s place'],
    ],
    'one',
    (t) => WHY[t],
  );
}

/** What comes in serves one thing: a level in between parts it to both amplifiers. */
function parted(making: Making, from: Waiting['left'], block: Block, names: [string, string]) {
  const both = block('pan', 'To both');
  making.join(from, into(both), 0);
  const [first, second] = [named(names[0], block), named(names[1], block)];
  making.join(out(both), into(first), 0);
  making.join({ device: both.id, jack: 'outR' }, into(second), 0);
  return [first, second] as const;
}

function panned(making: Making, from: Waiting['left'], block: Block): Inner {
  const [left, right] = parted(making, from, block, ['Amp, left', 'Amp, right']);
  return { left: out(left), right: out(right) };
}

/** Two amplifiers mixed to one, and one control that takes both levels in opposite senses. */
function crossed(
  making: Making,
  from: Waiting['left'],
  block: Block,
  modeler: Device,
  by: 'pedal' | 'switch',
): Inner {
  const [first, second] = parted(making, from, block, ['Amp, first', 'Amp, second']);
  const mixer = block('mixer-line', 'Amps mixed', { settings: { levelA: 10, levelB: 0 } });
  making.join(out(first), { device: mixer.id, jack: 'a' }, 0);
  making.join(out(second), { device: mixer.id, jack: 'b' }, 0);
  const ranges = [
    { setting: 'levelA', heel: 10, toe: 0 },
    { setting: 'levelB', heel: 0, toe: 10 },
  ];
  const name = by === 'pedal' ? 'Amp pedal' : 'Amp switch';
  addControl(making, modeler, { name, by }, (foot) =>
    ranges.map(({ setting, heel, toe }) => ({
      id: setting,
      device: mixer.id,
      setting,
      ...(foot === 'pedal' ? { min: heel, max: toe } : { off: heel, on: toe }),
    })),
  );
  return { left: out(mixer), right: out(mixer) };
}

/** A pedal or a switch on a free jack of a modeler, and what it moves. */
export function addControl(
  making: Making,
  modeler: Device,
  { name, by }: { name: string; by: 'pedal' | 'switch' },
  assigns: (by: 'pedal' | 'switch') => Control['assigns'],
): Control {
  const device = making.add(by === 'pedal' ? 'expression-pedal' : 'foot-switch', name, {
    place: 'floor',
  });
  const jack = by === 'switch' ? 'tap' : sure(freeExpression(making, modeler));
  making.join({ device: device.id, jack: 'out' }, { device: modeler.id, jack }, 1);
  const control: Control = {
    id: device.id,
    name,
    type: by,
    device: device.id,
    ...(by === 'switch' && { action: 'latching' as const }),
    assigns: assigns(by),
  };
  making.controls.push(control);
  return control;
}

/** The first expression jack of a modeler that has no lead. */
const freeExpression = (making: Making, modeler: Device): string | undefined =>
  ['exp1', 'exp2'].find(
    (jack) => !making.leads.some((l) => l.to.device === modeler.id && l.to.jack === jack),
  );
