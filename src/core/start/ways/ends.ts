import { type Job, kindOf } from '../../kinds';
import type { Brief, Device, Voice } from '../../rig/schema';
import { isDigital } from '../instruments';
import { jobOf, type Making, METRES, type Waiting } from '../making';

/** Somebody who hears, as the brief names them. */
export type End = Brief['destinations'][number] & {
  /** The other side is for somebody else. */
  isOneSided?: boolean;
};

export const isAmp = ({ way }: { way: End['way'] }): boolean => way === 'head' || way === 'combo';

/**
 * What makes the sound of an amplifier: a modeler where an instrument has a digital output alone, which
 * nothing else takes; else what was said, else amplifiers where there are any.
 */
export function voiceOf(brief: Pick<Brief, 'sources' | 'destinations' | 'means'>): Voice {
  if (brief.sources.some(isDigital)) return 'modeler';
  return brief.means?.voice ?? (brief.destinations.some(isAmp) ? 'amplifiers' : 'simulator');
}

/** What stands for somebody who hears a line: the kind with one input or with two. */
function standIn(way: End['way'], wide: boolean): string {
  if (way === 'house') return wide ? 'console-input-stereo' : 'console-input';
  return way === 'in-ears' ? 'in-ear-mix' : way === 'stage' ? 'powered-speaker' : 'recorder';
}

/** Whether somebody can hear two sides apart. */
export const hearsWide = (end: End, brief: Brief): boolean =>
  !end.isOneSided && (end.way === 'house' ? brief.means?.house !== 'mono' : end.way !== 'stage');

/** What comes to an end: a line; a microphone, which an input amplifies more; or a line by a direct box. */
export type Comes = 'line' | 'mic' | 'box';

/** One who hears, at the end of one way or of two sides. */
export function finish(
  making: Making,
  end: { way: End['way']; name: string },
  at: Waiting,
  comes: Comes,
): Device {
  const wide = at.right !== undefined && end.way !== 'stage';
  const kind = standIn(end.way, wide);
  const byBox = comes === 'box' && end.way !== 'stage';
  const side = (from: Waiting['left'], name: string) => (byBox ? boxed(making, from, name) : from);
  const device = making.add(kind, end.name, {
    place: end.way === 'stage' ? 'amps' : 'house',
    // A desk's input is set for a microphone unless it is told otherwise; the others for a line.
    ...(end.way === 'house' && comes === 'line' && { settings: { input: 'line' } }),
    ...(end.way !== 'house' &&
      end.way !== 'stage' &&
      comes !== 'line' && { settings: { input: 'mic' } }),
  });
  const left = side(at.left, wide ? `${end.name} box, left` : `${end.name} box`);
  making.join(left, { device: device.id, jack: 'in' }, METRES.desk, 'balanced');
  if (wide && at.right) {
    const right = side(at.right, `${end.name} box, right`);
    making.join(right, { device: device.id, jack: 'inR' }, METRES.desk, 'balanced');
  }
  return device;
}

/** A direct box on the floor, which makes a microphone line of what comes. */
function boxed(making: Making, from: Waiting['left'], name: string): Waiting['left'] {
  const box = making.add('direct-box', name, { place: 'floor' });
  making.join(from, { device: box.id, jack: 'in' }, 0.5);
  return { device: box.id, jack: 'out' };
}

/**
 * A line, or two sides of it, to each who hears it: a splitter a side for each but the last. Who
 * hears one side only gets the left one.
 */
export function toEach(
  making: Making,
  ends: readonly End[],
  brief: Brief,
  from: Waiting,
  comes: Comes = 'line',
): void {
  let at = from;
  for (const [n, end] of ends.entries()) {
    const wide = at.right !== undefined && hearsWide(end, brief);
    if (n === ends.length - 1) {
      finish(making, end, wide ? at : { left: at.left, metres: at.metres }, comes);
      return;
    }
    const later = ends.slice(n + 1).some((e) => hearsWide(e, brief));
    const left = parted(making, at.left, 'Split');
    const right =
      at.right && (wide || later) ? parted(making, at.right, `${left.name}, right`) : undefined;
    finish(
      making,
      end,
      { left: left.b, ...(wide && right && { right: right.b }), metres: METRES.desk },
      comes,
    );
    at = { left: left.a, ...(right && { right: right.a }), metres: METRES.patch };
  }
}

/** What has balanced lines that a box without power parts. */
const BALANCED: readonly Job[] = ['instrument', 'splitter'];

/** One line made two: a microphone or a desk's line by a box without power, others by a buffer. */
function parted(making: Making, from: Waiting['left'], name: string) {
  const source = making.devices.find((d) => d.id === from.device);
  const plug = source && kindOf(source.kind).jacks.find((j) => j.id === from.jack);
  const isBalanced = source && plug?.connector === 'XLR' && BALANCED.includes(jobOf(source));
  const kind = isBalanced ? 'splitter-microphone' : 'splitter-buffered';
  const split = making.add(kind, name, { place: 'floor' });
  making.join(from, { device: split.id, jack: 'in' }, 0.5);
  const jack = (id: string) => ({ device: split.id, jack: id });
  return { name: split.name, a: jack('a'), b: jack('b') };
}
