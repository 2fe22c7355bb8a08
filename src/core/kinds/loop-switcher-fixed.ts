import type { Kind, Parameter, Pass } from './kind';
import { emptyParameter, loopJacksOf, loopsOf } from './loop-parts';
import { throughJacks, through, wire } from './parts';

const COUNT = 5;
const NUMBERS = Array.from({ length: COUNT }, (_, i) => i + 1);

export const loopSwitcherFixed: Kind = {
  id: 'loop-switcher-fixed',
  name: 'Loop switcher, fixed order',
  family: 'Routing',
  job: 'switcher',
  about: 'Five loops on relays, always in this order: metal only, so a loop that is off is a piece of lead.',
  jacks: [...throughJacks, ...loopJacksOf({ count: COUNT })],
  figures: [],
  parameters: [...NUMBERS.map((n): Parameter => ({ type: 'switch', id: `loop${n}`, label: `Loop ${n}`, initial: false })), emptyParameter],
  through,
  alwaysOn: true,
  programs: true,
  loops: loopsOf({ count: COUNT }),
  power: { volts: 9, milliamps: 120 },
  size: { width: 300, depth: 80, height: 55, grams: 900 },
  passes: (s, plugged) => {
    const passes: Pass[] = [];
    let at = 'in';
    for (const n of NUMBERS) {
      const used = plugged(`send${n}`) || plugged(`return${n}`);
      if (s.on(`loop${n}`) && (used || s.choice('empty') === 'mute')) {
        passes.push(wire(at, `send${n}`));
        at = `return${n}`;
      } else if (used) passes.push({ is: 'open', a: at, b: `send${n}` }, { is: 'open', a: `return${n}`, b: 'out' });
    }
    return [...passes, wire(at, 'out')];
  },
};
