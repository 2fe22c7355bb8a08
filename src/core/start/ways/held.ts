import { type Job, kindOf } from '../../kinds';
import type { Device, Sound, State } from '../../rig/schema';
import { jobOf } from '../making';
import { staysInFront } from '../switching';
import type { Wiring } from './amp-parts';
import { isWet } from './desk';
import { allOf } from '../../units';

const DIRT: readonly Job[] = ['fuzz', 'drive', 'boost'];
const isDirty = (d: Device): boolean => DIRT.includes(jobOf(d)) && !staysInFront(d);

/** Two drives side by side, and what crosses from one to the other. */
export interface Crossing {
  selector: Device;
  pedal: Device;
  a: Device;
  b: Device;
}

/** A row, without what hangs in loops of its own members or beside them. */
export interface Held {
  row: Device[];
  crossing?: Crossing;
  /** A gate that hears the guitar and acts behind an amplifier. */
  around?: Device;
}

/**
 * What of a row hangs in the loops of others of it, where that is chosen: a tuner beside the line, two
 * drives side by side under a pedal of two channels, what a gate or a synth has in its own loop.
 */
export function hold(w: Wiring, pedals: readonly Device[], hasModel: boolean): Held {
  const { row, crossing } = crossed(w, tunersBeside(w, pedals));
  return { ...withLoops(w, row, hasModel), ...(crossing && { crossing }) };
}

/** Tuners in the line, or each on a tap of it. */
function tunersBeside({ making, choices }: Wiring, pedals: readonly Device[]): Device[] {
  return pedals.map((d) => {
    if (jobOf(d) !== 'tuner') return d;
    const taken = choices.take(
      `tuner-${d.id}`,
      `Where ${d.name} stands`,
      [
        ['line', 'in the line'],
        ['tap', 'on a tap of the line'],
      ],
      'line',
      (t) =>
        t === 'line'
          ? 'It mutes what follows while it is on.'
          : 'The line stays metal only, without a buffer, and the tuner hears always; the tap mutes by a press.',
    );
    if (taken === 'line') return d;
    const tap = making.add('splitter-tuner', `Tap, ${d.name}`, { place: 'floor' });
    const way = kindOf(d.kind).through;
    if (way)
      making.onceFed(tap, () =>
        making.join({ device: tap.id, jack: 'tuner' }, { device: d.id, jack: way.in }, 0.3),
      );
    return tap;
  });
}

/** Two drives side by side, crossed by a volume pedal of two channels; or all in the line. */
function crossed(w: Wiring, row: Device[]): { row: Device[]; crossing?: Crossing } {
  const { making, choices, brief } = w;
  const pedal = row.find((d) => d.kind === 'volume-two-channel');
  const [a, b] = row.filter((d) => ['drive', 'fuzz'].includes(jobOf(d)) && !staysInFront(d));
  if (!pedal || !a || !b || (brief.means?.switching ?? 'foot') !== 'foot') return { row };
  const taken = choices.take(
    'cross',
    `What ${pedal.name} does`,
    [
      ['line', 'volume of the line, by one channel'],
      ['cross', `goes over from ${a.name} to ${b.name}, side by side`],
    ],
    'line',
    (t) =>
      t === 'line'
        ? 'One channel turns the whole line down; the other stays free.'
        : 'One channel each, against each other; set the two apart in tone, or the middle is only louder.',
  );
  if (taken === 'line') return { row };
  pedal.settings = { ...pedal.settings, sense: 'opposite' };
  const selector = making.add('line-selector', 'Line selector', { place: 'floor' });
  making.hang(selector, [
    { send: 'sendA', back: 'returnA', row: [a, { device: pedal, in: 'in1', out: 'out1' }] },
    { send: 'sendB', back: 'returnB', row: [b, { device: pedal, in: 'in2', out: 'out2' }] },
  ]);
  const left = row.flatMap((d) => (d === a ? [selector] : d === b || d === pedal ? [] : [d]));
  return { row: left, crossing: { selector, pedal, a, b } };
}

