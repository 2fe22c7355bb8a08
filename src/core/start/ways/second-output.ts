import { kindOf } from '../../kinds';
import { METRES } from '../making';
import type { Wiring } from './amp-parts';
import type { Playing } from './arrive';
import { type End, toEach } from './ends';

/** Second outputs of instruments and feeds: whom they are for, and why. */
const SECOND_OUTPUTS = [
  {
    jack: 'piezo',
    way: 'house',
    words: 'to the desk, by a direct box',
    why: 'It is a sound of its own, with its preamplifier: pedals and amplifiers are made for the other one.',
  },
  {
    jack: 'click',
    way: 'in-ears',
    words: 'to the ears, by a direct box',
    why: 'A click is for those who play: it has a line of its own, which never goes to the house.',
  },
] as const;

/** A second output, as a piezo or a click has: a line of its own to those of its `ends` whom it is for. */
export function secondOutput(
  { making, choices, brief }: Wiring,
  p: Playing,
  ends: readonly End[],
): void {
  const found = SECOND_OUTPUTS.find((o) => kindOf(p.line.kind).jacks.some((j) => j.id === o.jack));
  const wanted = ends.filter((e) => e.way === found?.way);
  if (!found || !wanted.length) return;
  const taken = choices.take(
    `second-${p.line.id}`,
    `The second output of ${p.line.name}`,
    [
      ['desk', found.words],
      ['none', 'stays unplugged'],
    ],
    'desk',
    (t) => (t === 'desk' ? found.why : 'Only the first output is used.'),
  );
  if (taken === 'none') return;
  const named = wanted.map((e) => ({ ...e, name: `${e.name}, ${p.line.name} ${found.jack}` }));
  const at = { left: { device: p.device.id, jack: found.jack }, metres: METRES.player };
  toEach(making, named, { ...brief, means: { ...brief.means, house: 'mono' } }, at, 'box');
}
