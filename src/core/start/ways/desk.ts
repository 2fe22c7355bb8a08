import { kindOf } from '../../kinds';
import type { Device } from '../../rig/schema';
import { jobOf, type Making, METRES, type Waiting } from '../making';
import { isLate, type Wiring } from './amp-parts';
import { type Comes, type End, toEach } from './ends';

/** What comes behind a simulator or a modeler's amplifier: what makes a sound wide. */
export const isWet = (d: Device): boolean => isLate(d) || jobOf(d) === 'modulation';

/** Through a simulator, wide from there on, to each who hears it. */
export function bySimulator(
  { making, brief, choices }: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  ends: readonly End[],
): void {
  const late = pedals.filter(isWet);
  const front = late.filter((d) => jobOf(d) === 'modulation');
  const where = late.length > 0 && whereWet(choices, front.length > 0);
  const first = where === 'trs' || where === 'front' ? front : [];
  const wet = late.filter((d) => !first.includes(d));
  const at = making.through(
    making.through(
      from,
      pedals.filter((d) => !late.includes(d)),
    ),
    first,
    true,
  );
  const comes = linesBy(choices);
  const byTrs = where === 'trs' && at.right !== undefined;
  const simulator = making.add(
    byTrs ? 'amp-cab-simulator-trs' : 'amp-cab-simulator',
    'Amp and cab simulator',
    { place: 'floor', engaged: true, settings: { master: 8 } },
  );
  if (!byTrs || !at.right) {
    toEach(making, ends, brief, making.through(at, [simulator, ...wet], true), comes);
    return;
  }
  const jack = (id: string) => ({ device: simulator.id, jack: id });
  making.joinSide(at.left, jack('in'), 'tip');
  making.joinSide(at.right, jack('in'), 'ring');
  const out = { left: jack('out'), right: jack('outR'), metres: METRES.patch };
  toEach(making, ends, brief, making.through(out, wet, true), comes);
}

/** How the lines of a board come to a desk. */
const linesBy = (choices: Wiring['choices']): Comes =>
  choices.take(
    'lines',
    'How the lines go out',
    [
      ['line', 'as lines, into line inputs'],
      ['box', 'by direct boxes, into microphone inputs'],
    ],
    'line',
    (taken) =>
      taken === 'line'
        ? 'The last box drives a line; where the desk is far, mind the hum that an unbalanced lead collects.'
        : 'A direct box balances the line and keeps the grounds of board and desk apart.',
  );

/** Whether modulation stands in front of a simulator, which then has two sides. */
const whereWet = (choices: Wiring['choices'], mayFront: boolean) =>
  choices.take(
    'wet',
    'Where the wet effects stand',
    [
      ['behind', 'behind the simulator'],
      ...(mayFront
        ? ([
            ['front', 'modulation in front of it, the others behind'],
            ['trs', 'modulation in front of one with a single stereo jack'],
          ] as const)
        : []),
    ],
    'behind',
    (taken) =>
      taken === 'behind'
        ? 'The simulator makes an amplifier and a loudspeaker of one side; what is wide stands behind it.'
        : taken === 'front'
          ? 'Modulation is driven with the rest, as it always was in front of amplifiers; both sides are simulated.'
          : 'Both sides come by one jack: an insert lead brings them, tip left and ring right.',
  );

const DIRT = ['fuzz', 'drive', 'boost'];

/**
 * As it is, by direct boxes: nothing makes the sound of an amplifier. What is driven gets a simulator
 * all the same, unless it is taken out.
 */
export function byBoxes(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  ends: readonly End[],
): void {
  const { making, brief, choices } = w;
  const isDriven = making.devices.some((d) => DIRT.includes(jobOf(d)));
  if (isDriven) {
    const shape = choices.take(
      'driven',
      'What shapes the driven sounds',
      [
        ['simulator', 'a simulator'],
        ['nothing', 'nothing'],
      ],
      'simulator',
      (taken) =>
        taken === 'simulator'
          ? 'A loudspeaker takes the top octaves away; without one, drives are harsh in a desk and in ears.'
          : 'Drives go to full-range inputs as they are, which is harsh.',
    );
    if (shape === 'simulator') return bySimulator(w, from, pedals, ends);
  }
  const wet = pedals.filter(isWet);
  const at = making.through(
    making.through(
      from,
      pedals.filter((d) => !wet.includes(d)),
    ),
    wet,
    true,
  );
  toEach(making, ends, brief, driven(making, choices, at), 'box');
}

/** What drives a direct box: a pedal or a receiver can, a bare pickup gets a buffer. */
export function driven(making: Making, choices: Wiring['choices'], at: Waiting): Waiting {
  const device = making.devices.find((d) => d.id === at.left.device);
  if (!device || kindOf(device.kind).job !== 'instrument') return at;
  choices.take(
    'box-buffer',
    'What drives the direct box',
    [['buffer', 'a buffer']],
    'buffer',
    () => 'A passive direct box would load the pickups and take their treble.',
  );
  const buffer = making.add('buffer', `Buffer, ${device.name}`, {
    place: 'floor',
    engaged: true,
  });
  return making.through({ ...at, metres: METRES.player }, [buffer]);
}