/** Sounds that say which of two drives side by side is heard, and where the pedal between them stands. */
export const soundsByCrossing = (
  sounds: readonly Sound[],
  { selector, pedal, a, b }: Crossing,
): Sound[] =>
  sounds.map((s) => {
    const [isA, isB] = [a, b].map((d) => s.states[d.id]?.engaged === true);
    const mode = isA && isB ? 'mix' : isA ? 'a' : isB ? 'b' : 'bypass';
    const stands = isA && isB ? 5 : isB ? 0 : 10;
    return {
      ...s,
      states: {
        ...s.states,
        ...set(selector, { mode }),
        ...set(pedal, { pedal: stands }),
      },
    };
  });

const set = (d: Device, settings: NonNullable<State['settings']>): Record<string, State> => ({
  [d.id]: { settings },
});

/** Whether something has one loop of one line, in which others can hang; an insert waits for a guest. */
function hasLoop(d: Device): boolean {
  const { family, loops = [] } = kindOf(d.kind);
  const [loop] = loops;
  return family !== 'Routing' && loops.length === 1 && loop?.send.length === 1;
}

/** What could hang in the loop of a member of a row: for a gate what drives before it, else what comes behind. */
function couldHang(d: Device, row: readonly Device[], isFoot: boolean): Device[] {
  if (!isFoot) return [];
  const at = row.indexOf(d);
  const near = jobOf(d) === 'gate' ? row.slice(0, at).filter(isDirty) : row.slice(at + 1);
  return near.filter((x) => !isWet(x) && !staysInFront(x));
}

/** What members of a row have in loops of their own; and the gate that goes around an amplifier. */
function withLoops(
  { making, choices, brief }: Wiring,
  pedals: readonly Device[],
  hasModel: boolean,
): Pick<Held, 'row' | 'around'> {
  const isFoot = (brief.means?.switching ?? 'foot') === 'foot';
  let row = [...pedals];
  let around: Device | undefined;
  for (const d of pedals.filter(hasLoop)) {
    if (!row.includes(d)) continue;
    const held = couldHang(d, row, isFoot);
    const isGate = jobOf(d) === 'gate';
    const mayAmp = isGate && hasModel && !around;
    if (!held.length && !mayAmp) continue;
    const taken = choices.take(
      `holds-${d.id}`,
      `In the loop of ${d.name}`,
      [
        ['nothing', 'nothing'],
        ...(held.length ? [['held', allOf(held.map((x) => x.name))] as const] : []),
        ...(mayAmp ? [['amp', 'the amplifier of the modeler'] as const] : []),
      ],
      'nothing',
      (t) => (t === 'held' && !isGate ? LOOP_WHY.carries : LOOP_WHY[t]),
    );
    if (taken === 'nothing') continue;
    const [loop] = kindOf(d.kind).loops ?? [];
    const [send, back] = [loop?.send[0], loop?.return[0]];
    if (send === undefined || back === undefined) continue;
    if (taken === 'amp') {
      around = d;
      making.goesBy(d, { in: 'in', out: send });
      row = row.filter((x) => x !== d);
      continue;
    }
    making.hang(d, [{ send, back, row: held }]);
    // A gate hears the string in front of what it holds.
    const first = isGate ? held[0] : d;
    row = row.flatMap((x) => (x === first ? [d] : x === d || held.includes(x) ? [] : [x]));
  }
  return { row, ...(around && { around }) };
}

const LOOP_WHY = {
  nothing: 'It stands in the row like any other, with its loop left empty.',
  carries: 'Its loop carries the clean guitar: what hangs there shapes that alone, not the voice.',
  held: 'It hears the clean string in front of them, and acts on what comes back.',
  amp: 'It hears the clean string, and shuts behind the amplifier: echoes and room behind it ring on.',
};
