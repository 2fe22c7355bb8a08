import { defineKind, parameter } from './define';
import { readLoopOrder } from './loop-order';
import { emptyParameter, loopJacksOf, loopsOf, orderParameter, switcherPasses } from './loop-parts';
import { expressionIn, midiFigures, midiIn, midiOut, switchIn, usbDevice } from './midi-parts';
import { inJack, pedalFigures, stereoOuts, through } from './parts';

const PLAN = { count: 8, stereoFrom: 7 };

export const loopSwitcher = defineKind({
  id: 'loop-switcher',
  name: 'Loop switcher, free order',
  family: 'Routing',
  job: 'switcher',
  about:
    'Eight buffered loops in any order, one after the other or side by side, different ' +
    'in every sound. Loops 7 and 8 are stereo. The panel input takes priority over the ' +
    'input at the back.',
  jacks: [
    { ...inJack, label: 'in' },
    { ...inJack, id: 'panel', label: 'panel in (takes priority)' },
    ...stereoOuts,
    ...loopJacksOf(PLAN),
    midiIn,
    midiOut,
    usbDevice,
    expressionIn(),
    switchIn('ctl', 'control switch', 'any', 'any', 2),
  ],
  figures: [
    ...pedalFigures(1e6, -105, 'one buffer an input'),
    ...midiFigures({ programMs: 8, controlMs: 3, thruMs: 1, why: 'relays behind a controller' }),
  ],
  parameters: [
    orderParameter(PLAN.count),
    emptyParameter,
    parameter({
      type: 'text',
      id: 'tails',
      label: 'Loops that ring on when off',
      initial: '',
      problem: (v) => (/^[\s\d,]*$/.test(v) ? undefined : 'write loop numbers, such as "7 8"'),
    }),
  ],
  through,
  alwaysOn: true,
  programs: true,
  midi: {
    programs: {
      count: 512,
      bank: 'msb',
      shows: { from: 1, size: 4, slots: 'numbers', banksFrom: 1 },
    },
    sends: ['program', 'control'],
    recalls: true,
    reports: true,
    lamps: true,
    thrus: ['merged', 'software', 'none'],
  },
  display: { lines: 2, width: 16 },
  switches: 8,
  loops: loopsOf(PLAN),
  power: { volts: 9, milliamps: 400, noisy: true },
  size: { width: 440, depth: 120, height: 60, grams: 1900 },
  passes: (s, plugged) => {
    const order = readLoopOrder(s.text('order'), PLAN.count);
    const input = plugged('panel') ? 'panel' : 'in';
    const quiet = plugged('panel') ? [{ is: 'open' as const, a: 'in', b: 'out' }] : [];
    return [...switcherPasses(s, PLAN, order.ok ? order.value : [], input, plugged), ...quiet];
  },
});
