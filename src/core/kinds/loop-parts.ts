import { reasonOf } from '../outcome';
import { jack, parameter } from './define';
import type { DeviceState, Jack, Loop, Pass, Point, Plugged } from './kind';
import { readLoopOrder, type LoopOrder } from './loop-order';
import { choice, stage, as } from './parts';

const audio = (id: string, label: string, direction: Jack['direction'], rest: Partial<Jack> = {}) =>
  jack({ id, label, direction, signal: 'audio', connector: 'TS', ...rest });

export interface LoopPlan {
  count: number;
  stereoFrom?: number;
}

/** Jacks of a switcher's loops; from `stereoFrom` on, one TRS jack carries both sides. */
export const loopJacksOf = ({ count, stereoFrom = Infinity }: LoopPlan): Jack[] =>
  Array.from({ length: count }, (_, i) => i + 1).flatMap((n) => {
    const two = n >= stereoFrom;
    return [
      audio(
        `send${n}`,
        `send ${n}${two ? ' (TRS stereo)' : ''}`,
        'out',
        two ? { connector: 'TRS', stereo: `send${n}R` } : {},
      ),
      audio(
        `return${n}`,
        `return ${n}${two ? ' (TRS stereo)' : ''}`,
        'in',
        two ? { connector: 'TRS', stereo: `return${n}R` } : {},
      ),
    ];
  });

export const loopsOf = ({ count, stereoFrom = Infinity }: LoopPlan): Loop[] =>
  Array.from({ length: count }, (_, i) => i + 1).map((n) => ({
    id: `loop${n}`,
    label: `loop ${n}`,
    opensAt: 'never',
    send: n >= stereoFrom ? [`send${n}`, `send${n}R`] : [`send${n}`],
    return: n >= stereoFrom ? [`return${n}`, `return${n}R`] : [`return${n}`],
  }));

/** The written order of a switcher's loops, different in every sound. */
export const orderParameter = (count: number) =>
  parameter({
    type: 'text',
    id: 'order',
    role: 'loop order',
    label: 'Loops in order',
    initial: '',
    problem: (value) => {
      const read = readLoopOrder(value, count);
      return read.ok ? undefined : reasonOf(read);
    },
  });

export const emptyParameter = as(
  'empty loop',
  choice('empty', 'A loop with nothing in it', ['pass', 'passes'], ['mute', 'mutes']),
);

interface Bus {
  left: Way[];
  right: Way[];
}
interface Way {
  at: Point;
  levelDb: number;
}

/**
 * The passes of a switcher that runs its loops in the order given: each hop from one loop's return
 * to the next loop's send is a stage. Loops side by side are fed alike and summed behind. Loops
 * that are off hang open from the input, so that they can be shown.
 */
export function switcherPasses(
  s: DeviceState,
  plan: LoopPlan,
  order: LoopOrder,
  input: Point,
  plugged: Plugged,
): Pass[] {
  const passes: Pass[] = [];
  const isStereo = (n: number) => n >= (plan.stereoFrom ?? Infinity);
  const inUse = (n: number) => plugged(`send${n}`) || plugged(`return${n}`);
  const mutes = s.choice('empty') === 'mute';
  const hop = (ways: Way[], to: Point, levelDb = 0) => {
    for (const w of ways)
      passes.push(stage(s, { id: `${w.at}>${to}`, from: w.at, to, outputDb: w.levelDb + levelDb }));
  };
  const both = (bus: Bus): Way[] =>
    bus.left === bus.right
      ? bus.left
      : [...bus.left, ...bus.right].map((w) => ({ ...w, levelDb: w.levelDb - 6.02 }));
  const start: Way[] = [{ at: input, levelDb: 0 }];
  let bus: Bus = { left: start, right: plugged('inR') ? [{ at: 'inR', levelDb: 0 }] : start };
  for (const group of order) {
    const live = group.filter((w) => inUse(w.loop) || mutes);
    if (!live.length) continue;
    const left: Way[] = [];
    const right: Way[] = [];
    for (const { loop, levelDb } of live) {
      const back = { at: `return${loop}`, levelDb };
      left.push(back);
      if (isStereo(loop) && plugged(`send${loop}R`)) {
        hop(bus.left, `send${loop}`);
        hop(bus.right, `send${loop}R`);
      } else hop(both(bus), `send${loop}`);
      right.push(
        isStereo(loop) && plugged(`return${loop}R`) ? { at: `return${loop}R`, levelDb } : back,
      );
    }
    bus = { left, right: right.every((w, i) => w === left[i]) ? left : right };
  }
  if (plugged('outR')) {
    hop(bus.left, 'out');
    hop(bus.right, 'outR');
  } else hop(both(bus), 'out');
  const on = new Set(order.flat().map((w) => w.loop));
  for (let n = 1; n <= plan.count; n++) {
    if (on.has(n) || !inUse(n)) continue;
    passes.push({ is: 'open', a: input, b: `send${n}` });
    // Tails: the send is cut, what still rings comes back.
    if (s.text('tails').split(/\D+/).includes(String(n)))
      passes.push(stage(s, { id: `return${n}>out`, from: `return${n}`, to: 'out' }));
    else passes.push({ is: 'open', a: `return${n}`, b: 'out' });
  }
  return passes;
}
