import { done, type Outcome, refused } from '../outcome';

/** One way through a loop of a group, with its level in dB. */
export interface LoopWay {
  loop: number;
  levelDb: number;
}

/** How a switcher runs its loops: groups one after the other, the loops of a group side by side. */
export type LoopOrder = LoopWay[][];

/** Between loops side by side; a plus behind "@" is the sign of a level. */
const BESIDE = /(?<!@)\+/;
const WAY = /^(\d{1,2})(?:@([+-]?\d{1,2}(?:\.\d)?))?$/;

/**
 * Reads an order as a tech writes it: loop numbers in the order of the signal, loops side by side
 * in brackets joined by "+", and a level in dB after "@". A reason in words where it cannot be
 * read.
 *
 *     readLoopOrder('2 1 (3+4@-6) 5', 8)
 */
export function readLoopOrder(text: string, loops: number): Outcome<LoopOrder> {
  const order: LoopOrder = [];
  const seen = new Set<number>();
  for (const word of text
    .trim()
    .replace(/\s*\+\s*/g, '+')
    .replace(/\(\s+/g, '(')
    .replace(/\s+\)/g, ')')
    .split(/[\s,>]+/)
    .filter(Boolean)) {
    const inner = /^\((.*)\)$/.exec(word)?.[1] ?? word;
    if (inner === word && BESIDE.test(word))
      return refused(`write loops that run side by side in brackets: (${word})`);
    const group: LoopWay[] = [];
    for (const part of inner.split(BESIDE)) {
      const m = WAY.exec(part);
      if (!m)
        return refused(`"${part}" is no loop; write numbers in order, such as "2 1 (3+4@-6) 5"`);
      const way = { loop: Number(m[1]), levelDb: Number(m[2] ?? 0) };
      if (way.loop < 1 || way.loop > loops)
        return refused(`there is no loop ${way.loop}; it has loops 1 to ${loops}`);
      if (way.levelDb > 12 || way.levelDb < -60)
        return refused(`a loop's level runs from −60 to +12 dB, not ${way.levelDb}`);
      if (seen.has(way.loop))
        return refused(`loop ${way.loop} stands in it twice; signal can pass a loop once`);
      seen.add(way.loop);
      group.push(way);
    }
    order.push(group);
  }
  return done(order);
}

/** An order as it is written. */
export const writeLoopOrder = (order: LoopOrder): string =>
  order
    .filter((g) => g.length)
    .map((g) => {
      const ways = g.map((w) => `${w.loop}${w.levelDb ? `@${w.levelDb}` : ''}`).join('+');
      return g.length > 1 ? `(${ways})` : ways;
    })
    .join(' ');
