import { defineKind } from './define';
import type { Parameter, Pass } from './kind';
import { emptyParameter, loopJacksOf, loopsOf } from './loop-parts';
import { midiFigures, midiIn, midiThru } from './midi-parts';
import { throughJacks, through, wire } from './parts';

const COUNT = 5;
const NUMBERS = Array.from({ length: COUNT }, (_, i) => i + 1);

export const loopSwitcherFixed = defineKind({
  id: 'loop-switcher-fixed',
  name: 'Loop switcher, fixed order',
  family: 'Routing',
  job: 'switcher',
  about:
    'Five loops on relays, always in this order: metal only, so a loop that is off is a piece of lead.',
  jacks: [...throughJacks, ...loopJacksOf({ count: COUNT }), midiIn, midiThru],
  figures: midiFigures({ programMs: 10, controlMs: 5, why: 'relays behind a controller' }),
  parameters: [
    ...NUMBERS.map((n): Parameter => ({
      type: 'switch',
      id: `loop${n}`,
      label: `Loop ${n}`,
      initial: false,
    })),
    emptyParameter,
  ],
  through,
  alwaysOn: true,
  programs: true,
  midi: {
    programs: {
      count: 128,
      bank: 'none',
      shows: { from: 1, size: 5, slots: 'letters', banksFrom: 1 },
    },
    controls: NUMBERS.map((n) => ({
      setting: `loop${n}`,
      cc: 20 + n,
      ways: ['absolute' as const],
    })),
    lamps: true,
    thrus: ['hardware'],
  },
  switches: COUNT,
  loops: loopsOf({ count: COUNT }),
  power: { volts: 9, milliamps: 120, noisy: true },
  size: { width: 300, depth: 80, height: 55, grams: 900 },
  passes: (s, plugged) => {
    const passes: Pass[] = [];
    let at = 'in';
    for (const n of NUMBERS) {
      const used = plugged(`send${n}`) || plugged(`return${n}`);
      if (s.on(`loop${n}`) && (used || s.choice('empty') === 'mute')) {
        passes.push(wire(at, `send${n}`));
        at = `return${n}`;
      } else if (used)
        passes.push(
          { is: 'open', a: at, b: `send${n}` },
          { is: 'open', a: `return${n}`, b: 'out' },
        );
    }
    return [...passes, wire(at, 'out')];
  },
});
