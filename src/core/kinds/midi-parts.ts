import { jack, parameter } from './define';
import type { Jack } from './kind';
import { figure } from './parts';

/** A DIN input. */
export const midiIn = jack({
  id: 'midiIn',
  label: 'MIDI in',
  direction: 'in',
  signal: 'midi',
  connector: 'DIN',
  midi: 'in',
});
/** A DIN output for the device's own messages and, as its thru is set, for what comes in. */
export const midiOut = jack({
  id: 'midiOut',
  label: 'MIDI out',
  direction: 'out',
  signal: 'midi',
  connector: 'DIN',
  midi: 'out',
});
/** A DIN output that repeats what comes in. */
export const midiThru = jack({
  id: 'midiThru',
  label: 'MIDI thru',
  direction: 'out',
  signal: 'midi',
  connector: 'DIN',
  midi: 'thru',
});
export const usbDevice = jack({
  id: 'usb',
  label: 'USB',
  direction: 'either',
  signal: 'usb',
  connector: 'USB',
  usb: 'device',
});
export const usbHost = (id: string, label: string) =>
  jack({
    id,
    label,
    direction: 'either',
    signal: 'usb',
    connector: 'USB',
    usb: 'host',
  });

/** The same jack on a TRS socket of one of the two wirings. */
export const asTrs = <I extends string>(socket: Jack<I>, type: 'A' | 'B'): Jack<I> => ({
  ...socket,
  connector: `TRS-${type}`,
});

export const expressionIn = (id = 'exp', label = 'expression') =>
  jack({
    id,
    label,
    direction: 'in',
    signal: 'control',
    connector: 'TRS',
    reads: { what: 'expression', wiper: 'tip', ohms: [5000, 60_000] },
  });
export const switchIn = (
  id: string,
  label: string,
  action: 'momentary' | 'latching' | 'any' = 'momentary',
  contact: 'open' | 'closed' | 'any' = 'open',
  contacts: 1 | 2 = 1,
) =>
  jack({
    id,
    label,
    direction: 'in',
    signal: 'control',
    connector: contacts === 2 ? 'TRS' : 'TS',
    reads: { what: 'switch', action, contact, ...(contacts === 2 && { contacts }) },
  });
export const tapIn = switchIn('tap', 'tap in');

/** Time from the last byte of a message to when it has taken effect, and, for programs, how much of it is silence. */
export const midiFigures = (p: {
  programMs?: number;
  controlMs?: number;
  gapMs?: number;
  thruMs?: number;
  why: string;
}) => [
  ...(p.programMs === undefined
    ? []
    : [
        figure('programMs', 'In place after a program', 'ms', p.programMs, [0, 5000], p.why),
        figure('gapMs', 'Silent while a program loads', 'ms', p.gapMs ?? 0, [0, 5000], p.why),
      ]),
  ...(p.controlMs === undefined
    ? []
    : [
        figure('controlMs', 'In place after a control change', 'ms', p.controlMs, [0, 5000], p.why),
      ]),
  ...(p.thruMs === undefined
    ? []
    : [
        figure(
          'thruMs',
          'Passes messages on after',
          'ms',
          p.thruMs,
          [0, 100],
          'software reads the whole message first',
        ),
      ]),
];

/** A knob that runs from one figure to another in equal ratios, as time and rate knobs do. */
export const ratioBetween = (low: number, high: number, value: number): number =>
  low * (high / low) ** (value / 10);

/** Shortest and longest time of a delay, and the steps in which it can be stored. */
export const timeFigures = (low: number, high: number, step: number, why: string) => [
  figure('timeLowMs', 'Shortest time', 'ms', low, [0.1, 1000], why),
  figure('timeHighMs', 'Longest time', 'ms', high, [10, 60_000], why),
  figure('timeStepMs', 'Time is stored in steps of', 'ms', step, [0.001, 100], why),
];
export const timeKnob = <const I extends string = 'time'>(
  initial = 5,
  { id, label }: { id: I; label: string } = { id: 'time' as I, label: 'Time' },
) =>
  parameter({
    type: 'knob',
    heardAs: 'effect',
    id,
    label,
    initial,
    min: 0,
    max: 10,
    reads: (v, f) => `${Math.round(ratioBetween(f('timeLowMs'), f('timeHighMs'), v))} ms`,
  });
export const delayTempo = {
  setting: 'time',
  is: 'delay',
  low: 'timeLowMs',
  high: 'timeHighMs',
  step: 'timeStepMs',
  repeats: 'repeats',
} as const;

export const rateFigures = (why: string) => [
  figure('rateLowHz', 'Slowest rate', 'Hz', 0.1, [0.001, 10], why),
  figure('rateHighHz', 'Fastest rate', 'Hz', 10, [0.1, 1000], why),
  figure('rateStepHz', 'Rate is stored in steps of', 'Hz', 0.01, [0.0001, 10], why),
];
export const rateKnob = (initial: number) =>
  parameter({
    type: 'knob',
    heardAs: 'effect',
    id: 'rate',
    label: 'Rate',
    initial,
    min: 0,
    max: 10,
    reads: (v, f) => `${ratioBetween(f('rateLowHz'), f('rateHighHz'), v).toFixed(2)} Hz`,
  });
export const rateTempo = {
  setting: 'rate',
  is: 'rate',
  low: 'rateLowHz',
  high: 'rateHighHz',
  step: 'rateStepHz',
} as const;
