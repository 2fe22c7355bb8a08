import { at as entryAt } from '../outcome';
import type { Taker } from './power';

/**
 * Devices that take the same, so that any of them may hang where another hangs: told apart only by where they
 * are plugged now. What is pinned, and what hands power on, is like nothing else.
 */
export class Alike {
  private readonly group: readonly number[];
  /** How many there are of each kind of need. */
  readonly sizes: readonly number[];

  constructor(takers: readonly Taker[], handsOn: (t: Taker) => boolean) {
    const numbers = new Map<string, number>();
    const sizes: number[] = [];
    this.group = takers.map((t) => {
      const isOne = t.device.supply?.pinned === true || handsOn(t);
      const key = isOne ? t.device.id : JSON.stringify(needOf(t));
      const number = numbers.get(key) ?? numbers.size;
      numbers.set(key, number);
      sizes[number] = (sizes[number] ?? 0) + 1;
      return number;
    });
    this.sizes = sizes;
  }

  /** The number of those that a device is like. */
  of(device: number): number {
    return entryAt(this.group, device);
  }

  are(a: number, b: number): boolean {
    return this.of(a) === this.of(b);
  }
}

/** All that decides which outlets fit, and what may stand beside it. */
const needOf = ({ need }: Taker): readonly unknown[] => [
  ...[need.volts, need.maxVolts ?? need.volts, need.milliamps, need.ac === true],
  ...[need.centre ?? 'negative', need.noisy === true, need.sensitive === true],
  need.positiveGround === true,
];
